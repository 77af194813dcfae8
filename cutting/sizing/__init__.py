"""From the first measured pass to the size on the drawing: offsets, springing, warmth and wear."""
