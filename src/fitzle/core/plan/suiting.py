"""Which placements an artwork suits when it is dropped on the whole wall."""

from __future__ import annotations

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.plan.grounds import takes_alpha
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size

LEAST_PICTURE_PX = 64  # a photo in anything smaller is a smudge


def suits(facts: ArtworkFacts, sheet: SpecSheet) -> bool:
    """A mark suits every place that takes transparency; a picture every larger one that does not demand it."""
    if sheet.motion.required:
        return False
    if facts.kind == "mark":
        return takes_alpha(sheet)
    size = delivered_size(sheet, Size(round(facts.width), round(facts.height)), vector=facts.vector)
    return sheet.transparency != "required" and size.short_side >= LEAST_PICTURE_PX
