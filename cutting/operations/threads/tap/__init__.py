"""Tapping: cut or formed, in one go."""
