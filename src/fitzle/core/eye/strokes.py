"""Strokes of a mark that are too thin to be seen, and gaps that close: ridges of the distance transform."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

LEAST_WORKING_PX, MOST_WORKING_PX = 448, 512  # below that strokes are lost
LEAST_SEEN_STROKE_PX = 0.75
_AXES = ((0, 1), (1, 0), (1, 1), (1, -1))
_EDGE_PX = 0.6  # how much wider a stroke's distances say it is than it was drawn
_LEAST_LONG = 4.5  # times the least stroke: what is shorter is a tip or a dot

Mask = NDArray[np.bool_]


def working_px(seen_px: float) -> float:
    """The long side in px to draw a mark at that is seen `seen_px` long."""
    return float(np.clip(8 * seen_px, LEAST_WORKING_PX, MOST_WORKING_PX))


def thin_share(shown: Mask, seen_px: float) -> float:
    """The share of a mark's straight strokes, 0 to 1, that is seen thinner than LEAST_SEEN_STROKE_PX.

    `shown` is where it is drawn, at `working_px`. A tip that only tapers is no stroke: its width changes along it.
    """
    scale = max(shown.shape) / seen_px
    padded = np.pad(shown, 4)
    distance = cv2.distanceTransform(padded.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    ridge = _straight_ridge(distance)
    if not ridge.any():
        return 0.0
    thin = ridge & (2 * distance - _EDGE_PX < LEAST_SEEN_STROKE_PX * scale)
    kept = _long_ones(thin, _LEAST_LONG * LEAST_SEEN_STROKE_PX * scale)
    return float((kept & ridge).sum() / ridge.sum())


def _straight_ridge(distance: NDArray[np.float32]) -> Mask:
    found = np.zeros(distance.shape, dtype=bool)
    for down, across in _AXES:
        length = float(np.hypot(down, across))
        before, after = _moved(distance, down, across), _moved(distance, -down, -across)
        second = 2 * distance - _moved(distance, 2 * down, 2 * across) - _moved(distance, -2 * down, -2 * across)
        crest = (distance >= before) & (distance >= after) & (second > 1.2 * length) & (distance > 0)
        ahead, behind = _moved(distance, 3 * across, -3 * down), _moved(distance, -3 * across, 3 * down)
        even = (np.abs(ahead - behind) < 0.15 * 6 * length) & (ahead > 0) & (behind > 0)
        found |= crest & even
    return found


def _moved(plane: NDArray[np.float32], down: int, across: int) -> NDArray[np.float32]:
    """The value `down` and `across` further on; 0 beyond the edge."""
    found = np.zeros_like(plane)
    height, width = plane.shape
    to_y, to_x = slice(max(0, -down), height - max(0, down)), slice(max(0, -across), width - max(0, across))
    from_y, from_x = slice(max(0, down), height - max(0, -down)), slice(max(0, across), width - max(0, -across))
    found[to_y, to_x] = plane[from_y, from_x]
    return found


def _long_ones(thin: Mask, least_px: float) -> Mask:
    """The components, joined over 3x3 px, whose diagonal is at least so long."""
    joined = cv2.dilate(thin.astype(np.uint8), np.ones((3, 3), np.uint8))
    _, labels, stats, _ = cv2.connectedComponentsWithStats(joined, connectivity=8)
    long = np.hypot(stats[:, cv2.CC_STAT_WIDTH], stats[:, cv2.CC_STAT_HEIGHT]) >= least_px
    long[0] = False
    return np.asarray(long[labels], dtype=bool)
