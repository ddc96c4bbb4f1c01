"""What no document, history or delivery needs goes after a while: artwork that was put away, files, renditions."""

from __future__ import annotations

from collections.abc import Callable
from datetime import datetime, timedelta
from functools import reduce
from typing import NamedTuple

from django.conf import settings
from django.utils import timezone

from fitzle.apps.accounts.access import all_workspaces
from fitzle.apps.artwork.clearing import ContentInUse, content_in_use, forgotten_artwork
from fitzle.apps.deliveries.record import delivered_contents
from fitzle.apps.destinations.learning import forget_learnings
from fitzle.apps.files.clearing import take_away, unneeded
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.pieces.clearing import artwork_in_histories, forget_old_renditions, made_contents
from fitzle.apps.watermarking.batches import contents_of, forget_watermarkings


class Cleared(NamedTuple):
    """What was taken away."""

    artwork: int = 0
    renditions: int = 0
    files: int = 0
    bytes: int = 0

    def and_(self, other: Cleared) -> Cleared:
        """Both together."""
        return Cleared(*(one + two for one, two in zip(self, other, strict=True)))


def clear_away(days: float | None = None) -> Cleared:
    """Takes away what nobody has needed for so many days, in all workspaces."""
    before = kept_since(days)
    return reduce(Cleared.and_, (clear_workspace(workspace.pk, before) for workspace in all_workspaces()), Cleared())


def kept_since(days: float | None = None) -> datetime:
    """What was not needed since then goes; days as FITZLE_KEPT_DAYS says where none are given."""
    return timezone.now() - timedelta(days=settings.KEPT_DAYS if days is None else days)


def clear_workspace(workspace_id: int, before: datetime) -> Cleared:
    """The same for one workspace: what nobody has needed since then."""
    gone = forgotten_artwork(workspace_id, artwork_in_histories(workspace_id), before)
    artwork = len([artwork.delete() for artwork in gone])
    renditions = forget_old_renditions(workspace_id, before)
    forget_learnings(workspace_id, before)
    forget_watermarkings(workspace_id, before)
    files = weight = 0
    for shelf, is_needed in needs(workspace_id).items():
        for note in unneeded(workspace_id, shelf, is_needed, before):
            if take_away(note, before):
                files, weight = files + 1, weight + note.bytes
    return Cleared(artwork, renditions, files, weight)


def needs(workspace_id: int) -> dict[Shelf, Callable[[str], bool]]:
    """For each shelf whether a file is still needed, by its key."""
    content: ContentInUse = content_in_use(workspace_id)
    marked = contents_of(workspace_id)
    made = made_contents(workspace_id) | delivered_contents(workspace_id) | marked["made"]
    return {
        Shelf.ORIGINALS: (content.originals | marked["originals"]).__contains__,
        Shelf.WORKING: (content.originals | content.prepared).__contains__,  # screenshots are in neither, and go
        Shelf.PREPARED: content.prepared.__contains__,
        Shelf.COSTLY: content.costly.__contains__,
        Shelf.STRIPS: lambda key: key.partition(".")[0] in content.originals,
        Shelf.MADE: made.__contains__,
    }
