"""What cut-off, grooves, face grooves and trepanning share: the narrow edge in its slot, its life and its money."""
