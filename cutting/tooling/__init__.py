"""What cuts: designations, geometries, grades, inserts, holders, and the crib that stocks them."""
