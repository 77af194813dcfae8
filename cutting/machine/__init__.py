"""What drives the cut."""
