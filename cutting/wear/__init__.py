"""Tool life and its spread."""
