"""The shelf: materials."""
