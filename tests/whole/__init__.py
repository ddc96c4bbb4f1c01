"""A whole Fitzle, or two, as whoever runs it gets it."""
