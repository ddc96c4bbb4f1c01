"""Pictures of a series that nobody tells apart at the size at which they are seen."""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.planes import Plane, lab_of, length, light_on

CELL_PX = 3  # seen px for each cell: what is smaller is not told in a list
DIFFERS = 0.10  # OKLab
MOST_DIFFERENT = 0.02  # of the cells: up to that two are twins


def cells_of(pixels: Pixels, ground: Rgb, seen_px: float) -> Plane:
    """A picture (h, w, 4) as cells (h, w, 3) in OKLab, `seen_px` of its long side over CELL_PX of them."""
    light = light_on(pixels, ground)
    scale = seen_px / CELL_PX / max(light.shape[:2])
    size = (max(1, round(light.shape[1] * scale)), max(1, round(light.shape[0] * scale)))
    return lab_of(np.asarray(cv2.resize(light, size, interpolation=cv2.INTER_AREA), dtype=np.float32))


def share_that_differs(one: Plane, other: Plane) -> float:
    """The share of cells that differ, 0 to 1; 1 where the pictures have different shapes.

    Copies that are shifted as a whole count as different: seen side by side they are.
    """
    if one.shape != other.shape:
        return 1.0
    return float((length(one - other) > DIFFERS).mean())
