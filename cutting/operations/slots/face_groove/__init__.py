"""Grooves in a face: whether the curved blade enters, in which order it plunges, and what loads it."""
