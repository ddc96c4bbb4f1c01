"""Fill and whole: two ways to bring a shape into a frame without stretching it."""

from __future__ import annotations

import math

from fitzle.core.geometry.rect import Point, Rect


def fill_window(source: Rect, frame_ratio: float, focal_point: Point, zoom: float = 1.0) -> Rect:
    """The largest window of `frame_ratio` inside `source` whose middle is as near to `focal_point` as it can be.

    `focal_point` is in fractions of the source; the window is in the source's unit. `zoom` makes it that much smaller.
    """
    if source.ratio > frame_ratio:
        width, height = source.height * frame_ratio, source.height
    else:
        width, height = source.width, source.width / frame_ratio
    width, height = width / zoom, height / zoom
    x = _clamped(source.x + focal_point.x * source.width - width / 2, source.x, source.right - width)
    y = _clamped(source.y + focal_point.y * source.height - height / 2, source.y, source.bottom - height)
    return Rect(x, y, width, height)


def whole_box(ratio: float, frame: Rect, weight: Point | None = None, limits: Rect | None = None) -> Rect:
    """The largest box of `ratio` inside `frame`, centred.

    With `weight` (fractions of the box) that point comes to stand in the frame's middle instead of the box's own
    middle, as far as `limits` allows (by default the frame itself).
    """
    if ratio > frame.ratio:
        width, height = frame.width, frame.width / ratio
    else:
        width, height = frame.height * ratio, frame.height
    held = limits or frame
    at = weight or Point(0.5, 0.5)
    x = _clamped(frame.centre.x - at.x * width, held.x, held.right - width)
    y = _clamped(frame.centre.y - at.y * height, held.y, held.bottom - height)
    return Rect(x, y, width, height)


def snapped(box: Rect, frame: Rect) -> Rect:
    """The box on whole pixels for bitmaps, at least 1 px, each side changed by at most half a pixel.

    Where the leftover in the frame is odd the box moves by half a pixel rather than being resampled off the grid.
    """
    width, height = max(1, round(box.width)), max(1, round(box.height))
    x = round(box.x + (box.width - width) / 2)
    y = round(box.y + (box.height - height) / 2)
    x = int(_clamped(x, math.ceil(frame.x), max(math.ceil(frame.x), math.floor(frame.right) - width)))
    y = int(_clamped(y, math.ceil(frame.y), max(math.ceil(frame.y), math.floor(frame.bottom) - height)))
    return Rect(x, y, width, height)


def inside_circle(ratio: float, reach: float, diameter: float, clearance: float) -> Rect:
    """The largest box of `ratio` whose contents stay inside a circle of `diameter` less `clearance` all round.

    `reach` is how far the contents extend from the box's middle, as a fraction of half its diagonal (1 for a full
    rectangle, about 0.707 for a disc in a square). The box is centred in the circle's square.
    """
    radius = max(diameter / 2 - clearance, diameter * 0.005)
    half_diagonal = radius / max(reach, 0.01)
    height = 2 * half_diagonal / math.hypot(ratio, 1.0)
    width = height * ratio
    return Rect((diameter - width) / 2, (diameter - height) / 2, width, height)


def _clamped(value: float, least: float, most: float) -> float:
    if most < least:
        return (least + most) / 2
    return min(max(value, least), most)
