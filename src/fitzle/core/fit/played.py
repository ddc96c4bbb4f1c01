"""The frames of a loop as they are watched on a screen: small, and a few together, so that the first is there soon."""

from __future__ import annotations

import math

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.fit.loop import Loop

PLAYED_FPS = 12.5
MOST_PLAYED_PX = 60_000_000  # of all frames: a screen holds them, 240 MB
MOST_TOGETHER = 16


def played_frames(period: float) -> int:
    """How many frames of a loop of so many seconds are watched."""
    return max(2, round(period * PLAYED_FPS))


def played_strip(loop: Loop, width: int, first: int, count: int) -> Pixels:
    """(count * h, w, 4): frames from number `first` on, one below the other; of long loops less wide than asked.

    Raises ValueOutOfRange for frames that there are none of.
    """
    all_of_them = played_frames(loop.period)
    if not (0 <= first < all_of_them and 1 <= count <= MOST_TOGETHER):
        raise ValueOutOfRange("there are no such frames", expected=f"0 to {all_of_them - 1}", actual=str(first))
    numbers = range(first, min(all_of_them, first + count))
    wide = _width(loop, width, all_of_them)
    return np.concatenate([loop.picture(loop.period * number / all_of_them, wide) for number in numbers])


def _width(loop: Loop, width: int, count: int) -> int:
    natural = loop.plan.size
    most = math.sqrt(MOST_PLAYED_PX / count * natural.width / natural.height)
    return max(1, min(width, natural.width, int(most)))
