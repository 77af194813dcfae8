"""Studies: questions about one set-up that have a sheet of their own."""
