"""A piece for a place of another shape: left alone where it fits, one thing where it is tiny, else arranged."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fitzle.core.arrange.adjusting import Adjustments, adjustments_of
from fitzle.core.arrange.boxes import area, shared
from fitzle.core.arrange.icon import as_icon
from fitzle.core.arrange.intent import Intent, softened
from fitzle.core.arrange.pins import pins_of
from fitzle.core.arrange.place import Place, place_of
from fitzle.core.arrange.search import best_of
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.piece.document import Differences, is_one_shape
from fitzle.core.piece.parts import AnyPart, adjusted_part
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.plan.planning import plan_parts
from fitzle.core.spec.sheet import SpecSheet

BARELY_COVERED, BARELY_LOWER = 0.02, 0.99
FLATTER = 1.3  # times the ratio that a piece was composed for: there line breaks cost height
DROPPED = {"line_breaks": "dropped"}
DROPPED_BREAKS = 0.15  # what it costs that words do not break where somebody broke them


def arranged(
    parts: Sequence[AnyPart],
    intent: Intent,
    sheet: SpecSheet,
    facts: Mapping[str, ArtworkFacts],
    by_hand: Differences | None = None,
) -> Adjustments:
    """The adjustments with which parts of an intent stand well in a place; none where they do already.

    `by_hand` is what somebody made different there: parts that were put somewhere stay and the others stand around
    them, and none is left out that was let show. Deterministic, and no pixels are looked at. Raises DocumentError as
    planning does.
    """
    hand = by_hand or {}
    there = [adjusted_part(part, hand[part.id]) if part.id in hand else part for part in parts]
    plan = plan_parts(there, sheet, facts)
    pins = pins_of(intent, plan, [part for part, fields in hand.items() if "stands" in fields])
    place = place_of(sheet, plan.size, intent.margin, pins)
    if _fits_as_it_is(there, intent, place, sheet, facts):
        return {}
    if place.icon:
        return as_icon(intent, parts, facts)
    shown = {part for part, fields in hand.items() if fields.get("hidden") is False}
    fixed = frozenset(shown | pins.keys())
    best = best_of(intent, place, frozenset(intent.members), fixed)
    kept = {part for part, fields in hand.items() if "line_breaks" in fields} | pins.keys()
    breaking = {part for part, one in intent.members.items() if one.soft} - kept
    if not breaking or place.size.ratio < FLATTER * intent.size.ratio:
        return adjustments_of(best.draft, parts)
    soft = best_of(softened(intent, kept), place, frozenset(intent.members), fixed)
    if best.cost <= soft.cost + DROPPED_BREAKS:
        return adjustments_of(best.draft, parts)
    found = adjustments_of(soft.draft, parts)
    return {part: fields | (DROPPED if part in breaking else {}) for part, fields in found.items()}


def _fits_as_it_is(
    parts: Sequence[AnyPart], intent: Intent, place: Place, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]
) -> bool:
    """Whether the place has about the shape that the piece was composed for, with nothing covered or too small."""
    if not is_one_shape(place.size.ratio, intent.size.ratio):
        return False
    for placed in plan_parts(parts, sheet, facts).parts:
        if intent.members[placed.part].kind not in ("words", "mark"):
            continue
        if any(shared(placed.box, zone) > BARELY_COVERED * area(placed.box) for zone in place.covered):
            return False
        if isinstance(placed, PlacedWords) and placed.layout.cap_height_px < BARELY_LOWER * place.least_capital:
            return False
    return True
