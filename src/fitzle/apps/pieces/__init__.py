"""Pieces, their history, and their fits in placements."""
