"""Ways in for programs: the open JSON form and the command line."""
