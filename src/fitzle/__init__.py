"""Fitzle: say where it goes, and Fitzle works out the rest."""

__version__ = "0.1.0"
