"""Faces: found with their eyes, and whether those are open."""
