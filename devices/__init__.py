"""Small simulated devices that ship with the bench: each speaks over the loopback as a real one would over its cable."""
