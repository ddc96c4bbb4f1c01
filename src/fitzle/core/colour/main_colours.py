"""The few colours that make up a picture, with their shares."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from fitzle.core.colour.oklab import oklab
from fitzle.core.colour.srgb import Rgb, to_hex
from fitzle.core.findings import Frozen

SAME_COLOUR = 0.055  # OKLab distance below which two colours are counted as one; tuned on flat marks and photos
LEAST_SHARE = 0.01
MOST_COLOURS = 8
_CANDIDATES = 4096  # distinct colours looked at, most frequent first; the rest are noise


class ColourShare(Frozen):
    """A colour and the fraction of the counted pixels that have it."""

    hex: str
    share: float


def main_colours(
    pixels: NDArray[np.uint8],
    weights: NDArray[np.float64] | None = None,
    least_share: float = LEAST_SHARE,
    most: int = MOST_COLOURS,
) -> tuple[ColourShare, ...]:
    """Main colours of sRGB pixels (n, 3), the largest share first.

    Greedy merging in OKLab: the most frequent colour takes in all others within `SAME_COLOUR`, so a flat colour
    is reported exactly as it is in the file. `weights` (n,) counts a pixel less, for example by its alpha. At most
    `most` colours, each of at least `least_share`.
    """
    if len(pixels) == 0:
        return ()
    codes = pixels.astype(np.uint32) @ np.array([65536, 256, 1], dtype=np.uint32)
    distinct, inverse = np.unique(codes, return_inverse=True)
    counts = np.bincount(inverse, weights=weights).astype(np.float64)
    order = np.argsort(counts)[::-1][:_CANDIDATES]
    colours = np.stack([distinct[order] >> 16, (distinct[order] >> 8) & 255, distinct[order] & 255], axis=1)
    shares = _merged(colours.astype(np.uint8), counts[order], 4 * most)
    return tuple(entry for entry in shares if entry.share >= least_share)[:most]


def _merged(colours: NDArray[np.uint8], counts: NDArray[np.float64], most: int) -> list[ColourShare]:
    total = float(counts.sum()) or 1.0
    lab = oklab(colours)
    free = np.ones(len(colours), dtype=bool)
    shares: list[ColourShare] = []
    while free.any() and len(shares) < most:
        leader = int(np.argmax(free))
        near = free & (np.linalg.norm(lab - lab[leader], axis=1) < SAME_COLOUR)
        share = float(counts[near].sum()) / total
        red, green, blue = (int(value) for value in colours[leader])
        shares.append(ColourShare(hex=to_hex(Rgb(red, green, blue)), share=round(share, 4)))
        free &= ~near
    return sorted(shares, key=lambda entry: -entry.share)
