"""Where a picture's subject probably is, told by what its border is like: a box to accept or to move.

Zhu, Liang, Wei and Sun 2014, "Saliency optimization from robust background detection" (CVPR), equations 1 to 8, on a
grid of cells in place of superpixels: a cell that is joined with much of the border, for the size of the area that it
is part of, is background; the others stand out by how they differ in colour from near background.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import dijkstra

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.oklab import oklab_picture
from fitzle.core.geometry.rect import Rect

Field = NDArray[np.float64]

CELLS = 32  # along the long side
SAME_COLOUR = 0.04  # OKLab: how far colours of one area differ
CONNECTED = 1.0  # the paper's sigma of boundary connectivity
NEAR = 0.25  # of the picture's longer side: the paper's sigma of distance
LEAST_CONTRAST = 0.02  # OKLab: below, nothing stands out
STRAY = 0.15  # of the largest area that stands out: smaller ones are no part of the subject
AIR = 0.1  # of the box, on each side
LARGEST_SHARE = 0.95  # of the picture: a box around everything tells nothing


def salient_box(pixels: Pixels) -> Rect | None:
    """The box (px) around what stands out of a picture (h, w, 4); None where nothing does."""
    height, width = pixels.shape[:2]
    long = max(height, width)
    size = (max(4, round(CELLS * width / long)), max(4, round(CELLS * height / long)))
    small = cv2.resize(np.ascontiguousarray(pixels[..., :3]), size, interpolation=cv2.INTER_AREA)
    shown = standing_out(oklab_picture(np.asarray(small, dtype=np.uint8)).astype(np.float64))
    if shown.max() < LEAST_CONTRAST:
        return None
    return _box_around(_largest_areas(shown), width, height)


def standing_out(lab: Field) -> Field:
    """How far each cell (h, w, 3) in OKLab stands out of the background: its weighted contrast (h, w), OKLab."""
    rows, columns = lab.shape[:2]
    colours = lab.reshape(-1, 3)
    apart = np.linalg.norm(colours[:, None] - colours[None], axis=2)
    background = _background(apart, rows, columns)
    y, x = np.divmod(np.arange(rows * columns), columns)
    away = np.hypot(y[:, None] - y[None], x[:, None] - x[None]) / max(rows, columns)
    weight = np.exp(-(away**2) / (2 * NEAR**2)) * background[None]
    contrast = (apart * weight).sum(axis=1) / (weight.sum(axis=1) + 1e-9)
    return np.asarray((contrast * (1 - background)).reshape(rows, columns), dtype=np.float64)


def _background(apart: Field, rows: int, columns: int) -> Field:
    """How surely each cell is background, 0 to 1, by its boundary connectivity (the paper's equations 3 to 6)."""
    span = np.exp(-(_geodesic(apart, rows, columns) ** 2) / (2 * SAME_COLOUR**2))
    border = np.zeros((rows, columns), dtype=bool)
    border[[0, -1]] = border[:, [0, -1]] = True
    connectivity = span[:, border.ravel()].sum(axis=1) / np.sqrt(span.sum(axis=1))
    return np.asarray(1 - np.exp(-(connectivity**2) / (2 * CONNECTED**2)), dtype=np.float64)


def _geodesic(apart: Field, rows: int, columns: int) -> Field:
    """The least change of colour on the way between any two cells; all cells of the border are neighbours."""
    number = np.arange(rows * columns).reshape(rows, columns)
    border = np.unique(np.concatenate([number[0], number[-1], number[:, 0], number[:, -1]]))
    steps = [
        (number[:, :-1], number[:, 1:]),
        (number[:-1], number[1:]),
        (number[:-1, :-1], number[1:, 1:]),
        (number[:-1, 1:], number[1:, :-1]),
        np.meshgrid(border, border),
    ]
    start = np.concatenate([one.ravel() for one, _ in steps])
    end = np.concatenate([other.ravel() for _, other in steps])
    kept = start != end
    start, end = start[kept], end[kept]
    order = np.unique(np.stack([np.minimum(start, end), np.maximum(start, end)]), axis=1)
    graph = coo_array((apart[order[0], order[1]] + 1e-9, (order[0], order[1])), shape=apart.shape)
    return np.asarray(dijkstra(graph.tocsr(), directed=False), dtype=np.float64)


def _largest_areas(shown: Field) -> NDArray[np.bool_]:
    """What stands out clearly (Otsu 1979), without strays."""
    scaled = np.rint(255 * shown / shown.max()).astype(np.uint8)
    _, clear = cv2.threshold(scaled, 0, 1, cv2.THRESH_BINARY + cv2.THRESH_OTSU)
    _, areas, stats, _ = cv2.connectedComponentsWithStats(clear, connectivity=8)
    sizes = stats[1:, cv2.CC_STAT_AREA]
    return np.asarray(np.isin(areas, 1 + np.flatnonzero(sizes >= STRAY * sizes.max())), dtype=bool)


def _box_around(mask: NDArray[np.bool_], width: int, height: int) -> Rect | None:
    rows, columns = (np.flatnonzero(mask.any(axis=axis)) for axis in (1, 0))
    cell_x, cell_y = width / mask.shape[1], height / mask.shape[0]
    left, right = columns[0] * cell_x, (columns[-1] + 1) * cell_x
    top, bottom = rows[0] * cell_y, (rows[-1] + 1) * cell_y
    across, down = AIR * (right - left), AIR * (bottom - top)
    left, top = max(0.0, left - across), max(0.0, top - down)
    right, bottom = min(float(width), right + across), min(float(height), bottom + down)
    box = Rect(left, top, right - left, bottom - top)
    return box if box.width * box.height < LARGEST_SHARE * width * height else None
