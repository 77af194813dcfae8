"""What the one command does: set-up, database instance, processes. Standard library only."""
