"""Boring: a bore is made wider by one edge on a bar that reaches into it; the turning engine from inside."""
