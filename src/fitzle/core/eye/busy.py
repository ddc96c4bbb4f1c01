"""How much of the outline of words is lost in what is behind them, and how much clutter lies at their own scale."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.eye.crossing import joined_strokes, letters_and_nearest
from fitzle.core.eye.planes import Plane

MOST_STROKE_PX = 5.0  # strokes wider than that are looked at smaller: nothing is lost, and it is quicker
LEAST_CONTRAST = 3.0
_FLARE = 0.05  # WCAG 2.2

Mask = NDArray[np.bool_]


class Busy(NamedTuple):
    """`lost` is the share of the outline with a contrast under 3:1, `worst` that of the worst letter.

    `clutter` is the contrast of what is behind at the scale of a stroke, in parts of that of the letters. `joined` is
    how much drawing of its own tone the worst letter runs into, in widths of a stroke.
    """

    lost: float
    worst: float
    clutter: float
    joined: float = 0.0


NOTHING_BEHIND = Busy(0.0, 0.0, 0.0)


def stroke_px(letters: Mask) -> float:
    """The width of the strokes of letters: twice the median distance along their ridges."""
    distance = cv2.distanceTransform(np.pad(letters, 1).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    ridge = (distance >= cv2.dilate(distance, np.ones((3, 3), np.uint8))) & (distance > 0)
    return float(2 * np.median(distance[ridge])) if ridge.any() else 1.0


def busy_behind(letters: Mask, own: float, behind: Plane, stroke: float) -> Busy:
    """What becomes of words before what is behind them.

    `letters` is where the words are (h, w), `own` their relative luminance, `behind` that of everything behind them
    (h, w) with plate and veil laid over, `stroke` the width of a stroke in px. The band around the letters is what they
    are told from (Solomon and Pelli 1994: letters are read at the scale of their strokes).
    """
    weak = cannot_be_told(own, behind)
    away = cv2.distanceTransform((~letters).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    band = (away > 0) & (away <= band_px(stroke))
    if not band.any():
        return NOTHING_BEHIND
    count, owner = letters_and_nearest(letters)
    return Busy(
        float(weak[band].mean()),
        _worst_letter(owner[band], weak[band], count, stroke),
        _clutter(away, own, behind, stroke),
        joined_strokes(weak, away, owner, count, stroke),
    )


def cannot_be_told(own: float, behind: Plane) -> Mask:
    """Where what is behind is under LEAST_CONTRAST from letters of a luminance."""
    ratio = (np.maximum(behind, own) + _FLARE) / (np.minimum(behind, own) + _FLARE)
    return np.asarray(ratio < LEAST_CONTRAST)


def band_px(stroke: float) -> float:
    """How far from letters their surroundings count."""
    return max(1.5, 0.6 * stroke)


def _worst_letter(owner: NDArray[np.int32], weak: Mask, count: int, stroke: float) -> float:
    sizes = np.bincount(owner, minlength=count)
    lost = np.bincount(owner, weights=weak.astype(np.float64), minlength=count)
    large = sizes >= 8 * stroke
    return float((lost[large] / sizes[large]).max()) if large.any() else 0.0


def _clutter(away: Plane, own: float, behind: Plane, stroke: float) -> float:
    tone, fine = tones(behind, stroke)
    near = away <= 1.5 * stroke
    apart = abs(float(np.log(own + _FLARE)) - float(np.median(tone[near])))
    return float(np.sqrt((fine[near] ** 2).mean())) / max(apart, 1e-3)


def tones(behind: Plane, stroke: float) -> tuple[Plane, Plane]:
    """The logarithm of what is behind, and what of it is as fine as a stroke."""
    tone = np.log(behind.astype(np.float32) + _FLARE)
    fine = cv2.GaussianBlur(tone, (0, 0), max(0.3, 0.3 * stroke)) - cv2.GaussianBlur(tone, (0, 0), 1.5 * stroke)
    return tone, np.asarray(fine)
