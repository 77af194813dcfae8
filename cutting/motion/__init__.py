"""How tools go: paths of moves that every kind of operation tells, and what is read of them: seconds, what is taken away, pictures."""
