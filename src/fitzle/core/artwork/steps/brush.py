"""Brush strokes as masks."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.steps.document import Stroke
from fitzle.core.geometry.rect import Rect

Plane = NDArray[np.float32]
_SHIFT = 4  # OpenCV draws at 1/16 px
LEAST_PX = 1.0


def stroke_mask(stroke: Stroke, width: int, height: int) -> tuple[Rect, Plane]:
    """Where a stroke touches a picture: a box on whole px, and how much of each px in it, 0 to 1.

    A stroke that lies beside the picture has an empty box.
    """
    points = np.array(stroke.points) * [width, height]
    thick = max(LEAST_PX, stroke.size * min(width, height))
    fade = stroke.softness * thick / 2
    box = _box(points, thick / 2 + fade + 2, width, height)
    if box.width <= 0 or box.height <= 0:
        return Rect(0, 0, 0, 0), np.zeros((0, 0), np.float32)
    mask = np.zeros((int(box.height), int(box.width)), np.uint8)
    _draw(mask, points - [box.x, box.y], max(LEAST_PX, thick - 0.8 * fade))
    if fade > 0.5:
        mask = np.asarray(cv2.GaussianBlur(mask, (0, 0), fade / 4), np.uint8)
    return box, mask.astype(np.float32) / np.float32(255)


def union_mask(strokes: tuple[Stroke, ...], act: str, width: int, height: int) -> NDArray[np.bool_]:
    """All px (h, w) that strokes of one kind touch by more than half."""
    whole = np.zeros((height, width), dtype=bool)
    for stroke in strokes:
        if stroke.act == act:
            box, mask = stroke_mask(stroke, width, height)
            whole[slices(box)] |= mask > 0.5
    return whole


def slices(box: Rect) -> tuple[slice, slice]:
    """A box on whole px as rows and columns."""
    return slice(int(box.y), int(box.bottom)), slice(int(box.x), int(box.right))


def _draw(mask: NDArray[np.uint8], points: NDArray[np.float64], thick: float) -> None:
    fixed = np.rint(points * (1 << _SHIFT)).astype(np.int32)
    radius = max(1, round(thick / 2 * (1 << _SHIFT)))
    for x, y in (fixed[0], fixed[-1]):
        cv2.circle(mask, (int(x), int(y)), radius, 255, -1, cv2.LINE_AA, _SHIFT)
    if len(fixed) > 1:
        cv2.polylines(mask, [fixed.reshape(-1, 1, 2)], False, 255, max(1, round(thick)), cv2.LINE_AA, _SHIFT)


def _box(points: NDArray[np.float64], reach: float, width: int, height: int) -> Rect:
    low, high = points.min(axis=0) - reach, points.max(axis=0) + reach
    left, top = max(0, int(low[0])), max(0, int(low[1]))
    return Rect(left, top, min(width, int(high[0]) + 1) - left, min(height, int(high[1]) + 1) - top)
