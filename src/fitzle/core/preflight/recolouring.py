"""A repair of the rules of neighbouring colours: one of a pair is made lighter or darker where the piece has it."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from fitzle.core.colour.apart import moved_apart
from fitzle.core.colour.oklab import difference
from fitzle.core.colour.srgb import Rgb, parse_hex
from fitzle.core.findings import Repair
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece, parts_in
from fitzle.core.piece.fills import Solid
from fitzle.core.piece.parts import AnyPart, ArtworkPart, GroundPart, ShapePart, WordsPart
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.preflight.rule import Evidence

SAME = 0.04  # OKLab: a colour read off the picture is this near to the one it was drawn in
Holds = Callable[[Rgb, Rgb], bool]
Setting = tuple[str, str, Callable[[str], object]]  # part, field, and the value that a colour makes


def recolour_repair(name: str, reading: EyeReading, evidence: Evidence, holds: Holds) -> Repair | None:
    """The repair with the colour that it comes to; None where the pair is inside of artwork."""
    there = set(_drawn_in(evidence))
    for own, other in _pairs(reading):
        moved = moved_apart(own, other, holds)
        if moved and any(_same(own, one) for one in there):
            return Repair(name=name, label=f"Make {own} {moved}", becomes=moved)
    return None


def recoloured(piece: Piece, placement: str, evidence: Evidence, reading: EyeReading, holds: Holds) -> list[Change]:
    """The first colour of the pair that a part has, moved in lightness until it holds, wherever it is used here."""
    for own, other in _pairs(reading):
        settings = [one for part in parts_in(piece, placement) for one in _settings(part, own, evidence)]
        moved = moved_apart(own, other, holds)
        if settings and moved:
            return [
                SetField(part=part, field=field, value=value(moved), placement=placement)
                for part, field, value in settings
            ]
    return []


def _pairs(reading: EyeReading) -> Iterator[tuple[str, str]]:
    if len(reading.colours) == 2:
        one, other = reading.colours
        yield one, other
        yield other, one


def _drawn_in(evidence: Evidence) -> Iterator[str]:
    """The colours that a part of the plan can be given otherwise."""
    plan = evidence.plan
    if isinstance(plan.fill, Solid):
        yield plan.fill.colour
    yield from (own.colour for own in plan.words if own.colour.startswith("#"))
    for own in plan.parts:
        fill = getattr(own, "fill", None)
        if isinstance(fill, Solid):
            yield fill.colour
    for art in (one for one in plan.artworks if one.role == "mark"):
        yield from ([art.tint] if art.tint else art.palette)


def _settings(part: AnyPart, colour: str, evidence: Evidence) -> Iterator[Setting]:
    if isinstance(part, GroundPart | ShapePart) and isinstance(part.fill, Solid) and _same(part.fill.colour, colour):
        yield part.id, "fill", lambda moved: {"kind": "solid", "colour": moved}
    if isinstance(part, WordsPart):
        shown = next((own.colour for own in evidence.plan.words if own.part == part.id), part.colour)
        if shown.startswith("#") and _same(shown, colour):
            yield part.id, "colour", lambda moved: moved
    if isinstance(part, ArtworkPart) and part.role == "mark":
        yield from _settings_of_mark(part, colour, evidence)


def _settings_of_mark(part: ArtworkPart, colour: str, evidence: Evidence) -> Iterator[Setting]:
    placed = next((own for own in evidence.plan.artworks if own.part == part.id), None)
    if placed is None:
        return
    if placed.tint:
        if _same(placed.tint, colour):
            yield part.id, "tint", lambda moved: moved
        return
    own = next((one for one in placed.palette if _same(one, colour)), None)
    if own:
        yield part.id, "recolour", lambda moved: {**part.recolour, own: moved}


def _same(one: str, other: str) -> bool:
    return difference(parse_hex(one), parse_hex(other)) <= SAME
