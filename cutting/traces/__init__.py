"""Recorded traces of thrust and torque: read, laid over the prediction, and what they teach."""
