"""Pixels to the best-looking file under the byte limit."""
