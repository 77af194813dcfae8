"""Import and export of everything the shop keeps, in open formats, carried out by the workers."""
