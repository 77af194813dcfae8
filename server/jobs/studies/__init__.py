"""Turns the core's studies of an operation into what the API gives; `doors` holds one line for each."""
