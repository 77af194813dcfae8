"""Trepanning: a rotating head cuts a ring, and the core stays in one piece."""
