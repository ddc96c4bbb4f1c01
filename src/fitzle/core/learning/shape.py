"""Which part of a picture is seen: the rounded rectangle in which the screenshot is as expected.

Each px has a worth, positive where it is as expected and negative where not; the shape of the greatest sum is looked
for, first among all rectangles at a small size, then by climbing from there.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.learning.placement import Region
from fitzle.core.learning.zones import without_specks

SMALL_SIDE = 90
ROUNDED = (0.0, 0.12, 0.3, 0.5)  # radii that are tried first, as shares of the short side
BEST_STARTS = 4
SQUARE = 0.25  # of difference between the sides up to which it may be a circle
NOTHING = -1e18

Worth = NDArray[np.float32]
_MOVES = (
    (1, 0, 0, 0, 0), (0, 1, 0, 0, 0), (0, 0, 1, 0, 0), (0, 0, 0, 1, 0), (0, 0, 0, 0, 1), (1, 1, 0, 0, 0),
    (0, 0, 1, 1, 0), (1, 0, 0, 1, 0), (0, 1, 1, 0, 0), (1, 1, -1, -1, 0), (1, 0, 1, 0, 0), (0, 1, 0, 1, 0),
)  # fmt: skip


class Shape(NamedTuple):
    """A rectangle with rounded corners, in px of `worth`, and the sum of the worths in it."""

    region: Region
    radius: float
    sum: float


def best_rectangle(worth: Worth) -> Region:
    """The rectangle of the greatest sum, roughly."""
    small, across, down = _small(worth)
    left, top, right, bottom = _greatest(small)
    return Region(left / across, top / down, right / across, bottom / down)


def best_shape(worth: Worth, limits: Region) -> Shape:
    """The rounded rectangle or circle of the greatest sum within limits, exact to a quarter of a px."""
    whole = Region(0, 0, worth.shape[1], worth.shape[0]).within(limits)
    sums = _Sums(worth)
    starts = [best_rectangle(worth), _largest_piece(worth), whole]
    tries = [
        (sums(start, share * start.short), start.within(whole), share) for start in starts if start for share in ROUNDED
    ]
    tries.sort(key=lambda one: -one[0])
    climbed = [_climbed(sums, start, share, whole) for _, start, share in tries[:BEST_STARTS]]
    return max(climbed, key=lambda shape: shape.sum)


def _small(worth: Worth) -> tuple[Worth, float, float]:
    scale = min(1.0, SMALL_SIDE / max(worth.shape))
    size = (max(4, round(worth.shape[1] * scale)), max(4, round(worth.shape[0] * scale)))
    small = cv2.resize(worth, size, interpolation=cv2.INTER_AREA)
    return np.asarray(small, np.float32), size[0] / worth.shape[1], size[1] / worth.shape[0]


def _greatest(worth: Worth) -> tuple[int, int, int, int]:
    """The rectangle of the greatest sum: Kadane's algorithm over the columns, for all pairs of rows at once."""
    height, width = worth.shape
    sums = np.vstack([np.zeros(width), worth.cumsum(0)])
    first, last = np.triu_indices(height + 1, 1)
    rows = sums[last] - sums[first]
    current, start = np.zeros(len(first)), np.zeros(len(first), int)
    best, best_start, best_end = np.full(len(first), -np.inf), start.copy(), start.copy()
    for column in range(width):
        anew = current <= 0
        start = np.where(anew, column, start)
        current = np.where(anew, 0, current) + rows[:, column]
        better = current > best
        best = np.where(better, current, best)
        best_start, best_end = np.where(better, start, best_start), np.where(better, column + 1, best_end)
    found = int(best.argmax())
    return int(best_start[found]), int(first[found]), int(best_end[found]), int(last[found])


def _largest_piece(worth: Worth) -> Region | None:
    small, across, down = _small(worth)
    good = without_specks((small > 0.1).astype(np.uint8))
    count, _, stats, _ = cv2.connectedComponentsWithStats(good)
    if count < 2:
        return None
    left, top, width, height, _ = stats[1 + int(stats[1:, 4].argmax())]
    return Region(left / across, top / down, (left + width) / across, (top + height) / down)


class _Sums:
    """Sums within rounded rectangles with fractions of px, by cumulative sums of the rows."""

    def __init__(self, worth: Worth) -> None:
        self._height, self._width = worth.shape
        self._rows = np.hstack([np.zeros((self._height, 1)), worth.cumsum(1, dtype=np.float64)])

    def __call__(self, region: Region, radius: float) -> float:
        if region.width < 4 or region.height < 4:
            return NOTHING
        radius = min(radius, region.short / 2)
        rows = np.arange(max(0, math.floor(region.top)), min(self._height, math.ceil(region.bottom)))
        covered = np.minimum(rows + 1, region.bottom) - np.maximum(rows, region.top)
        middle = np.clip(rows + 0.5, region.top, region.bottom)
        beyond = np.maximum(0, np.maximum(radius - (middle - region.top), radius - (region.bottom - middle)))
        inset = radius - np.sqrt(np.maximum(0, radius * radius - beyond * beyond))
        return float((covered * (self._at(rows, region.right - inset) - self._at(rows, region.left + inset))).sum())

    def _at(self, rows: NDArray[np.intp], x: NDArray[np.float64]) -> NDArray[np.float64]:
        x = np.clip(x, 0, self._width - 1e-6)
        whole = x.astype(int)
        part = x - whole
        found: NDArray[np.float64] = self._rows[rows, whole] * (1 - part) + self._rows[rows, whole + 1] * part
        return found


def _climbed(sums: _Sums, start: Region, share: float, limits: Region) -> Shape:
    is_circle = share == 0.5 and abs(start.width / max(start.height, 1e-6) - 1) < SQUARE
    at = [*start, share * start.short]
    best, step = sums(start, at[4]), max(1.0, start.short / 16)
    while step >= 0.25:
        moved = False
        for move in _MOVES:
            for way in (step, -step):
                there = _limited([a + way * b for a, b in zip(at, move, strict=True)], limits, is_circle=is_circle)
                found = sums(Region(*there[:4]), there[4])
                if found > best + 1e-6:
                    best, at, moved = found, there, True
        if not moved:
            step /= 2
    return Shape(Region(*at[:4]), at[4], best)


def _limited(at: list[float], limits: Region, *, is_circle: bool) -> list[float]:
    left, top = max(at[0], limits.left), max(at[1], limits.top)
    right, bottom = min(at[2], limits.right), min(at[3], limits.bottom)
    half = min(right - left, bottom - top) / 2
    return [left, top, right, bottom, half if is_circle else max(0.0, min(at[4], half))]
