"""The set-up sheet: what an operator runs from, on paper."""
