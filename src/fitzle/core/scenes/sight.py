"""Pictures as others see them: with a kind of cones missing, and from across the room."""

from __future__ import annotations

from typing import Literal

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.srgb import Rgb, encoded
from fitzle.core.eye.neighbours import simulated
from fitzle.core.eye.planes import Plane, light_on, reduced

Sight = Literal["usual", "protan", "deutan", "tritan", "far"]
SIGHTS: tuple[Sight, ...] = ("usual", "protan", "deutan", "tritan", "far")
FAR_TIMES = 5  # as far away as usual: from the other side of a room
_WHITE = Rgb(255, 255, 255)


def as_seen(pixels: Pixels, sight: Sight) -> Pixels:
    """An opaque picture (h, w, 4) as it is seen.

    Kinds of cones: Machado et al. 2009, severity 1. From afar: reduced by averaging areas to a FAR_TIMES-th and
    enlarged again, which is what an eye that stands so much farther away has left of it.
    """
    if sight == "usual":
        return pixels
    if sight == "far":
        height, width = pixels.shape[:2]
        small = reduced(light_on(pixels, _WHITE), max(height, width) / FAR_TIMES)
        return _opaque(cv2.resize(small, (width, height), interpolation=cv2.INTER_CUBIC))
    return _opaque(simulated(light_on(pixels, _WHITE), sight))


def _opaque(light: Plane) -> Pixels:
    levels = np.rint(encoded(np.clip(light.astype(np.float64), 0, 1))).astype(np.uint8)
    return np.dstack([levels, np.full(levels.shape[:2], 255, np.uint8)])
