"""Destinations and their placements with spec sheets."""
