"""A mark made larger where it stands."""

from __future__ import annotations

from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.plan.padding import least_clearance_px
from fitzle.core.plan.placed import PlacedArtwork
from fitzle.core.plan.standing import kept_inside, standing_at
from fitzle.core.preflight.rule import Evidence


def has_room(evidence: Evidence, part: str, factor: float) -> bool:
    """Whether the picture holds a mark that is `factor` times larger, with the least clearance around it."""
    own, room = _mark(evidence, part), _room(evidence)
    return bool(own and own.box.width * factor <= room.width and own.box.height * factor <= room.height)


def enlarged_mark(evidence: Evidence, part: str, factor: float, placement: str) -> list[Change]:
    """The changes that make it so; none where there is no room."""
    own = _mark(evidence, part)
    if own is None or not has_room(evidence, part, factor):
        return []
    width, height, middle = own.box.width * factor, own.box.height * factor, own.box.centre
    box = kept_inside(Rect(middle.x - width / 2, middle.y - height / 2, width, height), 0, _room(evidence))
    stands, _ = standing_at(box, evidence.plan.size)
    values = {"stands": stands.model_dump(), "padding": {"value": 0, "unit": "px"}, "mode": "whole"}
    return [SetField(part=part, field=field, value=value, placement=placement) for field, value in values.items()]


def _room(evidence: Evidence) -> Rect:
    size = evidence.plan.size
    return Rect(0, 0, size.width, size.height).inset(least_clearance_px(size.short_side))


def _mark(evidence: Evidence, part: str) -> PlacedArtwork | None:
    return next((one for one in evidence.plan.artworks if one.part == part), None)
