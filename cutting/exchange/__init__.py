"""Tools, materials and machines as open tables: columns, checks, and the same record in and out."""
