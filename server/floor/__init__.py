"""The floor: machines."""
