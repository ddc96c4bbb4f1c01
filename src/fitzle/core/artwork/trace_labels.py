"""Each px of a bitmap wholly one of a few colours, with even boundaries between them, for outlines to be drawn around.

A blurred edge between two colours passes through others. So that no slivers of those are drawn, only px amid their own
colour are taken as they are (*cores*). Every other px is a mixture of the colour whose core is nearest and of one more,
the one that explains it best; colours far away must explain it much better. What a JPEG leaves along boundaries is then
averaged out: there, each px becomes what most of its neighbourhood is.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import Floats, dot
from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.oklab import oklab

OWN_COLOUR = 0.06  # OKLab; a flat px farther from every colour lies along an edge: it is a mixture
LEAST_CORE_PX = 24  # of area, at the size traced at
CLEAR = -1  # the label of what is transparent
LEAST_SMOOTH_PX = 1.0
FAR_COSTS, FAR_PX = 0.15, 80.0  # of 255 for each px to a colour's core, and the most px that count

Labels = NDArray[np.int16]
Mask = NDArray[np.bool_]
Palette = NDArray[np.uint8]


def labelled(pixels: Pixels, lab: Floats, core: Mask, palette: Palette, smooth_px: float) -> Labels:
    """For each px of a picture (h, w, 4), in OKLab (h, w, 3), the index of its colour; CLEAR where it is transparent.

    One colour after the other, for all at once take 20 MB a colour.
    """
    plain, away = _nearest(lab, oklab(palette).astype(np.float32))
    core = core & (away < OWN_COLOUR)
    labels = np.where(core, plain, _unmixed(pixels, core, plain, palette))
    shown = pixels[..., 3] >= 128
    return _evened(np.where(shown, labels, CLEAR).astype(np.int16), len(palette), max(smooth_px, LEAST_SMOOTH_PX))


def _nearest(lab: Floats, own: Floats) -> tuple[Labels, Floats]:
    """The colour that each px is most like, and how far it is from it."""
    label, least = np.zeros(lab.shape[:2], np.int16), np.full(lab.shape[:2], np.inf, np.float32)
    for index, colour in enumerate(own):
        away = _length(lab - colour)
        better = away < least
        label[better], least[better] = index, away[better]
    return label, least


def _length(steps: Floats) -> Floats:
    return np.sqrt(dot(steps, steps))


def _unmixed(pixels: Pixels, core: Mask, plain: Labels, palette: Palette) -> Labels:
    """For each px outside the cores the larger part of what it is a mixture of."""
    rest, own = ~core, palette.astype(np.float32)
    reaches = [_distance(core & (plain == index))[rest] for index in range(len(own))]
    first = _first(reaches)
    away = pixels[rest][:, :3].astype(np.float32) - own[first]
    label, least = first.copy(), np.full(len(first), np.inf, np.float32)
    for index, reach in enumerate(reaches):
        across = own[index] - own[first]
        share = np.clip(dot(away, across) / np.maximum(dot(across, across), 1), 0, 1)
        unexplained = _length(away - share[:, None] * across) + FAR_COSTS * np.minimum(reach, FAR_PX)
        better = unexplained < least
        label[better], least[better] = np.where(share >= 0.5, index, first)[better], unexplained[better]
    labels = np.zeros(core.shape, np.int16)
    labels[rest] = label
    return labels


def _first(reaches: list[Floats]) -> Labels:
    """The colour whose core is nearest."""
    found, near = np.zeros(len(reaches[0]), np.int16), reaches[0].copy()
    for index, reach in enumerate(reaches):
        nearer = reach < near
        found[nearer], near[nearer] = index, reach[nearer]
    return found


def _distance(core: Mask) -> Floats:
    """To the nearest core of a colour, specks of it not counted; far away where there is none."""
    count, parts, stats, _ = cv2.connectedComponentsWithStats(core.astype(np.uint8), connectivity=8)
    large = stats[:, cv2.CC_STAT_AREA] >= LEAST_CORE_PX
    large[0] = False
    if count < 2 or not large.any():
        return np.full(core.shape, np.float32(1e6))
    return np.asarray(cv2.distanceTransform(1 - large[parts].astype(np.uint8), cv2.DIST_L2, 5), dtype=np.float32)


def _evened(labels: Labels, count: int, sigma_px: float) -> Labels:
    """Each px what most of its neighbourhood is, weighed by a Gaussian."""
    found, most = labels.copy(), np.zeros(labels.shape, np.float32)
    for index in range(CLEAR, count):
        share = np.asarray(cv2.GaussianBlur((labels == index).astype(np.float32), (0, 0), sigma_px))
        more = share > most
        found[more], most[more] = index, share[more]
    return found
