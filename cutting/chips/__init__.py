"""Whether chips break, and what they look like."""
