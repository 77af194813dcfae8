"""What turning and facing share: one edge, one chip, one law of force, life and money."""
