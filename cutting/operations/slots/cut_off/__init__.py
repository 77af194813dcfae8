"""Cut-off: what the blade meets on its way to the centre, what face it leaves, and when the part falls."""
