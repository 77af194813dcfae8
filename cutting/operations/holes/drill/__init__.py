"""Drilling from solid, through a pilot and through stacks."""
