"""The plan of a part: its blank, what the drawing asks, the steps that make it; the bodies between them and the set-ups of each."""
