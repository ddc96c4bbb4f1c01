"""Repairs that make words and marks stand out, as they were worked out where their contrast was read."""

from __future__ import annotations

from collections.abc import Iterator

from fitzle.core.piece.changes import AddPart, Change, SetField, free_id
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.readings import ContrastReading, Stronger, Way
from fitzle.core.preflight.rule import Evidence

LINE = 0.12  # of the height of a letter: seen wherever the letters are
EDGE = 0.02  # of the short side


def stronger_colour(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The colour that reads there."""
    words = {own.part for own in evidence.plan.words}
    return [
        SetField(part=own.part, field="colour" if own.part in words else "tint", value=way.colour, placement=placement)
        for own, way in _wanted("colour", evidence, part)
    ]


def line_around(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """A line around letters, or an edge around a mark."""
    words = {own.part for own in evidence.plan.words}
    return [
        SetField(
            part=own.part,
            field="outline" if own.part in words else "edge",
            value={"width": LINE if own.part in words else EDGE, "colour": way.colour},
            placement=placement,
        )
        for own, way in _wanted("outline", evidence, part)
    ]


def calm_behind(piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """A veil between what is faint and everything behind it, in this place alone: elsewhere it is hidden."""
    for own, way in _wanted("darken", evidence, part):
        return veil_below(piece, placement, own.part, way.colour, way.opacity)
    return []


def veil_below(piece: Piece, placement: str, part: str, colour: str, opacity: float) -> list[Change]:
    """A colour laid over all that lies below a part, in one place."""
    ids = [entry.id for entry in piece.parts]
    at, name = ids.index(part), free_id("veil", set(ids))
    value = {
        "role": "shape", "shape": "rectangle", "name": "Veil", "fill": {"kind": "solid", "colour": colour},
        "opacity": opacity, "beyond": True, "hidden": True,
    }  # fmt: skip
    return [
        AddPart(part=name, value=value, at=at),
        SetField(part=name, field="hidden", value=False, placement=placement),
    ]


def _wanted(way: Way, evidence: Evidence, part: str | None) -> Iterator[tuple[ContrastReading, Stronger]]:
    for own in evidence.readings:
        found = next((one for one in own.ways if one.way == way), None)
        if found and part in (None, own.part):
            yield own, found
