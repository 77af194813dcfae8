"""What every way to make a hole shares."""
