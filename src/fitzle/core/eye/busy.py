"""How much of the outline of words is lost in what is behind them, and how much clutter lies at their own scale."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.eye.planes import Plane

MOST_STROKE_PX = 5.0  # strokes wider than that are looked at smaller: nothing is lost, and it is quicker
LEAST_CONTRAST = 3.0
_FLARE = 0.05  # WCAG 2.2

Mask = NDArray[np.bool_]


class Busy(NamedTuple):
    """`lost` is the share of the outline with a contrast under 3:1, `worst` that of the worst letter.

    `clutter` is the contrast of what is behind at the scale of a stroke, in parts of that of the letters.
    """

    lost: float
    worst: float
    clutter: float


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
    ratio = (np.maximum(behind, own) + _FLARE) / (np.minimum(behind, own) + _FLARE)
    weak = ratio < LEAST_CONTRAST
    away = cv2.distanceTransform((~letters).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    band = (away > 0) & (away <= max(1.5, 0.6 * stroke))
    if not band.any():
        return Busy(0.0, 0.0, 0.0)
    return Busy(
        float(weak[band].mean()), _worst_letter(letters, weak, band, stroke), _clutter(away, own, behind, stroke)
    )


def _worst_letter(letters: Mask, weak: Mask, band: Mask, stroke: float) -> float:
    count, labels = cv2.connectedComponents(letters.astype(np.uint8), connectivity=8)
    _, nearest = cv2.distanceTransformWithLabels(
        (~letters).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5, labelType=cv2.DIST_LABEL_PIXEL
    )
    of_pixel = np.zeros(int(nearest.max()) + 1, dtype=np.int32)
    of_pixel[nearest[letters]] = labels[letters]
    owner = of_pixel[nearest[band]]
    sizes = np.bincount(owner, minlength=count)
    lost = np.bincount(owner, weights=weak[band].astype(np.float64), minlength=count)
    large = sizes >= 8 * stroke
    return float((lost[large] / sizes[large]).max()) if large.any() else 0.0


def _clutter(away: Plane, own: float, behind: Plane, stroke: float) -> float:
    tone = np.log(behind.astype(np.float32) + _FLARE)
    near = away <= 1.5 * stroke
    fine = cv2.GaussianBlur(tone, (0, 0), max(0.3, 0.3 * stroke)) - cv2.GaussianBlur(tone, (0, 0), 1.5 * stroke)
    apart = abs(float(np.log(own + _FLARE)) - float(np.median(tone[near])))
    return float(np.sqrt((fine[near] ** 2).mean())) / max(apart, 1e-3)
