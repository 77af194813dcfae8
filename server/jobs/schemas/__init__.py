"""What the endpoints of jobs take and give."""
