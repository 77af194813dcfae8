"""Threads: turned with a single point, tapped or formed, milled."""
