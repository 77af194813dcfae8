"""Milling a thread down or up a helix, or out of the solid."""
