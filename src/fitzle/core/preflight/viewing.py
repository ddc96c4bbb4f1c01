"""How large things are where a picture is seen."""

from __future__ import annotations

from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.spec.sheet import SpecSheet, Viewing


def smallest_viewing(sheet: SpecSheet) -> Viewing | None:
    """Where the picture is seen smallest; None where the sheet does not say how large it is seen."""
    return min(sheet.seen, key=lambda viewing: viewing.width, default=None)


def seen_cap_height_px(words: PlacedWords, plan: Plan, viewing: Viewing) -> float:
    """Height of the capitals in px of the viewer's screen."""
    return words.layout.cap_height_px * viewing.width / plan.size.width
