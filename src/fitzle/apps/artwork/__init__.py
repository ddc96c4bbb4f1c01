"""Artwork: originals kept as they came, facts, working copies."""
