"""What a job shows: its state, its numbers in words, its print, the cautions that were read."""
