"""Colour spaces, contrast and main colours."""
