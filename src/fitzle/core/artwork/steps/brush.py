"""Brush strokes as masks."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.steps.document import Stroke
from fitzle.core.geometry.rect import Rect

Plane = NDArray[np.float32]
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
    core = max(LEAST_PX, thick - 0.8 * fade)
    mask = _drawn(points - [box.x, box.y], core, int(box.width), int(box.height))
    if fade > 0.5:
        mask = np.asarray(cv2.GaussianBlur(mask, (0, 0), fade / 4), np.uint8)
    return box, mask.astype(np.float32) / np.float32(255)


def union_mask(strokes: tuple[Stroke, ...], act: str, width: int, height: int) -> NDArray[np.bool_]:
    """All px (h, w) that strokes of one kind touch by a quarter or more, so that the thinnest line is seen."""
    whole = np.zeros((height, width), dtype=bool)
    for stroke in strokes:
        if stroke.act == act:
            box, mask = stroke_mask(stroke, width, height)
            whole[slices(box)] |= mask >= 0.25
    return whole


def slices(box: Rect) -> tuple[slice, slice]:
    """A box on whole px as rows and columns."""
    return slice(int(box.y), int(box.bottom)), slice(int(box.x), int(box.right))


def _drawn(points: NDArray[np.float64], thick: float, width: int, height: int) -> NDArray[np.uint8]:
    """A round brush along points: how much of each px it covers, 0 to 255.

    Skia's, as OpenCV's lines have whole widths and come out 1.4 to 2 px wider than asked.
    """
    import skia

    path = skia.Path()
    path.moveTo(*points[0])
    for point in points[1:] if len(points) > 1 else points:
        path.lineTo(*point)
    brush = skia.Paint(AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=thick)
    brush.setStrokeCap(skia.Paint.kRound_Cap)
    brush.setStrokeJoin(skia.Paint.kRound_Join)
    mask = np.zeros((height, width), np.uint8)
    skia.Surface.MakeRasterDirect(skia.ImageInfo.MakeA8(width, height), mask).getCanvas().drawPath(path, brush)
    return mask


def _box(points: NDArray[np.float64], reach: float, width: int, height: int) -> Rect:
    low, high = points.min(axis=0) - reach, points.max(axis=0) + reach
    left, top = max(0, int(low[0])), max(0, int(low[1]))
    return Rect(left, top, min(width, int(high[0]) + 1) - left, min(height, int(high[1]) + 1) - top)
