"""How much of a mark's contour is lost at the size at which it is seen."""

from __future__ import annotations

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.planes import Plane, enlarged, lab_of, length, light_on, reduced, reduced_pixels

RUNS_TOGETHER = 0.5  # from there on a contour begins to be lost
NO_CONTOUR = 0.1  # of variation in all: rounding alone comes to less
LONG_PX = 256  # what a mark is looked at at the most
LARGEST_SEEN_PX = 128  # above that a mark has room for all that people draw


def drawn_long_px(seen_px: float) -> float:
    """The long side to look at a mark at that is seen `seen_px` long: two to eight times that, 256 px if it can."""
    return float(np.clip(LONG_PX / seen_px, 2, 8)) * seen_px


def contour_lost(pixels: Pixels, ground: Rgb, seen_px: float) -> float:
    """The share, 0 to 1, of the contour of a mark (h, w, 4) on a ground that is gone at `seen_px` of its long side.

    It is looked at `drawn_long_px` long, and drawn at least as large.

    1 - TV(reduced and enlarged again) / TV, with TV the total variation in OKLab: by the coarea formula the length of
    all contours, each weighed by how far the colours at its sides are apart (Fleming and Rishel 1960).
    """
    light = light_on(reduced_pixels(pixels, drawn_long_px(seen_px)), ground)
    before = _variation(lab_of(light))
    if before <= NO_CONTOUR:
        return 0.0
    after = _variation(lab_of(enlarged(reduced(light, seen_px), light)))
    return max(0.0, 1 - after / before)


def _variation(lab: Plane) -> float:
    across = np.diff(lab, axis=1)[:-1]
    down = np.diff(lab, axis=0)[:, :-1]
    return float(np.hypot(length(across), length(down)).sum())
