"""Heavy boring tools: built of solids, carried by a changer, with steps that cut seat, bore and bearing in one pass."""
