"""Preparation: the non-destructive steps on an artwork. Shape and alternatives: docs/decisions/0014."""
