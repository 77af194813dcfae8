"""Kinds of operation that are judged set-up by set-up: limits as data, remedies found by running them, one way to an outcome."""
