"""Pieces: what a person makes to fill placements."""
