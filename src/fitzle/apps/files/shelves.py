"""Where files are kept."""

from __future__ import annotations

from django.db import models


class Shelf(models.TextChoices):
    """Where a file is kept. Originals and made files stand under their own SHA-256, the others under a key."""

    ORIGINALS = "originals"
    WORKING = "working"
    PREPARED = "prepared"
    COSTLY = "costly"
    STRIPS = "strips"
    MADE = "made"


def kept_path(shelf: str, workspace_id: int, key: str) -> str:
    """The place of a file in the storage; the same bytes are kept once for each workspace."""
    return f"{shelf}/{workspace_id}/{key[:2]}/{key}"
