"""Whether a picture repeats itself: it then looks like itself one period further, and may stand there as well."""

from __future__ import annotations

from itertools import pairwise

import cv2
import numpy as np

from fitzle.core.learning.placement import Pixels, Planes
from fitzle.core.learning.pyramid import grey

SIDE = 128  # px of the long side that is looked at
LEAST_SHIFT, MOST_SHIFT = 0.06, 0.6  # of a side
ALIKE = 0.85  # correlation of a picture with itself, one period further
BLUR = 0.08  # of the long side: what is softer than that repeats in every picture
LEAST_DEVIATION = 4.0  # of luma after the soft part is taken off: less is nothing to go by


def repeats(picture: Pixels) -> bool:
    """Whether a picture (height, width, 3) looks like itself, moved along a side by less than most of it."""
    height, width = picture.shape[:2]
    scale = min(1.0, SIDE / max(height, width))
    size = (max(8, round(width * scale)), max(8, round(height * scale)))
    luma = grey(cv2.resize(picture, size, interpolation=cv2.INTER_AREA))
    detail = luma - cv2.GaussianBlur(luma, (0, 0), BLUR * max(size))
    return any(_along(plane) >= ALIKE for plane in (detail, detail.T))


def _along(detail: Planes) -> float:
    """The best correlation of the plane with itself moved along its rows."""
    length = detail.shape[1]
    shifts = range(max(2, round(LEAST_SHIFT * length)), round(MOST_SHIFT * length))
    found = [_correlation(detail[:, :-shift], detail[:, shift:]) for shift in shifts]
    # Neighbours of no shift at all are alike in anything soft: a period shows as a rise after a fall.
    best = [value for before, value in pairwise(found) if value > before]
    return max(best, default=0.0)


def _correlation(one: Planes, other: Planes) -> float:
    first, second = one - one.mean(), other - other.mean()
    deviation = float(np.sqrt((first * first).mean() * (second * second).mean()))
    return float((first * second).mean()) / deviation if deviation > LEAST_DEVIATION**2 else 0.0
