"""What a part of a clip weighs as the file of a place: foreseen while it is trimmed, made once it rests."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Schema
from pydantic import Field

from fitzle.apps.accounts.access import workspace_to_see
from fitzle.apps.api.schemas import Message
from fitzle.apps.artwork.clips import usable_clip
from fitzle.apps.destinations.shelves import placement_of, placements_of
from fitzle.apps.trimming import made_in, weight_of
from fitzle.core.formats import label_of
from fitzle.core.motion.footage import Closing, Cut
from fitzle.core.motion.trimming import Trimmed
from fitzle.core.units import words_for_weight

router = Router(tags=["clips"])
Seconds = Annotated[float, Field(ge=0, le=1_000_000)]


class TrimPlace(Schema):
    """A place that takes moving files made of frames, by its name and that of its destination."""

    id: UUID
    name: str
    made: str


class LoopWeight(Schema):
    """The bytes of a part as the file of a place where it looks well, `measured` or foreseen, beside the limit."""

    bytes: int
    limit: int | None
    words: str
    measured: bool
    fits: bool


@router.get("/artwork/{uuid:artwork}/loops/places", response=list[TrimPlace])
def places_for_loops(request: HttpRequest, workspace: Path[str], artwork: UUID) -> list[TrimPlace]:
    """The places that a part of a clip can be weighed for."""
    space = workspace_to_see(request.user, workspace)
    clip = usable_clip(space, artwork)
    found = ((one, made_in(one, clip)) for one in placements_of(space))
    return [
        TrimPlace(id=one.pk, name=f"{one.spec.name}, {one.destination.name}", made=_words(made))
        for one, made in found
        if made
    ]


@router.get("/artwork/{uuid:artwork}/loops/weight", response={200: LoopWeight, 422: Message})
def weigh_loop(
    request: HttpRequest,
    workspace: Path[str],
    artwork: UUID,
    placement: UUID,
    begin: Seconds,
    end: Seconds,
    closing: Closing = "cut",
    make: bool = False,
) -> LoopWeight:
    """What a part of a clip weighs in a place: foreseen at once, or measured on a file that is made (`make`)."""
    space = workspace_to_see(request.user, workspace)
    cut = Cut(begin=begin, end=end, closing=closing)
    place = placement_of(space, placement)
    weight = weight_of(space, usable_clip(space, artwork), place, cut, make=make)
    limit = place.spec.max_bytes
    return LoopWeight(
        bytes=weight.bytes,
        limit=limit,
        words=words_for_weight(weight.bytes, limit),
        measured=weight.measured,
        fits=not limit or weight.bytes <= limit,
    )


def _words(made: Trimmed) -> str:
    return f"{made.size.width} × {made.size.height} px, {label_of(made.format)}, {made.fps:.3g} frames a second"
