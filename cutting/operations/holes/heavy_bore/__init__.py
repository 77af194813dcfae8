"""Bores of several steps in one pass, with a tool so heavy that the changer has a say."""
