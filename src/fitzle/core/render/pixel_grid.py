"""Small marks fitted to the pixel grid: long upright and level edges are moved onto whole px.

Each axis is bent by a piecewise-linear map that brings the edges to the nearest px; between them everything is
stretched a little. Averages over the bent px are exact (sums along the axis). facts/rendering.md: partial px of 24 and
48 became 0.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

LONG_EDGE = 0.22  # of the box's side: a shorter edge is a detail, and bending for it does more harm than good
EDGE_STEP = 24  # of 255 from one sample to the next
MOST_SAMPLES = 192  # along the longer side
LEAST_FACTOR = 3  # samples for each px; fewer cannot tell where an edge lies
LEAST_ROOM = 0.45  # px: edges nearer than that to each other are moved together
Floats = NDArray[np.float32]


def on_pixel_grid(source: Source, window: Rect, size: Size) -> Pixels:
    """The window drawn at a small size with its long edges on whole px: (height, width, 4), premultiplied."""
    factor = max(LEAST_FACTOR, MOST_SAMPLES // max(size))
    samples = source.pixels(window, Size(size.width * factor, size.height * factor))
    across = _weights(*_bent(_edges(samples, 1, factor), size.width), factor)
    down = _weights(*_bent(_edges(samples, 0, factor), size.height), factor)
    narrow = np.einsum("os,hsc->hoc", across, samples.astype(np.float32), optimize=True)
    small = np.tensordot(down, narrow, axes=(1, 0))
    drawn = np.rint(np.clip(small, 0, 255)).astype(np.uint8)
    return np.asarray(np.minimum(drawn, drawn[..., 3:]), dtype=np.uint8)


def _edges(samples: Pixels, axis: int, factor: int) -> list[float]:
    """Where long edges across an axis stand, in px from its start, in order."""
    one, two = (samples[:, 1:], samples[:, :-1]) if axis else (samples[1:], samples[:-1])
    away = cv2.absdiff(np.ascontiguousarray(one), np.ascontiguousarray(two))
    steps = np.maximum(np.maximum(away[..., 0], away[..., 1]), np.maximum(away[..., 2], away[..., 3]))
    length = (steps > EDGE_STEP).mean(axis=1 - axis)
    height = steps.mean(axis=1 - axis, dtype=np.float32)
    found: list[float] = []
    last = -2
    for at in np.flatnonzero(length >= LONG_EDGE):
        if at - last <= 1:
            continue  # the other half of the same edge
        last = int(at)
        found.append(_middle(height, last) / factor)
    return found


def _middle(height: Floats, at: int) -> float:
    """Where an edge lies to a fraction of a sample: one that runs through a sample makes two lower steps."""
    near = np.arange(max(0, at - 1), min(len(height), at + 2))
    return float(((near + 1) * height[near]).sum() / height[near].sum())


def _bent(edges: list[float], side: int) -> tuple[list[float], list[float]]:
    """The map from whole px to where they lie in the drawing: (px, place), both rising from 0 to the side."""
    targets, places = [0.0], [0.0]
    for place in edges:
        target = float(round(place))
        if place - places[-1] < LEAST_ROOM or target <= targets[-1] or target >= side or place >= side - LEAST_ROOM:
            continue
        targets.append(target)
        places.append(place)
    return [*targets, float(side)], [*places, float(side)]


def _weights(targets: list[float], places: list[float], factor: int) -> Floats:
    """How much each sample counts in each px, (px, samples): the share of the px's bent width that it covers.

    `targets` are the whole px to which the `places` of edges were brought.
    """
    side = round(targets[-1])
    borders = np.interp(np.arange(side + 1), targets, places) * factor
    samples = np.arange(side * factor)
    covered = np.minimum(borders[1:, None], samples + 1) - np.maximum(borders[:-1, None], samples)
    covered = np.maximum(covered, 0)
    for target, place in zip(targets[1:-1], places[1:-1], strict=True):
        _split(covered, round(target), int(place * factor))
    return np.asarray(covered / np.diff(borders)[:, None], dtype=np.float32)


def _split(covered: NDArray[np.float64], px: int, sample: int) -> None:
    """The sample that an edge runs through is half one side and half the other: each px takes what lies beyond it."""
    covered[px - 1, sample - 1] += covered[px - 1, sample]
    covered[px, sample + 1] += covered[px, sample]
    covered[[px - 1, px], sample] = 0
