"""Import and export of everything the shop keeps, in open formats, through one executor."""
