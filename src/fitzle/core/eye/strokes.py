"""Strokes of a mark that are too thin to be seen, and gaps that close: ridges of the distance transform."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

LEAST_WORKING_PX, MOST_WORKING_PX = 448, 512  # below that strokes are lost
LEAST_SEEN_STROKE_PX = 0.75
_AXES = ((0, 1), (1, 0), (1, 1), (1, -1))
_EDGE_PX = 0.6  # how much wider a stroke's distances say it is than it was drawn
_REACH = 3  # px that are looked at around each
_LEAST_LONG = 4.5  # times the least stroke: what is shorter is a tip or a dot

Mask = NDArray[np.bool_]
Places = NDArray[np.intp]


def working_px(seen_px: float) -> float:
    """The long side in px to draw a mark at that is seen `seen_px` long."""
    return float(np.clip(8 * seen_px, LEAST_WORKING_PX, MOST_WORKING_PX))


class Strokes(NamedTuple):
    """`thin` is the share of straight strokes, 0 to 1, that is seen thinner than LEAST_SEEN_STROKE_PX, `closing` that
    of the gaps between them, in parts of all strokes. `thinnest_px` is in seen px, of the thinnest twentieth.
    """

    thin: float
    closing: float
    thinnest_px: float


NO_STROKES = Strokes(0.0, 0.0, 0.0)


def strokes_of(shown: Mask, seen_px: float) -> Strokes:
    """The strokes of a mark that is seen `seen_px` long; `shown` is where it is drawn, at `working_px`.

    A tip that only tapers is no stroke: its width changes along it.
    """
    scale = max(shown.shape) / seen_px
    padded = np.pad(shown, 4)
    distance = cv2.distanceTransform(padded.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    ridge = _straight_ridge(distance)
    if not ridge.any():
        return NO_STROKES
    thin = _thin(ridge, distance, scale)
    thinnest = float(np.percentile(2 * distance[ridge] - _EDGE_PX, 5)) / scale
    return Strokes(float(thin.sum() / ridge.sum()), _closing(padded, int(ridge.sum()), scale), thinnest)


def thin_share(shown: Mask, seen_px: float) -> float:
    """The share of strokes that is too thin."""
    return strokes_of(shown, seen_px).thin


def _closing(padded: Mask, strokes: int, scale: float) -> float:
    """Thin gaps inside the hull of the mark, in parts of its strokes."""
    outlines, _ = cv2.findContours(padded.astype(np.uint8), cv2.RETR_EXTERNAL, cv2.CHAIN_APPROX_SIMPLE)
    hull = np.zeros(padded.shape, np.uint8)
    cv2.fillConvexPoly(hull, cv2.convexHull(np.concatenate(outlines)), 1)
    distance = cv2.distanceTransform((~padded).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    gaps = _straight_ridge(distance) & (hull > 0)
    return float(_thin(gaps, distance, scale).sum() / strokes)


def _thin(ridge: Mask, distance: NDArray[np.float32], scale: float) -> Mask:
    thin = ridge & (2 * distance - _EDGE_PX < LEAST_SEEN_STROKE_PX * scale)
    return _long_ones(thin, _LEAST_LONG * LEAST_SEEN_STROKE_PX * scale) & ridge


def _straight_ridge(distance: NDArray[np.float32]) -> Mask:
    """Where a plane (with at least _REACH px of margin that do not count) has a ridge whose height hardly changes.

    Crests are found everywhere, all else is looked at on them alone: they are few.
    """
    found = np.zeros(distance.shape, dtype=bool)
    inside = distance[_REACH:-_REACH, _REACH:-_REACH]
    positive = inside > 0
    for down, across in _AXES:
        crest = positive & (inside >= _at(distance, down, across)) & (inside >= _at(distance, -down, -across))
        y, x = (indices + _REACH for indices in np.nonzero(crest))
        kept = _straight(distance, y, x, down, across)
        found[y[kept], x[kept]] = True
    return found


def _straight(distance: NDArray[np.float32], y: Places, x: Places, down: int, across: int) -> Mask:
    """Which of some places are sharp across an axis and even along it."""
    length = float(np.hypot(down, across))
    second = 2 * distance[y, x] - distance[y + 2 * down, x + 2 * across] - distance[y - 2 * down, x - 2 * across]
    ahead, behind = distance[y + 3 * across, x - 3 * down], distance[y - 3 * across, x + 3 * down]
    even = (np.abs(ahead - behind) < 0.15 * 6 * length) & (ahead > 0) & (behind > 0)
    return np.asarray((second > 1.2 * length) & even)


def _at(plane: NDArray[np.float32], down: int, across: int) -> NDArray[np.float32]:
    """The inner part of a plane `down` and `across` further on."""
    height, width = plane.shape
    return plane[_REACH + down : height - _REACH + down, _REACH + across : width - _REACH + across]


def _long_ones(thin: Mask, least_px: float) -> Mask:
    """The components, joined over 3x3 px, whose diagonal is at least so long."""
    joined = cv2.dilate(thin.astype(np.uint8), np.ones((3, 3), np.uint8))
    _, labels, stats, _ = cv2.connectedComponentsWithStats(joined, connectivity=8)
    long = np.hypot(stats[:, cv2.CC_STAT_WIDTH], stats[:, cv2.CC_STAT_HEIGHT]) >= least_px
    long[0] = False
    return np.asarray(long[labels], dtype=bool)
