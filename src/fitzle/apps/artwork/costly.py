"""Cuts and tracings that take long to make, kept for whoever needs them again."""

from __future__ import annotations

from fitzle.apps.files.keeping import keep, read
from fitzle.apps.files.shelves import Shelf


class CostlyShelf:
    """Cuts and tracings of one workspace; see core.artwork.steps.costly.Shelf."""

    def __init__(self, workspace_id: int) -> None:
        self._workspace_id = workspace_id

    def get(self, key: str) -> bytes | None:
        """What is kept, or None."""
        return read(Shelf.COSTLY, self._workspace_id, key)

    def put(self, key: str, data: bytes) -> None:
        """Keeps it."""
        keep(Shelf.COSTLY, self._workspace_id, key, data)
