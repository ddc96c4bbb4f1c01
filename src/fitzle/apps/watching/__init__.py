"""Seeing what happens: one line of JSON for each thing worth noting, figures for machines, a page for who runs it."""
