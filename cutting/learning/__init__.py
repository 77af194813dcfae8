"""What cuts at the machine teach: lives with what was stopped early, sizes, gauges, and what all of it is worth."""
