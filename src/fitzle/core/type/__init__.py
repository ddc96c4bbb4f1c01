"""Typefaces, shaping, line breaking, and fitting words to a box."""
