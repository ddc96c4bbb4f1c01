"""A box that cuts through its subject: the cut then runs along one of its sides."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from fitzle.core.geometry.rect import Rect

RUNS_ALONG = 0.08  # of the side; a subject in a box that was drawn close touches a side in few places
NEAR_PX = 2
HALF = 0.5
WIDER_BY = 0.35  # of the box
AT_THE_EDGE = 0.01  # of the picture: the picture ends there too


def wider_box(alpha: NDArray[np.float32], box: Rect) -> Rect | None:
    """A wider box (px) where a cut of a picture, coverage (h, w) 0 to 1, runs along sides of its box; else None.

    Sides that lie at the picture's own edge cannot be widened and are left as they are.
    """
    height, width = alpha.shape
    left, top, right, bottom = round(box.x), round(box.y), round(box.right), round(box.bottom)
    inside = alpha[top:bottom, left:right] > HALF
    if not inside.any():
        return None
    cut = {
        "left": box.x > AT_THE_EDGE * width and _runs_along(inside[:, :NEAR_PX], 1),
        "right": box.right < (1 - AT_THE_EDGE) * width and _runs_along(inside[:, -NEAR_PX:], 1),
        "top": box.y > AT_THE_EDGE * height and _runs_along(inside[:NEAR_PX], 0),
        "bottom": box.bottom < (1 - AT_THE_EDGE) * height and _runs_along(inside[-NEAR_PX:], 0),
    }
    if not any(cut.values()):
        return None
    x = max(0.0, box.x - WIDER_BY * box.width) if cut["left"] else box.x
    y = max(0.0, box.y - WIDER_BY * box.height) if cut["top"] else box.y
    end_x = min(float(width), box.right + WIDER_BY * box.width) if cut["right"] else box.right
    end_y = min(float(height), box.bottom + WIDER_BY * box.height) if cut["bottom"] else box.bottom
    return Rect(x, y, end_x - x, end_y - y)


def _runs_along(side: NDArray[np.bool_], across: int) -> bool:
    return float(np.mean(side.any(axis=across))) > RUNS_ALONG
