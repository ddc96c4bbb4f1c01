"""A picture made smaller by leaving tiles out: what remains keeps its own px, so that codecs treat it alike.

A scaled copy has finer structure than its original and gives other bytes and other scores for the same quality.
"""

from __future__ import annotations

import math
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray

TILE_PX = 64  # a multiple of every codec's block; smaller tiles make the seams count, larger ones miss details

Pixels = TypeVar("Pixels", bound=NDArray[np.uint8])


def tiled(pixels: Pixels, most_pixels: int) -> Pixels:
    """(h, w, n) with evenly spread tiles alone, about `most_pixels` px together; itself where it is no larger."""
    height, width = pixels.shape[:2]
    if height * width <= most_pixels:
        return pixels
    factor = math.sqrt(most_pixels / (height * width))
    rows, columns = _kept(height, factor), _kept(width, factor)
    return pixels[rows][:, columns]  # type: ignore[return-value]


def _kept(length: int, factor: float) -> NDArray[np.intp]:
    """The places along one side that are kept: whole tiles, spread evenly from the first to the last."""
    count = length // TILE_PX
    if count < 2:
        return np.arange(length)
    wanted = min(count, max(1, round(count * factor)))
    tiles = np.rint((np.arange(wanted) + 0.5) * count / wanted - 0.5).astype(np.intp)  # at least one apart
    return (tiles[:, None] * TILE_PX + np.arange(TILE_PX)).ravel()
