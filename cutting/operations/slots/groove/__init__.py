"""Grooves outside and inside: how to clear them, what loads the blade sideways, and what width and floor come out."""
