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
_BENT = -0.05  # the Laplacian of distances is 0 on a slope, -1 to -2 on the ridge of two straight sides
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
    return _long_ones(thin, ridge, _LEAST_LONG * LEAST_SEEN_STROKE_PX * scale) if thin.any() else thin


def _straight_ridge(distance: NDArray[np.float32]) -> Mask:
    """Where a plane (with at least _REACH px of margin that do not count) has a ridge whose height hardly changes.

    Creases are found everywhere, all else is looked at on them alone: they are few.
    """
    found = np.zeros(distance.size, dtype=bool)
    flat, row, places = distance.ravel(), distance.shape[1], _creases(distance)
    here = flat.take(places)
    for down, across in _AXES:
        beside, along = down * row + across, across * row - down
        crest = (here >= flat.take(places + beside)) & (here >= flat.take(places - beside))
        kept = places[crest]
        found[kept[_straight(flat, kept, beside, along, float(np.hypot(down, across)))]] = True
    return found.reshape(distance.shape)


def _creases(distance: NDArray[np.float32]) -> Places:
    """Where a plane of distances is not flat, row by row: every ridge, and little else."""
    bent = cv2.Laplacian(distance, cv2.CV_32F) < _BENT
    inside = np.zeros_like(bent)
    inside[_REACH:-_REACH, _REACH:-_REACH] = bent[_REACH:-_REACH, _REACH:-_REACH]
    return np.flatnonzero(inside)


def _straight(flat: NDArray[np.float32], places: Places, beside: int, along: int, step_px: float) -> Mask:
    """Which of some places are sharp across an axis and even along it; steps are in px of a plane read row by row."""
    second = 2 * flat.take(places) - flat.take(places + 2 * beside) - flat.take(places - 2 * beside)
    ahead, behind = flat.take(places + 3 * along), flat.take(places - 3 * along)
    even = (np.abs(ahead - behind) < 0.15 * 6 * step_px) & (ahead > 0) & (behind > 0)
    return np.asarray((second > 1.2 * step_px) & even)


def _long_ones(thin: Mask, ridge: Mask, least_px: float) -> Mask:
    """The ridge on those of the thin components, joined over 3x3 px, whose diagonal is at least so long."""
    joined = cv2.dilate(thin.astype(np.uint8), np.ones((3, 3), np.uint8))
    _, labels, stats, _ = cv2.connectedComponentsWithStats(joined, connectivity=8)
    long = np.hypot(stats[:, cv2.CC_STAT_WIDTH], stats[:, cv2.CC_STAT_HEIGHT]) >= least_px
    long[0] = False
    kept = np.zeros_like(thin)
    kept[ridge] = long[labels[ridge]]
    return kept
