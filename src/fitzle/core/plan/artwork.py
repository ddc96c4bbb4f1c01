"""Pictures and marks: fitted into the room where they stand."""

from __future__ import annotations

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.geometry.fitting import fill_window, inside_circle, snapped, whole_box
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.geometry.shapes import shape_path
from fitzle.core.piece.effects import Die
from fitzle.core.piece.parts import ArtworkPart, Mode
from fitzle.core.plan.looks import border_of, look_of
from fitzle.core.plan.padding import auto_padding_px, needs_circle
from fitzle.core.plan.placed import PlacedArtwork, PlacedDie
from fitzle.core.plan.standing import standing_box
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

GRID_UP_TO_PX = 64  # facts/rendering.md: above that a partly covered pixel is too small a share to be seen


def placed_artwork(
    part: ArtworkPart, facts: ArtworkFacts, sheet: SpecSheet, size: Size, margin_px: float = 0.0
) -> PlacedArtwork:
    """A picture or mark where it stands."""
    room = standing_box(part, size, margin_px)
    mode = mode_of(part, facts)
    padding = _padding_px(part, facts, sheet, room, mode)
    frame = room.inset(padding)
    shape = contents(part, facts)
    if mode == "fill":
        if not facts.vector and part.die is None:
            frame = snapped(frame, frame)
        window, box = fill_window(shape, frame.ratio, _focal_point(part), part.zoom), frame
    else:
        window, box = shape, _whole(part, facts, sheet, room, frame, padding)
    return PlacedArtwork(
        part=part.id,
        role=part.role,
        artwork=part.artwork,
        box=box,
        window=window,
        frame=frame,
        stands=room,
        mode=mode,
        padding_px=padding,
        tint=part.tint,
        vector=facts.vector,
        look=look_of(part, size),
        die=_placed_die(part.die, frame),
        recolour=tuple(part.recolour.items()),
        palette=tuple(entry.hex for entry in facts.colours),
        grid=_on_grid(part, facts, box),
        focal_point=_focal_point(part),
        follow=part.follow,
    )


def mode_of(part: ArtworkPart, facts: ArtworkFacts) -> Mode:
    """How the part is fitted: as it says, else a mark whole and a picture filling."""
    return part.mode or ("whole" if facts.kind == "mark" else "fill")


def contents(part: ArtworkPart, facts: ArtworkFacts) -> Rect:
    """What is fitted: a mark without its margins, a picture with everything that is on it."""
    if facts.kind == "mark":
        return facts.trimmed.rect
    return Rect(0, 0, facts.width, facts.height)


def _whole(part: ArtworkPart, facts: ArtworkFacts, sheet: SpecSheet, room: Rect, frame: Rect, padding: float) -> Rect:
    ratio = contents(part, facts).ratio
    if part.padding is None and needs_circle(sheet, facts) and part.stands == "fill":
        diameter = min(room.width, room.height)
        box = inside_circle(ratio, facts.reach, diameter, padding)
        box = box.moved(room.x + (room.width - diameter) / 2, room.y + (room.height - diameter) / 2)
    else:
        weight = facts.weight.point if part.centring == "weight" else None
        box = whole_box(ratio, frame, weight, room.inset(padding / 2) if weight else None)
    return box if facts.vector or part.rotation else snapped(box, room)


def _padding_px(part: ArtworkPart, facts: ArtworkFacts, sheet: SpecSheet, room: Rect, mode: Mode) -> float:
    """The padding; a part that was given a box of its own has none unless somebody asks for it."""
    short_side = min(room.width, room.height)
    if part.padding is not None:
        return part.padding.px(short_side)
    alone = mode == "whole" and part.stands == "fill"
    return auto_padding_px(sheet, facts, short_side) if alone else 0.0


def _placed_die(die: Die | None, frame: Rect) -> PlacedDie | None:
    if die is None:
        return None
    return PlacedDie(shape_path(die.shape, frame), border_of(die.border, frame), die.fill)


def _on_grid(part: ArtworkPart, facts: ArtworkFacts, box: Rect) -> bool:
    """Small flat marks are fitted to the pixel grid unless somebody has switched that off."""
    small = max(box.width, box.height) <= GRID_UP_TO_PX
    suits = facts.kind == "mark" and part.rotation == 0 and part.die is None
    return small and suits and part.grid is not False


def _focal_point(part: ArtworkPart) -> Point:
    return Point(part.focal_point.x, part.focal_point.y) if part.focal_point else Point(0.5, 0.5)
