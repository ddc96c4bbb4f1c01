"""Spec sheets: what a placement demands and how it is seen there."""
