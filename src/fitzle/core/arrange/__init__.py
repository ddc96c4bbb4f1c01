"""A piece arranged for places of other shapes: what it means in its own shape, and where its parts go in another."""
