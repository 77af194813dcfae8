"""Keeps data, knows people, answers requests; computes nothing itself."""
