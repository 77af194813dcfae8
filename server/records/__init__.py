"""What crib, shelf and floor share: one way to keep a record, with history, archive and the stamp of its room."""
