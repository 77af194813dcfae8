"""What every way to make a thread shares."""
