"""Runs: one piece for every row of a table."""
