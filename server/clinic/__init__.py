"""The clinic over HTTP: what is seen, what is behind it, what to change, how that turned out; and exercises."""
