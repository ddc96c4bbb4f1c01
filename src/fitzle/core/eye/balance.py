"""Whether a mark stands in the middle for the eye, whichever middle it takes."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.colour.oklab import oklab
from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.planes import Plane, lab_of, length, reduced

LONG_PX = 128
_WEIGHS, _HULL = 0.04, 0.1  # OKLab differences to the ground


class Offset(NamedTuple):
    """How far a middle is from that of the picture, in sides: to the right and down."""

    x: float
    y: float

    @property
    def length(self) -> float:
        """Whatever the direction."""
        return float(np.hypot(self.x, self.y))


def off_centre(light: Plane, ground: Rgb) -> Offset:
    """The smallest offset of three middles: of weight, of the hull and of the box.

    `light` is the whole picture on its ground (h, w, 3), linear. The weight of a px is its difference to the ground in
    OKLab. One middle alone gives false alarms: a triangle's box is off where its weight is not.
    """
    lab = lab_of(reduced(light, LONG_PX))
    away = length(lab - oklab(np.array([ground], dtype=np.uint8))[0].astype(np.float32))
    weight = np.where(away > _WEIGHS, away, 0)
    points = cv2.findNonZero((away > _HULL).astype(np.uint8))
    if points is None or weight.sum() <= 0:
        return Offset(0.0, 0.0)
    height, width = weight.shape
    across, down, all_ = weight.sum(0), weight.sum(1), weight.sum()
    middles = [
        (float(across @ np.arange(width) / all_), float(down @ np.arange(height) / all_)),
        _hull_middle(points),
        tuple((points.min((0, 1)) + points.max((0, 1))) / 2),
    ]
    sides = (width - 1) / 2, (height - 1) / 2
    found = [Offset((mx - sides[0]) / width, (my - sides[1]) / height) for mx, my in middles]
    return min(found, key=lambda one: one.length)


def _hull_middle(points: np.ndarray) -> tuple[float, float]:
    moments = cv2.moments(cv2.convexHull(points))
    if moments["m00"] <= 0:
        middle = points.mean((0, 1))
        return float(middle[0]), float(middle[1])
    return moments["m10"] / moments["m00"], moments["m01"] / moments["m00"]
