"""Long work: what takes longer than a person waits at a door is taken up by workers, on this machine or on others."""
