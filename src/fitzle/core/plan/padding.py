"""The padding that is chosen where a person has not said one."""

from __future__ import annotations

import math

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.spec.sheet import CircleCut, RoundedCut, SpecSheet

AUTO_PADDING = 0.06  # of the short side: twice the least clearance, so that a mark never looks squeezed
LEAST_CLEARANCE = 0.02  # of the short side
LEAST_CLEARANCE_PX = 1.0  # a tip that touches the edge looks cut off at any size
_CORNER_GAP = 1 - math.sqrt(0.5)  # how far a quarter circle stays away from its corner, in radii, along each side
_SQUARE_REACH = 0.9  # contents that reach further into their corners than this collide with rounded ones


def least_clearance_px(short_side_px: float) -> float:
    """The least distance between a mark and the edge, in px."""
    return max(LEAST_CLEARANCE_PX, LEAST_CLEARANCE * short_side_px)


def auto_padding_px(sheet: SpecSheet, facts: ArtworkFacts, short_side_px: float) -> float:
    """Padding for a mark that is shown whole; none for a picture. On whole px."""
    if facts.kind == "picture":
        return 0.0
    padding = max(LEAST_CLEARANCE_PX, round(AUTO_PADDING * short_side_px))
    if isinstance(sheet.cut, RoundedCut) and facts.reach > _SQUARE_REACH:
        padding = max(padding, math.ceil(sheet.cut.radius * short_side_px * _CORNER_GAP + LEAST_CLEARANCE_PX))
    return float(padding)


def needs_circle(sheet: SpecSheet, facts: ArtworkFacts) -> bool:
    """Whether a mark must be fitted into a circle instead of a box."""
    return isinstance(sheet.cut, CircleCut) and facts.kind == "mark"
