"""Measures speed; prints figures. Never part of the tests: machines are noisy."""
