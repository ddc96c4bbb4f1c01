"""Repairs: pure functions from a fit to the changes that mend it, for one placement only."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.colour.contrast import BLACK, HALF_LIGHT, WHITE, relative_luminance
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.errors import DocumentError
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.changes import Change
from fitzle.core.piece.document import Piece, parts_in
from fitzle.core.piece.editing import ground_part
from fitzle.core.piece.effects import Plate
from fitzle.core.piece.parts import Box, WordsPart
from fitzle.core.plan.grounds import readable_ground
from fitzle.core.plan.padding import AUTO_PADDING
from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.plan.planning import plan_piece
from fitzle.core.plan.standing import kept_inside, standing_at
from fitzle.core.plan.words import placed_words
from fitzle.core.preflight.eye import Judged, mark_contrast, showing_box, suggested_tint
from fitzle.core.preflight.words import LEAST_LETTER_PX, seen_letter_px, smallest_seen
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

GROWTHS = (1.0, 1.25, 1.6, 2.2, 3.0)  # times what is needed, where words must break into more lines
ENLARGED_A_LITTLE_MORE = 1.03  # so that rounding does not leave the letters a hair below the least


def repair_changes(
    name: str,
    piece: Piece,
    placement: str,
    sheet: SpecSheet,
    facts: Mapping[str, ArtworkFacts],
    house: tuple[str, ...] = (),
    part: str | None = None,
) -> list[Change]:
    """The changes of a repair, of one part or of all; raises DocumentError when there is nothing to repair."""
    plan = plan_piece(piece, sheet, facts, placement)
    if name in MARK_REPAIRS:
        judged = [
            Judged(own, facts[own.artwork], plan, sheet, house) for own in plan.artworks if part in (None, own.part)
        ]
        changes = [change for one in judged for change in MARK_REPAIRS[name](piece, placement, one)]
    elif name in WORDS_REPAIRS:
        words = [own for own in plan.words if part in (None, own.part)]
        there = {own.id: own for own in parts_in(piece, placement) if isinstance(own, WordsPart)}
        made = [WORDS_REPAIRS[name](there[own.part], own, plan, sheet, house) for own in words]
        changes = [change.model_copy(update={"placement": placement}) for some in made for change in some]
    else:
        raise DocumentError(f"there is no repair called {name!r}")
    if not changes:
        raise DocumentError("there is nothing to repair any more")
    return changes


def _add_padding(piece: Piece, placement: str, judged: Judged) -> list[Change]:
    """Shown whole, standing free, with the padding that the plan would choose."""
    part = judged.part.part
    values = {"mode": "whole", "padding": None, "stands": "fill", "centring": "box"}
    return [Change(part=part, field=field, value=value, placement=placement) for field, value in values.items()]


def _contrasting_tint(piece: Piece, placement: str, judged: Judged) -> list[Change]:
    tint = suggested_tint(judged) if mark_contrast(judged) else None
    return [Change(part=judged.part.part, field="tint", value=tint, placement=placement)] if tint else []


def _choose_ground(piece: Piece, placement: str, judged: Judged) -> list[Change]:
    ground = ground_part(piece)
    if ground is None or not (mark_contrast(judged) or showing_box(judged)):
        return []
    colour = judged.facts.flat_backdrop or readable_ground(list(judged.house), [_as_tinted(judged)])
    value = {"kind": "solid", "colour": colour}
    return [Change(part=ground.id, field="fill", value=value, placement=placement)]


def _as_tinted(judged: Judged) -> ArtworkFacts:
    tint = judged.part.tint
    if not tint or not judged.facts.edge_colours:
        return judged.facts
    only = judged.facts.edge_colours[0].model_copy(update={"hex": tint, "share": 1.0})
    return judged.facts.model_copy(update={"edge_colours": (only,)})


def _enlarge_words(
    part: WordsPart, placed: PlacedWords, plan: Plan, sheet: SpecSheet, _house: tuple[str, ...]
) -> list[Change]:
    """The box made larger about its middle until the letters are tall enough where they are seen smallest.

    It grows on both sides, and where the picture ends on the other one alone: the words then take more lines.
    """
    seen = smallest_seen(sheet)
    if seen is None:
        return []
    needed = ENLARGED_A_LITTLE_MORE * LEAST_LETTER_PX / max(seen_letter_px(placed, plan, seen), 0.01)
    for more in GROWTHS:
        stands = _grown(placed.stands, needed * more, plan.size)
        larger = part.model_copy(update={"stands": stands, "size": None, "beyond": False})
        if seen_letter_px(placed_words(larger, plan.size), plan, seen) >= LEAST_LETTER_PX:
            changes = [Change(part=part.id, field="stands", value=stands.model_dump())]
            return [*changes, Change(part=part.id, field="size", value=None)] if part.size else changes
    raise DocumentError("there is no room for letters that read there", advice="Use fewer words, or take a part away.")


def _grown(box: Rect, factor: float, size: Size) -> Box:
    """A box larger about its middle, at most as large as the picture less the usual padding."""
    margin = 2 * AUTO_PADDING * size.short_side
    width = min(box.width * factor, max(box.width, size.width - margin))
    height = min(box.height * factor, max(box.height, size.height - margin))
    middle = box.centre
    whole = Rect(0, 0, size.width, size.height)
    kept = kept_inside(Rect(middle.x - width / 2, middle.y - height / 2, width, height), 0, whole)
    return standing_at(kept, size)[0]


def _plate_behind(
    part: WordsPart, placed: PlacedWords, plan: Plan, sheet: SpecSheet, house: tuple[str, ...]
) -> list[Change]:
    """A plate of the house colour, black or white that the words stand out from most."""
    light = part.colour != "auto" and relative_luminance(parse_hex(part.colour)) < HALF_LIGHT
    choose = max if light else min
    colour = choose([*house, BLACK, WHITE], key=lambda entry: relative_luminance(parse_hex(entry)))
    return [Change(part=part.id, field="plate", value=Plate(colour=colour).model_dump())]


MARK_REPAIRS: dict[str, Callable[[Piece, str, Judged], list[Change]]] = {
    "add-padding": _add_padding,
    "contrasting-tint": _contrasting_tint,
    "choose-ground": _choose_ground,
}
WordsRepair = Callable[[WordsPart, PlacedWords, Plan, SpecSheet, tuple[str, ...]], list[Change]]
WORDS_REPAIRS: dict[str, WordsRepair] = {"enlarge-words": _enlarge_words, "plate-behind": _plate_behind}
