"""Screw threads: what a drawing's words say, their limits by class, how they are measured and what hole they are tapped in."""
