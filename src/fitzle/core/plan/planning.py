"""Where every part of a piece stands in one placement."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.errors import DocumentError
from fitzle.core.geometry.anchor import anchored
from fitzle.core.geometry.fitting import fill_window, inside_circle, snapped, whole_box
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.piece.document import ArtworkPart, Box, GroundPart, Mode, Piece
from fitzle.core.piece.editing import parts_in
from fitzle.core.plan.grounds import given_ground
from fitzle.core.plan.padding import auto_padding_px, needs_circle
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size


class PlacedArtwork(NamedTuple):
    """A picture or mark with its box in px of the delivered file.

    `window` is what shows of the artwork, in its own px; `frame` the room it was fitted into; `scale` is px of the
    file for each px of the artwork.
    """

    part: str
    role: str
    artwork: str
    box: Rect
    window: Rect
    frame: Rect
    mode: Mode
    padding_px: float
    tint: str | None
    vector: bool

    @property
    def scale(self) -> float:
        """Px of the file for each px of the artwork; above 1 a bitmap is enlarged."""
        return max(self.box.width / self.window.width, self.box.height / self.window.height)


class Plan(NamedTuple):
    """A fit, decided: its size, the ground's colour (None: clear) and the artwork parts, back to front.

    `ground_given` says that the colour was chosen here because the placement takes no transparency.
    """

    size: Size
    ground: str | None
    ground_given: bool
    artworks: tuple[PlacedArtwork, ...]


def plan_piece(piece: Piece, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts], placement: str | None = None) -> Plan:
    """The plan of a piece for a placement; raises DocumentError when the facts of an artwork are missing."""
    parts = parts_in(piece, placement)
    for part in parts:
        if isinstance(part, ArtworkPart) and part.artwork not in facts:
            raise DocumentError(f"the artwork of part {part.id!r} is missing", advice="Bring it in again.")
    artwork_parts = [part for part in parts if isinstance(part, ArtworkPart)]
    size = _size(sheet, artwork_parts, facts)
    placed = tuple(_placed(part, facts[part.artwork], sheet, size) for part in artwork_parts)
    colour = next((part.colour for part in parts if isinstance(part, GroundPart)), None)
    if colour is None and not _covered(placed, facts, size):
        needed = given_ground(sheet, [facts[part.artwork] for part in artwork_parts])
        return Plan(size, needed, needed is not None, placed)
    return Plan(size, colour, False, placed)


def mode_of(part: ArtworkPart, facts: ArtworkFacts) -> Mode:
    """How the part is fitted: as it says, else a mark whole and a picture filling."""
    return part.mode or ("whole" if facts.kind == "mark" else "fill")


def contents(part: ArtworkPart, facts: ArtworkFacts) -> Rect:
    """What is fitted: a mark without its margins, a picture with everything that is on it."""
    if facts.kind == "mark":
        return facts.trimmed.rect
    return Rect(0, 0, facts.width, facts.height)


def _size(sheet: SpecSheet, parts: list[ArtworkPart], facts: Mapping[str, ArtworkFacts]) -> Size:
    if not parts:
        return delivered_size(sheet, Size(1024, 1024), vector=True)
    own = facts[parts[0].artwork]
    shape = contents(parts[0], own)
    natural = Size(max(1, round(shape.width)), max(1, round(shape.height)))
    return delivered_size(sheet, natural, vector=own.vector)


def _placed(part: ArtworkPart, facts: ArtworkFacts, sheet: SpecSheet, size: Size) -> PlacedArtwork:
    room = _room(part.stands, size)
    mode = mode_of(part, facts)
    padding = _padding_px(part, facts, sheet, room, mode)
    frame = room.inset(padding)
    shape = contents(part, facts)
    if mode == "fill":
        if not facts.vector:
            frame = snapped(frame, frame)
        window, box = fill_window(shape, frame.ratio, _focus(part)), frame
    else:
        window, box = shape, _whole(part, facts, sheet, room, frame, padding)
    return PlacedArtwork(part.id, part.role, part.artwork, box, window, frame, mode, padding, part.tint, facts.vector)


def _whole(part: ArtworkPart, facts: ArtworkFacts, sheet: SpecSheet, room: Rect, frame: Rect, padding: float) -> Rect:
    ratio = contents(part, facts).ratio
    if part.padding is None and needs_circle(sheet, facts):
        diameter = min(room.width, room.height)
        box = inside_circle(ratio, facts.reach, diameter, padding)
        box = box.moved(room.x + (room.width - diameter) / 2, room.y + (room.height - diameter) / 2)
    else:
        weight = facts.weight.point if part.centring == "weight" else None
        box = whole_box(ratio, frame, weight, room.inset(padding / 2) if weight else None)
    return box if facts.vector else snapped(box, room)


def _padding_px(part: ArtworkPart, facts: ArtworkFacts, sheet: SpecSheet, room: Rect, mode: Mode) -> float:
    short_side = min(room.width, room.height)
    if part.padding is not None:
        return part.padding.px(short_side)
    return auto_padding_px(sheet, facts, short_side) if mode == "whole" else 0.0


def _room(stands: str | Box, size: Size) -> Rect:
    whole = Rect(0, 0, size.width, size.height)
    if not isinstance(stands, Box):
        return whole
    unit = size.short_side
    return anchored(whole, stands.anchor, stands.width * unit, stands.height * unit, stands.dx * unit, stands.dy * unit)


def _focus(part: ArtworkPart) -> Point:
    return Point(part.focus.x, part.focus.y) if part.focus else Point(0.5, 0.5)


def _covered(placed: tuple[PlacedArtwork, ...], facts: Mapping[str, ArtworkFacts], size: Size) -> bool:
    """Whether an opaque artwork covers the whole picture, so that no ground shows."""
    return any(
        facts[part.artwork].transparency == "none"
        and part.box.x <= 0
        and part.box.y <= 0
        and part.box.right >= size.width
        and part.box.bottom >= size.height
        for part in placed
    )
