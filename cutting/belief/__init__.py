"""What is not known exactly: each quantity of a model with its band, and what trials have taught of it."""
