"""Turning a thread with a single point, pass by pass."""
