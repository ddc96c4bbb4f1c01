"""Bands of pixels: put together, and multiplied px by px, quicker than NumPy's own ways."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from fitzle.core.colour.srgb import Rgb

Bytes = NDArray[np.uint8]
Floats = NDArray[np.float32]


def with_alpha(colour: Bytes, alpha: Bytes) -> Bytes:
    """Colours (h, w, 3) and alpha (h, w) as pixels (h, w, 4); a third of the time of `np.dstack`."""
    import cv2

    out = np.empty((*alpha.shape, 4), np.uint8)
    own = [np.ascontiguousarray(colour), np.ascontiguousarray(alpha)]
    cv2.mixChannels(own, [out], [0, 0, 1, 1, 2, 2, 3, 3])
    return out


def dot(one: Floats, other: Floats) -> Floats:
    """The product of the vectors at each px, (…, 3) to (…); half the time of `np.einsum`."""
    return np.asarray((one * other) @ np.ones(3, np.float32), dtype=np.float32)


def largest_difference(one: Bytes, other: Bytes | Rgb) -> Bytes:
    """How far two pictures (h, w, 3), or a picture and a colour, are apart in the channel that differs most (h, w).

    Reducing an axis of three in NumPy takes ten times as long.
    """
    import cv2

    plain = (*other, 0) if isinstance(other, tuple) else np.ascontiguousarray(other)
    red, green, blue = cv2.split(cv2.absdiff(np.ascontiguousarray(one), plain))
    return np.asarray(cv2.max(cv2.max(red, green), blue), dtype=np.uint8)
