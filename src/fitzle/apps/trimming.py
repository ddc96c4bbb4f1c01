"""What a part of a clip weighs as the file of a place: drawers encode it small or whole; what they find is kept in the
cache, and small frames with it.
"""

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
from fitzle.core.motion.foreseeing import (
    Growth,
    Light,
    foreseen,
    growth_of,
    light_loop,
    packed,
    part_of,
    span_frames,
    spans_of,
    turned_out,
    unpacked,
)
from fitzle.core.motion.looped import check_loop
from fitzle.core.motion.trimming import Trimmed, measured, parts_of, trimmed_for
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.artwork.models import Artwork
    from fitzle.apps.destinations.models import Placement
    from fitzle.core.artwork.sources import Pixels

KEPT_SECONDS = 3600.0
FRAMES_KEPT_SECONDS = 600.0  # a megabyte for a span
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
    count = _measured(space, clip, place, cut, made, make=make)
    light, growth = _light(space, clip, place, cut)
    wrong_by = f"{_key(clip, place)}/wrong"
    if count is None:
        return Weight(foreseen(light, growth, made, cache.get(wrong_by, 1.0)), measured=False)
    if light.size != made.size:  # what is foreseen from here on is nearer
        cache.set(wrong_by, turned_out(light, growth, count), KEPT_SECONDS)
    return Weight(count, measured=True)


@drawable
def weigh_light(workspace: int, clip: UUID, placement: UUID, begin: float, end: float, closing: Closing) -> Light:
    """The loop of a part of a clip as the format of a place, encoded small."""
    artwork, made = _asked(workspace, clip, placement)
    cut = Cut(begin=begin, end=end, closing=closing)
    return light_loop(_frames(artwork, cut, made), cut, made)


@drawable
def weigh_growth(
    workspace: int, clip: UUID, placement: UUID, begin: float, end: float, closing: Closing, size: tuple[int, int]
) -> Growth:
    """How a loop of a part of a clip grows from a size to its own in a place."""
    artwork, made = _asked(workspace, clip, placement)
    cut = Cut(begin=begin, end=end, closing=closing)
    with clip_of(artwork) as opened:
        return growth_of(opened, _frames(artwork, cut, made), cut, made, Size(*size))


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


def _measured(space: Workspace, clip: Artwork, place: Placement, cut: Cut, made: Trimmed, *, make: bool) -> int | None:
    """The bytes of the file of a part, where it was made before or is made now."""
    key = f"{_key(clip, place)}/{cut.begin:.3f}/{cut.end:.3f}/{cut.closing}"
    found: int | None = cache.get(key)
    if found is None and make:
        parts = parts_of(cut, clip.known_facts["seconds"], made)
        one = (space.pk, clip.pk, place.pk, cut.begin, cut.end or 0.0, cut.closing)
        try:
            found = sum(weigh_made.ask(f"{key}/{part}", *one, part, parts) for part in range(parts))
        except DrawingTooHeavy:
            return None
        cache.set(key, found, KEPT_SECONDS)
    return found


def _light(space: Workspace, clip: Artwork, place: Placement, cut: Cut) -> tuple[Light, Growth]:
    """The loop encoded small, and how loops of this clip grow in this place."""
    one = (space.pk, clip.pk, place.pk, cut.begin, cut.end or 0.0, cut.closing)
    key = f"{_key(clip, place)}/light/{cut.begin:.3f}/{cut.end:.3f}/{cut.closing}"
    try:
        found = cache.get(key) or weigh_light.ask(key, *one)
        light = Light(Size(*found[0]), *found[1:])
        size, busy = light.kind
        grows = f"{_key(clip, place)}/grows/{size.width}x{size.height}/{busy}"
        growth = cache.get(grows) or weigh_growth.ask(grows, *one, size)
    except DrawingTooHeavy as error:
        raise ValueOutOfRange(TOO_LONG, advice=MAKE_IT) from error
    cache.set(key, tuple(light), KEPT_SECONDS)
    cache.set(grows, tuple(growth), KEPT_SECONDS)
    return light, Growth(*growth)


def _frames(clip: Artwork, cut: Cut, made: Trimmed) -> list[Pixels]:
    """The small frames of a part, of spans that are read once."""
    spans = spans_of(cut)
    frames: list[Pixels] = []
    for begin in spans:
        key = f"trimming/{clip.workspace_id}/{clip.sha256}/{made.size.width}x{made.size.height}/{made.fps:g}/{begin:g}"
        kept = cache.get(key)
        if kept is None:
            with clip_of(clip) as opened:
                kept = packed(span_frames(opened, begin, clip.known_facts["seconds"], made))
            cache.set(key, kept, FRAMES_KEPT_SECONDS)
        frames += unpacked(kept)
    return part_of(frames, spans[0], cut, made)


def _key(clip: Artwork, place: Placement) -> str:
    return f"trimming/{clip.workspace_id}/{clip.sha256}/{place.pk}/{place.revision}"
