"""A hash of how a picture looks: the same picture in another size or quality differs in few bits of it.

The difference hash (Krawetz 2013, "Kind of like that"): brightness of 9 x 8 px, each bit says whether it falls to the
right. Clear parts count as mid-grey, so that a mark is told by its shape.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.artwork.straight import straight
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

ACROSS, DOWN = 9, 8
FINER = 16  # times as many px are drawn, and averaged
BEHIND = 128
ALIKE_BITS = 5  # of 64; the same photo at a tenth of the size and JPEG quality 40 differs in at most 4
ALIKE_RATIO = 0.02  # of the shape; another crop is another picture
LEAST_STEP = 2  # of 255: even areas say nothing, and noise must not decide


def likeness(pixels: Pixels) -> str:
    """The hash of a picture (h, w, 4), straight alpha, as 16 hex digits."""
    alpha = pixels[..., 3:].astype(np.float32) / 255
    shown = pixels[..., :3] * alpha + BEHIND * (1 - alpha)
    grey = cv2.cvtColor(shown.astype(np.float32), cv2.COLOR_RGB2GRAY)
    small = cv2.resize(grey, (ACROSS, DOWN), interpolation=cv2.INTER_AREA)
    bits = (small[:, :-1] - small[:, 1:] > LEAST_STEP).ravel()
    return f"{int(''.join('1' if bit else '0' for bit in bits), 2):016x}"


def small_picture(source: Source) -> Pixels:
    """A picture small enough to be hashed, straight alpha."""
    whole = Rect(0, 0, source.width, source.height)
    return straight(source.pixels(whole, Size(ACROSS * FINER, DOWN * FINER)))


def differing_bits(one: str, other: str) -> int:
    """In how many of its 64 bits a hash differs from another."""
    return (int(one, 16) ^ int(other, 16)).bit_count()


def near_hashes(one: str, all_hashes: NDArray[np.uint64]) -> list[int]:
    """The places of those hashes that differ from one (16 hex digits) in few enough bits, itself among them.

    All are compared, 64 bits at a time: a million take a hundredth of a second, so that no index is needed.
    """
    bits = np.bitwise_count(all_hashes ^ np.uint64(int(one, 16)))
    return [int(place) for place in np.flatnonzero(bits <= ALIKE_BITS)]


def are_alike(one: str, other: str, ratios: tuple[float, float]) -> bool:
    """Whether two pictures, by their hashes and shapes (width by height), show the same."""
    first, second = ratios
    same_shape = abs(first - second) <= ALIKE_RATIO * max(first, second)
    tells = int(one, 16) not in (0, 2**64 - 1)  # an even picture has no likeness
    return bool(tells and same_shape and differing_bits(one, other) <= ALIKE_BITS)
