"""What takes the room of a workspace, and what of it goes by itself."""

from __future__ import annotations

from uuid import UUID

from django.conf import settings
from django.http import HttpRequest
from ninja import Path, Router, Schema

from fitzle.apps.accounts.access import workspace_to_see
from fitzle.apps.api.artwork_views import ground_of
from fitzle.apps.artwork.library import heaviest
from fitzle.apps.files.room import quota_bytes, used_by_shelf
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.pieces.uses import uses_of_artwork
from fitzle.core.units import words_for_bytes

router = Router(tags=["room"])
SHOWN = 30
_KINDS: dict[str, tuple[Shelf, ...]] = {
    "Artwork as it came": (Shelf.ORIGINALS,),
    "Files made for places": (Shelf.MADE,),
    "Prepared artwork": (Shelf.PREPARED, Shelf.COSTLY),
    "Small copies to look at": (Shelf.WORKING, Shelf.STRIPS),
}


class RoomKind(Schema):
    """Files of one kind."""

    name: str
    bytes: int
    weight: str
    share: float


class HeavyArtwork(Schema):
    """An artwork with its earlier files, and where it is seen."""

    id: UUID
    name: str
    key: str
    weight: str
    earlier: int
    used_in: list[str]
    put_away: bool
    visible: bool
    shown_on: str | None


class RoomOut(Schema):
    """`share` is of what the workspace may keep."""

    used: str
    quota: str
    share: float
    kept_days: int
    kinds: list[RoomKind]
    heaviest: list[HeavyArtwork]


@router.get("/room", response=RoomOut)
def read_room(request: HttpRequest, workspace: Path[str]) -> RoomOut:
    """What takes the room."""
    space = workspace_to_see(request.user, workspace)
    by_shelf, quota, uses = used_by_shelf(space.pk), quota_bytes(), uses_of_artwork(space)
    used = sum(by_shelf.values())
    kinds = {name: sum(by_shelf.get(shelf, 0) for shelf in shelves) for name, shelves in _KINDS.items()}
    return RoomOut(
        used=words_for_bytes(used),
        quota=words_for_bytes(quota),
        share=used / quota,
        kept_days=round(settings.KEPT_DAYS),
        kinds=[
            RoomKind(name=name, bytes=count, weight=words_for_bytes(count), share=count / used if used else 0.0)
            for name, count in kinds.items()
        ],
        heaviest=[
            HeavyArtwork(
                id=artwork.pk,
                name=artwork.name,
                key=artwork.content.sha256[:20],
                weight=words_for_bytes(weight),
                earlier=len(artwork.earlier),
                used_in=uses.get(str(artwork.pk), []),
                put_away=artwork.put_away,
                visible=artwork.visible,
                shown_on=ground_of(artwork),
            )
            for artwork, weight in heaviest(space, SHOWN)
        ],
    )
