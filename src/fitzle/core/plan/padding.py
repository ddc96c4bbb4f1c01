"""The padding that is chosen where a person has not said one."""

from __future__ import annotations

import math

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.piece.parts import ArtworkPart
from fitzle.core.spec.sheet import CircleMask, RoundedMask, SpecSheet

AUTO_PADDING = 0.06  # of the short side: twice the least clearance, so that a mark never looks squeezed
LEAST_CLEARANCE = 0.02  # of the short side
LEAST_CLEARANCE_PX = 1.0  # a tip that touches the edge looks cut off at any size


def least_clearance_px(short_side_px: float) -> float:
    """The least distance between a mark and the edge, in px."""
    return max(LEAST_CLEARANCE_PX, LEAST_CLEARANCE * short_side_px)


def auto_padding_px(sheet: SpecSheet, facts: ArtworkFacts, short_side_px: float) -> float:
    """Padding for a mark that is shown whole; none for a picture. On whole px."""
    if facts.kind == "picture":
        return 0.0
    padding = max(LEAST_CLEARANCE_PX, round(AUTO_PADDING * short_side_px))
    if isinstance(sheet.mask, RoundedMask):
        padding = max(padding, math.ceil(_out_of_corners(sheet.mask, facts.reach, short_side_px)))
    return float(padding)


def _out_of_corners(mask: RoundedMask, reach: float, short_side_px: float) -> float:
    """The padding at which contents as high as wide keep their clearance to rounded corners.

    They reach `reach` of the way into the corners of their box; there they are nearest to the arc on the diagonal.
    """
    radius = mask.outline.radius_px(short_side_px, short_side_px)
    inner = short_side_px / 2 - radius  # half of what lies between the corners' middles
    farthest = inner + max(0.0, radius - least_clearance_px(short_side_px)) / math.sqrt(2)
    return short_side_px / 2 - farthest / max(reach, 0.01)


def follows_mask(part: ArtworkPart, facts: ArtworkFacts) -> bool:
    """Whether the mask decides where an artwork stands: a mark that stands alone and has no padding of its own."""
    return facts.kind == "mark" and part.padding is None and part.stands == "fill" and part.mode != "fill"


def needs_circle(sheet: SpecSheet, facts: ArtworkFacts) -> bool:
    """Whether a mark must be fitted into a circle instead of a box."""
    return isinstance(sheet.mask, CircleMask) and facts.kind == "mark"
