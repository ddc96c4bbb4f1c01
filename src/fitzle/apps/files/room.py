"""How much room a workspace takes, and how much it may take."""

from __future__ import annotations

from collections.abc import Iterable, Iterator

from django.conf import settings
from django.db.models import Sum

from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf
from fitzle.core.errors import FitzleError
from fitzle.core.units import words_for_bytes


class NoRoomError(FitzleError):
    """A workspace has used up what it may keep."""


def used_bytes(workspace_id: int) -> int:
    """The weight of everything that a workspace keeps."""
    return sum(used_by_shelf(workspace_id).values())


def used_by_shelf(workspace_id: int) -> dict[Shelf, int]:
    """The weight of what a workspace keeps, by where it stands."""
    found = KeptFile.objects.filter(workspace_id=workspace_id).values_list("shelf").annotate(all=Sum("bytes"))
    return {Shelf(shelf): count for shelf, count in found.order_by()}


def kept_by_shelf() -> dict[Shelf, int]:
    """The weight of everything that is kept, by where it stands."""
    found = KeptFile.objects.values_list("shelf").annotate(all=Sum("bytes"))
    return {Shelf(shelf): count for shelf, count in found.order_by()}


def quota_bytes() -> int:
    """What one workspace may keep."""
    return int(settings.WORKSPACE_BYTES)


def within_room(workspace_id: int, chunks: Iterable[bytes]) -> Iterator[bytes]:
    """The same chunks, as long as the workspace has room for them; then it raises NoRoomError."""
    left = quota_bytes() - used_bytes(workspace_id)
    for chunk in chunks:
        left -= len(chunk)
        if left < 0:
            raise NoRoomError(
                f"this workspace has no room for it: it may keep {words_for_bytes(quota_bytes())}",
                advice="Under Artwork, “What takes the room” shows what could go.",
            )
        yield chunk
