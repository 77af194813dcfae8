"""Jobs, their revisions, notes, measurements and prints."""
