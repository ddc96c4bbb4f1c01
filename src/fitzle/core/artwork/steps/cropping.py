"""Windows: what a crop leaves, and what is left once the margins are trimmed."""

from __future__ import annotations

import numpy as np

from fitzle.core.artwork import measuring
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.document import Window

LEAST_PX = 1


def cropped(pixels: Pixels, window: Window) -> Pixels:
    """The window, on whole pixels, at least one."""
    height, width = pixels.shape[:2]
    left, top = min(round(window.x * width), width - 1), min(round(window.y * height), height - 1)
    right = min(width, max(left + LEAST_PX, round((window.x + window.width) * width)))
    bottom = min(height, max(top + LEAST_PX, round((window.y + window.height) * height)))
    return np.ascontiguousarray(pixels[top:bottom, left:right])


def contents_window(pixels: Pixels, tolerance: float) -> Window | None:
    """The window of what is neither clear nor like a single-coloured margin; None where nothing or all of it is.

    `tolerance` in fractions of 255, for alpha and for the difference of any channel from the margin's colour.
    """
    step = round(tolerance * 255)
    if pixels[..., 3].min() < 255:
        shown = pixels[..., 3] > max(step, measuring.VISIBLE_ALPHA)
    else:
        backdrop = measuring.backdrop_colour(pixels)
        if backdrop is None:
            return None
        shown = measuring.shown_mask(pixels, backdrop, step)
    across, down = np.flatnonzero(shown.any(axis=0)), np.flatnonzero(shown.any(axis=1))
    if not len(across):
        return None
    height, width = shown.shape
    left, top = int(across[0]), int(down[0])
    return Window(
        x=left / width,
        y=top / height,
        width=(int(across[-1]) + 1 - left) / width,
        height=(int(down[-1]) + 1 - top) / height,
    )
