"""The demo jobs of an invented workshop."""
