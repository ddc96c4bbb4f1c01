"""Whether a mark stands in the middle for the eye, whichever middle it takes."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.oklab import oklab
from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.planes import lab_of, length, light_on, reduced

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


def off_centre(pixels: Pixels, ground: Rgb) -> Offset:
    """The smallest offset of three middles: of weight, of the hull and of the box.

    `pixels` are the whole picture (h, w, 4). The weight of a px is its difference to the ground in OKLab. One middle
    alone gives false alarms: a triangle's box is off where its weight is not.
    """
    lab = lab_of(reduced(light_on(pixels, ground), LONG_PX))
    away = length(lab - oklab(np.array([ground], dtype=np.uint8))[0].astype(np.float32))
    weight = np.where(away > _WEIGHS, away, 0)
    points = np.argwhere(away > _HULL)[:, ::-1].astype(np.int32)
    if not len(points) or weight.sum() <= 0:
        return Offset(0.0, 0.0)
    height, width = weight.shape
    y, x = np.mgrid[0:height, 0:width]
    middles = [
        (float((weight * x).sum() / weight.sum()), float((weight * y).sum() / weight.sum())),
        _hull_middle(points),
        tuple((points.min(0) + points.max(0)) / 2),
    ]
    sides = (width - 1) / 2, (height - 1) / 2
    found = [Offset((mx - sides[0]) / width, (my - sides[1]) / height) for mx, my in middles]
    return min(found, key=lambda one: one.length)


def _hull_middle(points: np.ndarray) -> tuple[float, float]:
    moments = cv2.moments(cv2.convexHull(points))
    if moments["m00"] <= 0:
        middle = points.mean(0)
        return float(middle[0]), float(middle[1])
    return moments["m10"] / moments["m00"], moments["m01"] / moments["m00"]
