"""Where every part of a piece stands in one placement."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.errors import DocumentError
from fitzle.core.piece.fills import Fill, Gradient, Pattern, PictureFill
from fitzle.core.piece.parts import AnyPart, ArtworkPart, GroundPart, ShapePart, WordsPart, artwork_of_part
from fitzle.core.plan.artwork import contents, placed_artwork
from fitzle.core.plan.grounds import given_ground
from fitzle.core.plan.looks import edge_of
from fitzle.core.plan.placed import Placed, PlacedArtwork, Plan
from fitzle.core.plan.words import placed_shape, placed_words
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size

TYPICAL = Size(1024, 1024)  # where a range leaves the size open and no artwork decides it


def plan_parts(parts: Sequence[AnyPart], sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]) -> Plan:
    """The plan of a piece's parts for a placement; raises DocumentError when the facts of an artwork are missing."""
    shown = _shown(parts, facts)
    size = _size(sheet, shown, facts)
    ground = next((part for part in shown if isinstance(part, GroundPart)), None)
    fill, edge = (ground.fill, edge_of(ground.edge, size)) if ground else (None, None)
    margin = edge.width_px if edge else 0.0
    placed = tuple(_placed(part, facts, sheet, size, margin) for part in shown if not isinstance(part, GroundPart))
    under = None
    if not _opaque_fill(fill, facts) and not _covered(placed, facts, size):
        artworks = [facts[part.artwork] for part in shown if isinstance(part, ArtworkPart)]
        under = given_ground(sheet, artworks)
    return Plan(size, under, fill, edge, placed)


def planned_size(parts: Sequence[AnyPart], sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]) -> Size:
    """The size alone that `plan_parts` would give, in px; raises as it does."""
    return _size(sheet, _shown(parts, facts), facts)


def _shown(parts: Sequence[AnyPart], facts: Mapping[str, ArtworkFacts]) -> list[AnyPart]:
    """The parts that are not hidden, once the facts of all their artwork are known to be there."""
    shown = [part for part in parts if not part.hidden]
    for part in shown:
        artwork = artwork_of_part(part)
        if artwork is not None and artwork not in facts:
            raise DocumentError(f"the artwork of part {part.id!r} is missing", advice="Bring it in again.")
    return shown


def _placed(part: AnyPart, facts: Mapping[str, ArtworkFacts], sheet: SpecSheet, size: Size, margin_px: float) -> Placed:
    if isinstance(part, ArtworkPart):
        return placed_artwork(part, facts[part.artwork], sheet, size, margin_px)
    if isinstance(part, WordsPart):
        return placed_words(part, size, margin_px)
    assert isinstance(part, ShapePart)
    return placed_shape(part, size, margin_px)


def _size(sheet: SpecSheet, parts: list[AnyPart], facts: Mapping[str, ArtworkFacts]) -> Size:
    """The file's size; one artwork alone decides how large a range is used."""
    standing = [part for part in parts if not isinstance(part, GroundPart)]
    first = next((part for part in standing if isinstance(part, ArtworkPart)), None)
    if first is None:
        return delivered_size(sheet, TYPICAL, vector=True)
    own = facts[first.artwork]
    shape = contents(first, own)
    natural = Size(max(1, round(shape.width)), max(1, round(shape.height)))
    return delivered_size(sheet, natural, vector=own.vector or len(standing) > 1)


def _opaque_fill(fill: Fill | None, facts: Mapping[str, ArtworkFacts]) -> bool:
    if isinstance(fill, Gradient):
        return all(stop.opacity == 1 for stop in fill.stops)
    if isinstance(fill, PictureFill):
        return facts[fill.artwork].transparency == "none"
    if isinstance(fill, Pattern):
        return fill.colour is not None
    return fill is not None


def _covered(placed: tuple[Placed, ...], facts: Mapping[str, ArtworkFacts], size: Size) -> bool:
    """Whether an opaque artwork covers the whole picture, so that no ground shows."""
    return any(
        isinstance(part, PlacedArtwork)
        and part.die is None
        and part.look.plain
        and facts[part.artwork].transparency == "none"
        and part.box.x <= 0
        and part.box.y <= 0
        and part.box.right >= size.width
        and part.box.bottom >= size.height
        for part in placed
    )
