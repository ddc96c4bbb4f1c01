"""Placed parts to pixels."""
