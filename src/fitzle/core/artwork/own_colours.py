"""All colours of flat artwork: the main ones, and what fills places of its own however small its share.

A thin ring in a second colour on a large ground is less than a hundredth of all px, as are the mixtures along edges;
only the ring has px amid their own colour that are no mixture of others.
"""

from __future__ import annotations

from itertools import combinations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import largest_difference
from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.main_colours import SAME_COLOUR, ColourShare, main_colours
from fitzle.core.colour.oklab import oklab
from fitzle.core.colour.srgb import parse_hex

COUNTED = 2  # every second px in both directions is enough to count colours
EVEN_STEP = 8  # of 255, to the px beside
LEAST_PX = 24  # of a colour amid itself
LEAST_SHARE = 0.001
MOST_OWN = 16
_DIRECTIONS = ((0, 1), (1, 0), (1, 1), (1, -1))
MIXED_WITHIN = 16.0  # of 255; JPEG at quality 40 leaves mixtures up to 10 beside the straight line


def own_colours(pixels: Pixels) -> tuple[ColourShare, ...]:
    """Colours of straight pixels (h, w, 4) with their shares of what is not clear, the largest first."""
    shown = pixels[..., 3] >= 128
    counted = np.s_[::COUNTED, ::COUNTED]
    colours = pixels[counted][..., :3]
    main = main_colours(colours[shown[counted]])
    inner = colours[_amid_their_own(pixels, shown)[counted]]
    inner_share = len(inner) / max(int(shown[counted].sum()), 1)
    further = [
        entry.model_copy(update={"share": round(entry.share * inner_share, 4)})
        for entry in further_colours(inner, main, LEAST_PX / COUNTED**2)
    ]
    return (*main, *further)[:MOST_OWN]


def further_colours(
    inner: NDArray[np.uint8], main: tuple[ColourShare, ...], least_px: float = LEAST_PX
) -> list[ColourShare]:
    """Small colours of px amid their own (n, 3), beside the main ones; shares are those of the px given.

    What is a mixture of two others is what smoothing, a JPEG or a blur left between them.
    """
    least = max(LEAST_SHARE, least_px / max(len(inner), 1))
    found = [entry for entry in main_colours(inner, least_share=least, most=MOST_OWN) if _is_new(entry, main)]
    return [entry for entry in found if not _is_mixture(entry, [*main, *(one for one in found if one is not entry)])]


def _amid_their_own(pixels: Pixels, shown: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Px that show and have their like on two opposite sides: along a thin line there is no more."""
    kernel = np.ones((3, 3), np.uint8)
    inside = cv2.erode(shown.astype(np.uint8), kernel, borderType=cv2.BORDER_REPLICATE).astype(bool)
    bordered = np.pad(pixels[..., :3], ((1, 1), (1, 1), (0, 0)), mode="edge")
    height, width = shown.shape
    middle = bordered[1:-1, 1:-1]
    alike = np.zeros_like(shown)
    for down, across in _DIRECTIONS:
        one, other = (
            bordered[1 + way * down : 1 + way * down + height, 1 + way * across : 1 + way * across + width]
            for way in (1, -1)
        )
        alike |= (largest_difference(one, middle) <= EVEN_STEP) & (largest_difference(other, middle) <= EVEN_STEP)
    return np.asarray(inside & alike, dtype=bool)


def _is_new(entry: ColourShare, main: tuple[ColourShare, ...]) -> bool:
    lab = oklab(np.array([parse_hex(one.hex) for one in (entry, *main)], dtype=np.uint8))
    return bool((np.linalg.norm(lab[1:] - lab[0], axis=1) >= SAME_COLOUR).all())


def _is_mixture(entry: ColourShare, others: list[ColourShare]) -> bool:
    """Whether a colour lies between two others in sRGB, in which pictures are scaled and blurred."""
    own = np.array(parse_hex(entry.hex), dtype=np.float64)
    for one, other in combinations([np.array(parse_hex(known.hex), dtype=np.float64) for known in others], 2):
        across = other - one
        share = float(np.clip(np.dot(own - one, across) / max(np.dot(across, across), 1.0), 0, 1))
        if np.linalg.norm(own - one - share * across) <= MIXED_WITHIN:
            return True
    return False
