"""What it costs."""
