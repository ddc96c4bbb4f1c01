"""How far artwork was enlarged, told by how wide its edges are.

A logo has few edges between flat areas, too few for the statistics of `detail`, but each of them is one step of the old
grid wide: two colours that met within a px meet within as many px as it was enlarged by. How wide exactly depends on
where an edge lay between two old px, on the way of enlarging and on how the edge was smoothed; the constants below are
measured (decision 0019). Where the old grid shows as well, as `detail` explains, it gives the exact figure.
"""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.energy_ends import Ends, energy_ends

Plane = NDArray[np.float32]
Curve = NDArray[np.float64]
Places = NDArray[np.intp]

FLAT_AREA = 3.0  # of 255 within 5 px: a flat colour, also after JPEG 75
LEAST_FLAT, ALL_FLAT = 0.5, 0.8  # of all px, for artwork to be flat, or nothing but flat
LEVEL, FEW_LEVELS, MOST_OF_IT = 4.0, 8, 0.8  # of 255 each; so many of them hold most of what is flat
FLAT_NEAR = 14.0  # of 255 within 5 px of a row: the edge has ended
LEAST_STEP = 48.0  # of 255 from one side of an edge to the other
MOST_STRETCH = 2.5  # fainter edges are blurred by a JPEG itself
LONGEST_EDGE_PX = 64
LEAST_EDGES = 60
NEARLY_STRAIGHT = 0.9  # cosine between the row and the direction in which an edge changes
MOST_WAY = 1.6  # of the step, up and down together: more is a thin line, or noise
ROWS_LOOKED_AT = 512
SAMPLED = 8  # every so many rows do for a percentile
SHARPEST = 20  # percent
# Widths in px of the old grid, the sharpest fifth first. Edges of a picture's own size stay below 0.8 px.
OWN_WIDTH, LEAST_FACTOR = 0.79, 1.4
# Edges that cross the grid lie anywhere between two of its px. Up to an overshoot, in steps, half of them are narrower
# than this: linear enlarging, and bicubic; beyond (Lanczos, sharper bicubic) the sharpest fifth differs less.
HALF_WIDTHS = ((0.012, 1.12), (0.03, 1.04))
SHARP_WIDTH = 0.76
# Edges along the grid lie at a few places only, and the sharpest mostly right between two px.
ALONG_GRID, ALONG_GRID_WIDTH = 0.995, 0.67
LEAST_CROSSING = 0.1  # of all edges
# Photos (decision 0021): a picture may have been soft before it was enlarged, so that its edges alone tell too much.
# Powers of widths in px and of shares of the finest grid, fitted to 448 enlarged pictures.
SHARPEST_IN_PHOTO = 5  # percent
SHARPEST_POWER, TYPICAL_POWER, FADES_POWER, ENDS_POWER = 0.62, 0.117, -0.156, -0.104
AT_ONE = 1.21  # the factor where each of them is 1
NEAR_IN_PHOTO, CLEAR_GRID_IN_PHOTO = (0.82, 1.22), 6.0
LEAST_WIDTH_IN_PHOTO = 0.96  # px; sharper ones are of their own size
LEAST_EDGES_IN_PHOTO = 200  # fewer spread by chance
SCENE_SPREAD = 2.1  # more is softness of the scene: haze, or what lies out of focus
# How far widths of edges spread at most (below) for a sharpest width in px (above) where a lens blurred them.
SPREAD_OF_A_BLUR = ((0.96, 1.2, 1.35, 1.8, 2.0, 2.6), (1.62, 1.5, 1.44, 1.36, 1.31, 1.0))
SPREAD_WITH_GRAIN = ((0.96, 1.25, 1.35, 1.6, 2.0, 2.3, 2.6), (1.85, 1.75, 1.67, 1.67, 1.6, 1.5, 1.0))
GRAIN_PX = 1024  # of a corner
MUCH_GRAIN, LEAST_GRAIN = 1.2, 0.5  # of 255; enlarging leaves no noise from px to px
SOFT_WITH_GRAIN = 3.0  # px; so soft a scene with grain of its own is a scene without hard edges

FINE = 4096  # points of the spectrum of repetition: 0.00024 cycles/px apart
CLEAR_GRID = 7.5  # times the median of the spectrum
NEAR = (0.75, 1.3)  # times the factor that the edges tell
BLOCK_PX = 8  # ITU T.81: a JPEG repeats every 8 px too
BLOCK_WIDTH = 0.004
CLEAR_BLOCKS = 4.0  # at odd multiples: enlarging twofold or fourfold gives even ones only


class Edges(NamedTuple):
    """Edges between two flat areas, with one value of each for every edge.

    How wide it is (px, straight across), how far brightness goes beyond its two sides (in steps from one to the other;
    NaN: not known), and how straight on it was crossed (cosine).
    """

    width: Curve
    overshoot: Curve
    cosine: Curve


def edge_factor(plane: Plane) -> float | None:
    """By how much a picture's brightness (h, w), 0 to 255, was enlarged; 1 for not at all.

    None where its edges do not tell: they are few, or somewhat soft without a trace of an old grid.
    """
    flat, few_colours = _flatness(plane)
    plane = _stretched(plane)
    both = zip(edges_along_rows(plane), edges_along_rows(cv2.transpose(plane)), strict=True)
    edges = Edges(*(np.concatenate(pair) for pair in both))
    if len(edges.width) < LEAST_EDGES:
        return 1.0 if flat > ALL_FLAT and few_colours else None
    if flat < LEAST_FLAT or not few_colours:
        return _factor_of_photo(plane, edges)
    if _sharpest(edges.width) < LEAST_FACTOR * OWN_WIDTH:
        return 1.0
    factor = _factor_by_edges(edges)
    return _grid_near(plane, factor) or factor


def _factor_of_photo(plane: Plane, edges: Edges) -> float | None:
    """Much in a photo is soft by itself, and a lens makes all edges soft alike; enlarging leaves them unlike.

    An edge that lay between two old px comes out narrower than one that ran through a px. So where the widths of edges
    differ more than a blur leaves them, and the sharpest are wide, the picture was enlarged.
    """
    sharpest, typical = (float(width) for width in np.percentile(edges.width, [SHARPEST_IN_PHOTO, 50]))
    if sharpest < LEAST_WIDTH_IN_PHOTO:
        return 1.0
    if len(edges.width) < LEAST_EDGES_IN_PHOTO:
        return None
    grain = _grain(plane[:GRAIN_PX, :GRAIN_PX])
    if grain >= LEAST_GRAIN and sharpest > SOFT_WITH_GRAIN:
        return None
    grainy = grain >= MUCH_GRAIN
    spread = typical / sharpest
    enlarged = SCENE_SPREAD > spread > np.interp(sharpest, *(SPREAD_WITH_GRAIN if grainy else SPREAD_OF_A_BLUR))
    factor = _factor_by_edges_and_energy(sharpest, typical, energy_ends(plane))
    return _grid_near(plane, factor, NEAR_IN_PHOTO, CLEAR_GRID_IN_PHOTO) or (factor if enlarged else None)


def _factor_by_edges_and_energy(sharpest: float, typical: float, ends: Ends) -> float:
    """Edges tell too much of a picture that was soft before, energy depends on how it was enlarged: each errs apart."""
    edges = sharpest**SHARPEST_POWER * typical**TYPICAL_POWER
    return float(AT_ONE * edges * ends.fades**FADES_POWER * ends.share**ENDS_POWER)


def _grain(plane: Plane) -> float:
    """The deviation of noise from px to px, 0 to 255 (Immerkaer 1996, "Fast noise variance estimation", median)."""
    answer = cv2.filter2D(plane, cv2.CV_32F, np.array([[1, -2, 1], [-2, 4, -2], [1, -2, 1]], np.float32))
    return float(np.median(np.abs(answer))) / (6 * 0.6745)


def _factor_by_edges(edges: Edges) -> float:
    crossing = edges.cosine <= ALONG_GRID
    if crossing.sum() < max(LEAST_EDGES, LEAST_CROSSING * len(crossing)):
        return _sharpest(edges.width) / ALONG_GRID_WIDTH
    width, overshoot = edges.width[crossing], edges.overshoot[crossing]
    half = float(np.median(width))
    typical = np.nanmedian(np.append(overshoot[width <= half], HALF_WIDTHS[0][0]))
    for most, half_width in HALF_WIDTHS:
        if typical < most:
            return half / half_width
    return _sharpest(width) / SHARP_WIDTH


def _sharpest(width: Curve) -> float:
    return float(np.percentile(width, SHARPEST))


def _flatness(plane: Plane) -> tuple[float, bool]:
    """The share of px in flat areas, and whether these are of a few colours, as in a logo, not of many, as in a sky."""
    around = np.ones((5, 5), np.uint8)
    flat = plane[cv2.dilate(plane, around) - cv2.erode(plane, around) < FLAT_AREA]
    levels = np.sort(np.bincount((flat / LEVEL).astype(np.intp), minlength=FEW_LEVELS))
    return flat.size / plane.size, bool(levels[-FEW_LEVELS:].sum() >= MOST_OF_IT * flat.size)


def _stretched(plane: Plane) -> Plane:
    """As much from dark to light as black on white has, so that the edges of pale marks count."""
    low, high = np.percentile(plane[::SAMPLED], [0.2, 99.8])
    return plane * np.float32(min(MOST_STRETCH, max(1.0, 255 / (high - low + 1e-6))))


def edges_along_rows(plane: Plane) -> Edges:
    """All edges that rows of a picture (h, w), 0 to 255, cross nearly straight on."""
    every = max(1, len(plane) // ROWS_LOOKED_AT)
    rows = np.ascontiguousarray(plane[::every])
    values = rows.ravel()
    start, end = _between_flat_areas(rows)
    kept = np.abs(values[end] - values[start - 1]) > LEAST_STEP
    start, end = start[kept], end[kept]
    if not len(start):
        return Edges(*np.zeros((3, 0)))
    length, step = end - start, values[end] - values[start - 1]
    places, first = _spread(start, end)
    risen = (values[places] - np.repeat(values[start - 1], length)) / np.repeat(step, length)
    inside = np.clip(risen, 0, 1)
    width = np.add.reduceat(4 * inside * (1 - inside), first)  # of a straight ramp two thirds of its length
    cosine = _straightness(plane, every, places, first)
    kept = (_way(risen, first) < MOST_WAY) & (cosine > NEARLY_STRAIGHT)
    overshoot = _overshoot(values, start, end, rows.shape[1])
    return Edges((width * cosine)[kept], overshoot[kept], cosine[kept])


def _between_flat_areas(rows: Plane) -> tuple[Places, Places]:
    """Where in the flattened rows runs of px that are not flat start, and the px after each."""
    across = rows.shape[1]
    around = np.ones((1, 5), np.uint8)
    flat = cv2.dilate(rows, around) - cv2.erode(rows, around) < FLAT_NEAR
    flat[:, :2] = flat[:, -2:] = True  # no run goes over the end of a row
    turns = np.diff(flat.ravel().astype(np.int8))
    start, end = np.flatnonzero(turns == -1) + 1, np.flatnonzero(turns == 1) + 1
    short = (end - start < LONGEST_EDGE_PX) & (start % across > 2) & (end % across < across - 2)
    return start[short], end[short]


def _spread(start: Places, end: Places) -> tuple[Places, Places]:
    """All places of runs one after the other, and where in that list each run begins."""
    length = end - start
    first = np.cumsum(length) - length
    return np.arange(length.sum()) + np.repeat(start - first, length), first


def _way(risen: Curve, first: Places) -> Curve:
    """How far each run goes up and down in all, in steps."""
    steps = np.abs(np.diff(risen, append=1.0))
    last = np.append(first[1:], len(risen)) - 1
    steps[last] = np.abs(1 - risen[last])
    return np.asarray(np.abs(risen[first]) + np.add.reduceat(steps, first), dtype=np.float64)


def _straightness(plane: Plane, every: int, places: Places, first: Places) -> Curve:
    """The cosine of the angle between the row and the direction in which each run changes most."""
    along, upright = (np.abs(cv2.Sobel(plane, cv2.CV_32F, *way))[::every].ravel() for way in ((1, 0), (0, 1)))
    along, upright = np.add.reduceat(along[places], first), np.add.reduceat(upright[places], first)
    return np.asarray(along / (np.hypot(along, upright) + 1e-9), dtype=np.float64)


def _overshoot(values: Plane, start: Places, end: Places, across: int) -> Curve:
    """How far brightness goes beyond both sides of each edge, in steps; NaN where something else is near."""
    near = np.minimum(2 * (end - start), LONGEST_EDGE_PX)
    row = start // across * across
    left, right = np.maximum(start - near, row), np.minimum(end + near, row + across)
    places, first = _spread(left, right)
    high, low = (extreme.reduceat(values[places], first) for extreme in (np.maximum, np.minimum))
    before, after = values[left], values[right - 1]
    step = np.abs(after - before)
    over = (high - low - step) / 2 / np.maximum(step, 1)
    alone = (np.abs(before - values[start - 1]) < FLAT_NEAR) & (np.abs(after - values[end]) < FLAT_NEAR)
    return np.asarray(np.where(alone, over, np.nan), dtype=np.float64)


def _grid_near(
    plane: Plane, factor: float, near: tuple[float, float] = NEAR, clear: float = CLEAR_GRID
) -> float | None:
    """The factor near this one that the old grid stands for; None where it does not show clearly.

    The grid's frequency is the share, 1 / factor, or its mirror image.
    """
    spectrum = _repetition(plane) + _repetition(cv2.transpose(plane))
    spectrum /= np.median(spectrum) + 1e-9
    frequency = np.arange(len(spectrum)) / FINE
    of_blocks = _of_blocks(spectrum, frequency)
    best, share = clear, None
    for mirrored in (False, True):
        shares = 1 - frequency if mirrored else frequency
        asked = (shares > 1 / (factor * near[1])) & (shares < 1 / (factor * near[0])) & ~of_blocks
        if asked.any() and spectrum[asked].max() > best:
            best, share = float(spectrum[asked].max()), float(shares[asked][np.argmax(spectrum[asked])])
    return 1 / share if share else None


def _of_blocks(spectrum: Curve, frequency: Curve) -> NDArray[np.bool_]:
    """Which frequencies are those of a JPEG's blocks; none where no blocks are seen."""
    multiple = np.round(frequency * BLOCK_PX)
    of_blocks = np.abs(frequency - multiple / BLOCK_PX) < BLOCK_WIDTH
    odd = [spectrum[of_blocks & (multiple == number)].max() for number in (1, 3)]
    return of_blocks if min(odd) > CLEAR_BLOCKS else np.zeros_like(of_blocks)


def _repetition(plane: Plane) -> Curve:
    """Spectrum of the mean second difference of the px of edges, across columns."""
    second = np.abs(2 * plane[:, 1:-1] - plane[:, :-2] - plane[:, 2:])
    active = second > 1
    some = second[::SAMPLED][active[::SAMPLED]]
    if not some.size:
        return np.ones(FINE // 2 + 1)
    second = np.minimum(second, np.percentile(some, 70))
    count = cv2.dilate(active.astype(np.uint8), np.ones((1, 9), np.uint8)).sum(axis=0)
    seen = (count >= 4).astype(np.float64)
    columns = np.log(second.sum(axis=0) / np.maximum(count, 1) + 1e-2) * seen
    around = cv2.GaussianBlur(columns[None], (0, 0), 8)[0] / np.maximum(
        cv2.GaussianBlur(seen[None], (0, 0), 8)[0], 1e-6
    )
    columns = (columns - around) * seen
    return np.asarray(np.abs(np.fft.rfft(columns * np.hanning(len(columns)), FINE)), dtype=np.float64)
