"""The crib: geometries, grades, inserts, holders."""
