"""A piece for a place of another shape: left alone where it fits, one thing where it is tiny, else arranged."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fitzle.core.arrange.adjusting import Adjustments, adjustments_of
from fitzle.core.arrange.boxes import area, shared
from fitzle.core.arrange.icon import as_icon
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.place import Place, place_of
from fitzle.core.arrange.search import best_draft
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.piece.parts import AnyPart
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.plan.planning import plan_parts
from fitzle.core.spec.sheet import SpecSheet

SAME_SHAPE = 1.15  # between two ratios: nearer ones are one shape
BARELY_COVERED, BARELY_LOWER = 0.02, 0.99


def arranged(
    parts: Sequence[AnyPart], intent: Intent, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]
) -> Adjustments:
    """The adjustments with which parts of an intent stand well in a place; none where they do already.

    Deterministic, and no pixels are looked at. Raises DocumentError as planning does.
    """
    plan = plan_parts(parts, sheet, facts)
    place = place_of(sheet, plan.size, intent.margin)
    if _fits_as_it_is(parts, intent, place, sheet, facts):
        return {}
    if place.icon:
        return as_icon(intent, parts, facts)
    return adjustments_of(best_draft(intent, place, frozenset(intent.members)), parts)


def _fits_as_it_is(
    parts: Sequence[AnyPart], intent: Intent, place: Place, sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]
) -> bool:
    """Whether the place has about the shape that the piece was composed for, with nothing covered or too small."""
    between = (place.size.width / place.size.height) / (intent.size.width / intent.size.height)
    if max(between, 1 / between) > SAME_SHAPE:
        return False
    for placed in plan_parts(parts, sheet, facts).parts:
        if intent.members[placed.part].kind not in ("words", "mark"):
            continue
        if any(shared(placed.box, zone) > BARELY_COVERED * area(placed.box) for zone in place.covered):
            return False
        if isinstance(placed, PlacedWords) and placed.layout.cap_height_px < BARELY_LOWER * place.least_capital:
            return False
    return True
