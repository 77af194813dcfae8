"""Jobs over HTTP: thin; each loads, asks the core, and answers."""
