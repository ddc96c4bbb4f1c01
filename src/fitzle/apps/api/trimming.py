"""What a part of a clip weighs as the file of a place: foreseen while it is trimmed, made once it rests."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated
from uuid import UUID

from django.core.cache import cache
from django.http import HttpRequest
from ninja import Path, Router, Schema
from pydantic import Field

from fitzle.apps.accounts.access import workspace_numbered, workspace_to_see
from fitzle.apps.api.schemas import Message
from fitzle.apps.artwork.clips import clip_of, usable_clip
from fitzle.apps.destinations.shelves import placement_of, placements_of
from fitzle.apps.drawing.calls import drawable
from fitzle.apps.drawing.errors import DrawingTooHeavy
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.formats import label_of
from fitzle.core.motion.footage import Closing, Cut
from fitzle.core.motion.looped import check_loop
from fitzle.core.motion.trimming import (
    SPAN_S,
    Moment,
    Trimmed,
    foreseen,
    measured,
    moments_of,
    parts_of,
    span_of,
    trimmed_for,
)
from fitzle.core.units import Size, words_for_weight

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork
    from fitzle.apps.destinations.models import Placement

router = Router(tags=["clips"])
KEPT_SECONDS = 3600.0
TOO_LONG = "this part takes too long to be weighed just now"
MAKE_IT = "Make a moving picture of it: its files are weighed when they are made."
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
    found = ((one, _made(one, clip)) for one in placements_of(space))
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
    clip, place = usable_clip(space, artwork), placement_of(space, placement)
    made, cut = _made(place, clip), Cut(begin=begin, end=end, closing=closing)
    check_loop(cut, clip.known_facts["seconds"])
    if made is None:
        raise ValueOutOfRange("this place takes no moving file made of frames", advice="Choose another place.")
    # None too where that takes too long.
    count = _measured(space, clip, place, cut, made) if make else None
    found = foreseen(_moments(space, clip, place, cut), cut, made)
    key = f"{_key(clip, place)}/{closing}"
    known = count is not None
    if count is None:
        count = round(found * cache.get(key, 1.0))
    else:
        cache.set(key, count / max(1, found), KEPT_SECONDS)  # what is foreseen from here on is nearer
    limit = place.spec.max_bytes
    return LoopWeight(
        bytes=count, limit=limit, words=words_for_weight(count, limit), measured=known, fits=not limit or count <= limit
    )


@drawable
def weigh_span(workspace: int, clip: UUID, placement: UUID, begin: float) -> list[Moment]:
    """The moments of one span of a clip, weighed for a place."""
    space = workspace_numbered(workspace)
    artwork = usable_clip(space, clip)
    made = _made(placement_of(space, placement), artwork)
    assert made
    with clip_of(artwork) as opened:
        return moments_of(opened, begin, artwork.known_facts["seconds"], made)


@drawable
def weigh_made(
    workspace: int, clip: UUID, placement: UUID, begin: float, end: float, closing: Closing, part: int, parts: int
) -> int:
    """The bytes of the file of a part of a clip, made; of several parts of it what one adds."""
    space = workspace_numbered(workspace)
    artwork = usable_clip(space, clip)
    made = _made(placement_of(space, placement), artwork)
    assert made
    with clip_of(artwork) as opened:
        return measured(opened, Cut(begin=begin, end=end, closing=closing), made, part, parts)


def _measured(space: Workspace, clip: Artwork, place: Placement, cut: Cut, made: Trimmed) -> int | None:
    key = f"{_key(clip, place)}/{cut.begin:.3f}/{cut.end:.3f}/{cut.closing}"
    found: int | None = cache.get(key)
    if found is None:
        parts = parts_of(cut, clip.known_facts["seconds"], made)
        one = (space.pk, clip.pk, place.pk, cut.begin, cut.end or 0.0, cut.closing)
        try:
            found = sum(weigh_made.ask(f"{key}/{part}", *one, part, parts) for part in range(parts))
        except DrawingTooHeavy:
            return None
        cache.set(key, found, KEPT_SECONDS)
    return found


def _moments(space: Workspace, clip: Artwork, place: Placement, cut: Cut) -> list[Moment]:
    found: list[Moment] = []
    begin = span_of(cut.begin)
    while begin < (cut.end or 0.0):
        key = f"{_key(clip, place)}/{begin:g}"
        kept = cache.get(key)
        if kept is None:
            try:
                kept = weigh_span.ask(key, space.pk, clip.pk, place.pk, begin)
            except DrawingTooHeavy as error:
                raise ValueOutOfRange(TOO_LONG, advice=MAKE_IT) from error
            cache.set(key, [tuple(one) for one in kept], KEPT_SECONDS)
        found += [Moment(*one) for one in kept]
        begin += SPAN_S
    return found


def _made(place: Placement, clip: Artwork) -> Trimmed | None:
    facts = clip.known_facts
    return trimmed_for(place.spec, Size(round(facts["width"]), round(facts["height"])), facts["fps"])


def _words(made: Trimmed) -> str:
    return f"{made.size.width} × {made.size.height} px, {label_of(made.format)}, {made.fps:.3g} frames a second"


def _key(clip: Artwork, place: Placement) -> str:
    return f"trimming/{clip.workspace_id}/{clip.sha256}/{place.pk}/{place.revision}"
