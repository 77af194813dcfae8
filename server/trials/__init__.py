"""Trials at the machine: what was predicted, what happened, and what of it somebody accepted."""
