"""What a part of a clip weighs as the file of a place: spans and parts are weighed by drawers and kept in the cache."""

from __future__ import annotations

from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.core.cache import cache

from fitzle.apps.accounts.access import workspace_numbered
from fitzle.apps.artwork.clips import clip_of, usable_clip
from fitzle.apps.destinations.shelves import placement_of
from fitzle.apps.drawing.calls import drawable
from fitzle.apps.drawing.errors import DrawingTooHeavy
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.motion.footage import Closing, Cut
from fitzle.core.motion.looped import check_loop
from fitzle.core.motion.trimming import (
    Moment,
    Trimmed,
    foreseen,
    measured,
    moments_of,
    parts_of,
    spans_of,
    trimmed_for,
)
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork
    from fitzle.apps.destinations.models import Placement

KEPT_SECONDS = 3600.0
TOO_LONG = "this part takes too long to be weighed just now"
MAKE_IT = "Make a moving picture of it: its files are weighed when they are made."


class Weight(NamedTuple):
    """The bytes of a part of a clip as the file of a place, measured on a file that was made, or foreseen."""

    bytes: int
    measured: bool


def made_in(place: Placement, clip: Artwork) -> Trimmed | None:
    """What a clip becomes in a place; None where the place takes nothing that is made of frames."""
    facts = clip.known_facts
    return trimmed_for(place.spec, Size(round(facts["width"]), round(facts["height"])), facts["fps"])


def weight_of(space: Workspace, clip: Artwork, place: Placement, cut: Cut, *, make: bool) -> Weight:
    """What a part weighs: foreseen, or measured where it is asked for and does not take too long.

    Raises ValueOutOfRange for a cut beyond the clip, and where the place takes no such file.
    """
    check_loop(cut, clip.known_facts["seconds"])
    made = made_in(place, clip)
    if made is None:
        raise ValueOutOfRange("this place takes no moving file made of frames", advice="Choose another place.")
    count = _measured(space, clip, place, cut, made) if make else None
    found = foreseen(_moments(space, clip, place, cut), cut, made)
    wrong_by = f"{_key(clip, place)}/{cut.closing}"
    if count is None:
        return Weight(round(found * cache.get(wrong_by, 1.0)), measured=False)
    cache.set(wrong_by, count / max(1, found), KEPT_SECONDS)  # what is foreseen from here on is nearer
    return Weight(count, measured=True)


@drawable
def weigh_span(workspace: int, clip: UUID, placement: UUID, begin: float) -> list[Moment]:
    """The moments of one span of a clip, weighed for a place."""
    artwork, made = _asked(workspace, clip, placement)
    with clip_of(artwork) as opened:
        return moments_of(opened, begin, artwork.known_facts["seconds"], made)


@drawable
def weigh_made(
    workspace: int, clip: UUID, placement: UUID, begin: float, end: float, closing: Closing, part: int, parts: int
) -> int:
    """The bytes of the file of a part of a clip, made; of several parts of it what one adds."""
    artwork, made = _asked(workspace, clip, placement)
    with clip_of(artwork) as opened:
        return measured(opened, Cut(begin=begin, end=end, closing=closing), made, part, parts)


def _asked(workspace: int, clip: UUID, placement: UUID) -> tuple[Artwork, Trimmed]:
    space = workspace_numbered(workspace)
    artwork = usable_clip(space, clip)
    made = made_in(placement_of(space, placement), artwork)
    assert made
    return artwork, made


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
    return [moment for begin in spans_of(cut) for moment in _span(space, clip, place, begin)]


def _span(space: Workspace, clip: Artwork, place: Placement, begin: float) -> list[Moment]:
    key = f"{_key(clip, place)}/{begin:g}"
    kept = cache.get(key)
    if kept is None:
        try:
            kept = weigh_span.ask(key, space.pk, clip.pk, place.pk, begin)
        except DrawingTooHeavy as error:
            raise ValueOutOfRange(TOO_LONG, advice=MAKE_IT) from error
        cache.set(key, [tuple(one) for one in kept], KEPT_SECONDS)
    return [Moment(*one) for one in kept]


def _key(clip: Artwork, place: Placement) -> str:
    return f"trimming/{clip.workspace_id}/{clip.sha256}/{place.pk}/{place.revision}"
