"""Words and shapes where they stand."""

from __future__ import annotations

from fitzle.core.errors import DocumentError
from fitzle.core.geometry.path import rounded_rectangle
from fitzle.core.geometry.rect import Rect
from fitzle.core.geometry.shapes import box_around_words, room_for_words, shape_path
from fitzle.core.piece.effects import Plate
from fitzle.core.piece.parts import ShapePart, WordsPart
from fitzle.core.plan.looks import border_of, look_of
from fitzle.core.plan.placed import PlacedPlate, PlacedShape, PlacedWords
from fitzle.core.plan.standing import standing_box
from fitzle.core.type.library import USUAL_FAMILY, Family, family_named
from fitzle.core.type.setting import Layout, Setting, set_words
from fitzle.core.units import Size


def placed_words(part: WordsPart, size: Size, margin_px: float = 0.0) -> PlacedWords:
    """Words set into their box; an unknown typeface is replaced by the usual one (a rule says so)."""
    family, setting = known_family(part.family), setting_of(part, size)
    room = standing_box(part, size, margin_px)
    shape = part.plate.shape if part.plate else None
    layout = set_words(part.as_set, setting, room_for_words(shape, room) if shape else room)
    return PlacedWords(
        part=part.id,
        role=part.role,
        stands=room,
        layout=layout,
        colour=part.colour,
        outline_only=part.outline_only,
        outline=part.outline,
        glow=part.glow,
        shadow=part.shadow,
        plate=_placed_plate(part.plate, layout),
        look=look_of(part, size),
        family=family.name,
    )


def setting_of(part: WordsPart, size: Size) -> Setting:
    """How the words of a part are set in a picture of this size."""
    return Setting(
        face=known_family(part.family).face(part.weight, part.italic),
        align=part.align,
        vertical_align=part.vertical_align,
        case=part.case,
        letter_spacing=part.letter_spacing,
        line_height=part.line_height,
        reach=_reach(part),
        largest_px=part.size * size.short_side if part.size else None,
    )


def known_family(name: str) -> Family:
    """The family, or the usual one where there is none of this name."""
    try:
        return family_named(name)
    except DocumentError:
        return family_named(USUAL_FAMILY)


def placed_shape(part: ShapePart, size: Size, margin_px: float = 0.0) -> PlacedShape:
    """A shape in its box."""
    room = standing_box(part, size, margin_px)
    path = shape_path(part.shape, room)
    return PlacedShape(part.id, part.role, room, path, part.fill, border_of(part.border, room), look_of(part, size))


def _reach(part: WordsPart) -> float:
    """How far outline and plate extend beyond the letters, in letter heights."""
    outline = part.outline.width + part.outline.offset if part.outline else 0.0
    return max(outline, part.plate.padding if part.plate else 0.0)


def _placed_plate(plate: Plate | None, layout: Layout) -> PlacedPlate | None:
    if plate is None or not layout.block.width:
        return None
    by = plate.padding * layout.cap_height_px
    block = layout.block
    box = Rect(block.x - by, block.y - by, block.width + 2 * by, block.height + 2 * by)
    corner = plate.corner * min(box.width, box.height) / 2
    if plate.shape:
        path = shape_path(plate.shape, box_around_words(plate.shape, box))
    else:
        path = rounded_rectangle(box, corner)
    return PlacedPlate(path, plate.colour, plate.opacity)
