"""How much detail a bitmap really carries: an enlarged small picture is found out.

Enlarging mixes each new px from its neighbours with weights that repeat with the step of the old grid. The second
difference of the brightness is therefore periodic along rows and columns, and its spectrum shows the old grid as a peak
(Gallagher 2005, "Detection of linear and cubic interpolation in JPEG compressed images", section 3). Where no peak is
seen, the octave in which the picture's energy ends decides: natural pictures lose about half of it from octave to
octave, an enlarged one nearly all.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.edge_detail import edge_factor
from fitzle.core.artwork.energy_ends import TILE_PX, Ends, energy_ends

Plane = NDArray[np.float32]
Curve = NDArray[np.float64]

LONGEST_LOOKED_AT_PX = 2048  # of the middle; enough tiles for a steady figure
LEAST_SIDE_PX = 96  # a smaller picture is taken at its word
FINE = 4096  # points of the spectrum of periodicity: 0.00024 cycles/px apart
BLOCK_PX = 8  # ITU T.81: a JPEG repeats every 8 px too
# Peaks over the spectrum's median. Measured on 4 kinds of picture, 4 ways to enlarge, PNG and JPEG 75 and 90: enlarged
# ones reach 5 to 490, others stay below 5 but at multiples of a JPEG's blocks.
CLEAR_PEAK = 10.0
COMPARABLE = 0.25  # of the clearest peak
MOST_GRIDS = 4
SURE = 0.85  # a figure that may be 15 % off says nothing above that
LEAST_DETAIL_PX = 64  # nobody enlarges less than that; what repeats so coarsely is a pattern
LEAST_SHARE = 0.06  # below that a repetition belongs to what is shown
# Energy up to this share of the finest grid and no grid to be seen: a soft picture of its own size (0.49 was measured
# on one with blurred hills behind sharp spokes). Nobody is accused of enlarging on softness alone.
SOFT_SHARE = 0.42
LEAST_END = 0.1  # energy that ends below belongs to a soft picture with grain, not to an enlarged one
# How far beyond the old grid energy reaches: Lanczos 0.85 to 1.1, bicubic 1.2 to 1.5, bilinear 1.65.
REACH = (0.82, 1.75)
ALL_OF_IT = 0.9  # energy this far up and a clear grid: px were repeated
DISAGREES = 0.35  # natural logarithm; a repetition that the energy knows nothing of is in the picture itself
OVER_BLOCKS = 3.0
NOTCH_DB = 3.0
SAME = 0.02  # of 255, on average along a column
SAME_SHARE = 0.01
LEAST_CHANGES = 16
LEAST_REPEATED = 0.3  # of all columns: enlarged by 1.4


def detail_share(brightness: Plane) -> float:
    """The share of its size at which a picture (h, w), 0 to 255, still has all its detail; 1 where nothing is found."""
    middle = _middle(brightness)
    if min(middle.shape) < LEAST_SIDE_PX or float(middle.std()) < 1.0:
        return 1.0
    factor = edge_factor(middle)
    if factor is None or (factor == 1 and _repeated_share(middle) is not None):
        share = _share_of_picture(middle)  # the edges of px that were repeated are sharp
    else:
        share = 1 / factor
    return share if share < SURE and share * max(middle.shape) >= LEAST_DETAIL_PX else 1.0


def _share_of_picture(plane: Plane) -> float:
    ends, peaks = energy_ends(plane), _old_grids(plane)
    if peaks:
        return _told_by_grid(peaks, plane, ends)
    return ends.share if LEAST_END < ends.share < SOFT_SHARE else 1.0


def _middle(plane: Plane) -> Plane:
    height, width = plane.shape
    down, across = max(0, (height - LONGEST_LOOKED_AT_PX) // 2), max(0, (width - LONGEST_LOOKED_AT_PX) // 2)
    part = plane[down : down + LONGEST_LOOKED_AT_PX, across : across + LONGEST_LOOKED_AT_PX]
    return np.ascontiguousarray(part, dtype=np.float32)


def _old_grids(plane: Plane) -> list[float]:
    """The frequencies (cycles/px) with which second differences clearly repeat, the clearest first."""
    spectrum = (_repetition(plane) + _repetition(np.ascontiguousarray(plane.T))) / 2
    frequency = np.arange(len(spectrum)) / FINE
    spectrum[frequency < LEAST_SHARE] = 0
    blocks = _block_height(spectrum)
    if blocks >= CLEAR_PEAK / 2:
        of_blocks = np.abs(frequency * BLOCK_PX - np.round(frequency * BLOCK_PX)) < 0.04
        spectrum[of_blocks & (spectrum < OVER_BLOCKS * blocks)] = 0
    found: list[float] = []
    least = max(CLEAR_PEAK, spectrum.max() * COMPARABLE)
    while len(found) < MOST_GRIDS and spectrum.max() >= least:
        best = int(np.argmax(spectrum))
        found.append(float(frequency[best]))
        spectrum[np.abs(frequency - frequency[best]) < 0.004] = 0
    return found


def _block_height(spectrum: Curve) -> float:
    """How far odd multiples of a JPEG's block frequency stand out; enlarging fourfold gives even ones only."""
    odd = [spectrum[round(FINE * multiple / BLOCK_PX) + np.arange(-2, 3)].max() for multiple in (1, 3)]
    return float(max(odd)) if min(odd) >= CLEAR_PEAK / 4 else 0.0


def _repetition(plane: Plane) -> Curve:
    """Spectrum of the mean second difference across columns, over its median."""
    second = np.abs(2 * plane[:, 1:-1] - plane[:, :-2] - plane[:, 2:])
    # A few hard edges must not outweigh the many px in which the grid shows.
    second = np.minimum(second, np.percentile(second[::4], 95))
    columns = np.log(second.mean(axis=0) + 1e-3)
    columns -= cv2.GaussianBlur(columns[None], (0, 0), 8)[0]
    spectrum = np.abs(np.fft.rfft(columns * np.hanning(len(columns)), FINE))
    return np.asarray(spectrum / (np.median(spectrum) + 1e-9), dtype=np.float64)


def _told_by_grid(peaks: list[float], plane: Plane, ends: Ends) -> float:
    """The share that the peaks stand for.

    Each is the share itself or its mirror image (1 - share), or either mixed with a JPEG's blocks: the one that agrees
    with where the energy ends is right. Ways of enlarging that repeat the spectrum are told by a notch at the peak.
    """
    repeated = _repeated_share(plane)
    for share in (peaks[0], 1 - peaks[0]):
        if repeated is not None and abs(share - (1 - repeated)) < SAME_SHARE:
            return share
    if peaks[0] < 0.35 and (_has_notch(ends, peaks[0]) or ends.share > ALL_OF_IT):
        return peaks[0]
    # Of candidates that agree equally the one that accuses least; a grid may show at twice its frequency only.
    candidates = [share for peak in peaks for share in (1 - peak, peak, peak / 2)]
    share = min(candidates, key=lambda share: _disagreement(ends.share / share))
    return share if _disagreement(ends.share / share) < DISAGREES else 1.0


def _disagreement(reach: float) -> float:
    """How far, as a logarithm, the energy reaches beyond (or ends before) what ways of enlarging leave."""
    low, high = REACH
    return max(0.0, float(np.log(low / reach)), float(np.log(reach / high)))


def _has_notch(ends: Ends, grid: float) -> bool:
    """Whether the spectrum dips at the old grid's frequency and rises again beyond."""
    at = np.abs(ends.frequency - grid) < 2.5 / TILE_PX
    beyond = (ends.frequency > 1.15 * grid) & (ends.frequency < 1.7 * grid)
    return bool(ends.level_db[beyond].max() > ends.level_db[at].min() + NOTCH_DB)


def _repeated_share(plane: Plane) -> float | None:
    """The share of columns and rows that are the same as the one before; None where they do not change evenly."""
    shares = []
    for along in (plane, plane.T):
        same = np.abs(np.diff(along, axis=1)).mean(axis=0) < SAME
        changes = np.flatnonzero(~same)
        if len(changes) < LEAST_CHANGES or np.ptp(np.diff(changes)) > 1:
            return None
        shares.append(float(same.mean()))
    return min(shares) if min(shares) > LEAST_REPEATED and abs(shares[0] - shares[1]) < 0.1 else None
