"""Formulae of the cut. Every function takes numbers or NumPy arrays of one shape and returns the same."""
