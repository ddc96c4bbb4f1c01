"""Reading what came in, and telling what it really is."""
