"""Clips: what they are, and stills out of them."""
