"""What of a picture its place shows: beside its covered zones and inside of its windows."""

from __future__ import annotations

import math
from collections.abc import Iterator
from itertools import pairwise

from fitzle.core.geometry.rect import Rect
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

STEPS = 64  # of each side, at which boxes are tried


def hidden_share(box: Rect, sheet: SpecSheet, size: Size) -> float:
    """The share of a box, 0 to 1, that is covered, or lies outside of the window that shows least of it."""
    if box.width <= 0 or box.height <= 0:
        return 0.0
    covered = _union(box, [_placed(zone.x, zone.y, zone.width, zone.height, size) for zone in sheet.covered])
    windows = [_placed(one.x, one.y, one.width, one.height, size) for one in sheet.windows]
    outside = max((1 - _union(box, [window]) for window in windows), default=0.0)
    return max(covered, outside)


def nearest_free(box: Rect, sheet: SpecSheet, size: Size) -> Rect | None:
    """The box moved as little as possible to where nothing of it is hidden; None where there is no such place."""
    free = (moved for moved in _places(box, size) if hidden_share(moved, sheet, size) == 0)
    return min(free, key=lambda one: math.hypot(one.x - box.x, one.y - box.y), default=None)


def _places(box: Rect, size: Size) -> Iterator[Rect]:
    room = size.width - box.width, size.height - box.height
    if min(room) < 0:
        return
    across = sorted({min(max(box.x, 0), room[0]), *(room[0] * step / STEPS for step in range(STEPS + 1))})
    down = sorted({min(max(box.y, 0), room[1]), *(room[1] * step / STEPS for step in range(STEPS + 1))})
    yield from (Rect(x, y, box.width, box.height) for y in down for x in across)


def _placed(x: float, y: float, width: float, height: float, size: Size) -> Rect:
    return Rect(x * size.width, y * size.height, width * size.width, height * size.height)


def _union(box: Rect, others: list[Rect]) -> float:
    """The share of a box that lies in any of the others: exact, over the cells that their edges make."""
    if not others:
        return 0.0
    across = [_within(edge, box.x, box.right) for one in others for edge in (one.x, one.right)]
    down = [_within(edge, box.y, box.bottom) for one in others for edge in (one.y, one.bottom)]
    xs, ys = sorted({box.x, box.right, *across}), sorted({box.y, box.bottom, *down})
    area = sum(
        (right - left) * (bottom - top)
        for left, right in pairwise(xs)
        for top, bottom in pairwise(ys)
        if any(_holds(one, (left + right) / 2, (top + bottom) / 2) for one in others)
    )
    return area / (box.width * box.height)


def _within(edge: float, low: float, high: float) -> float:
    return min(max(edge, low), high)


def _holds(one: Rect, x: float, y: float) -> bool:
    return one.x <= x < one.right and one.y <= y < one.bottom
