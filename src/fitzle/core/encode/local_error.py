"""Where a file lost most: SSIM's error in luma, at half the size, averaged over blocks."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.encode.ssimulacra2 import luma_error
from fitzle.core.geometry.rect import Rect

BLOCK_PX = 16  # of the picture
SHOWS = 0.012  # of 1: a file that cannot be told from its original has less everywhere
FULL = 0.09  # from there on a block is painted at its strongest
CURVE = 0.7  # below 1: small errors are told apart better
COLOUR = (214, 58, 36)
MOST_ALPHA = 190  # of 255: what is underneath stays to be seen
WORST_SHARE = 1 / 4  # of each side of the picture


def local_error(one: NDArray[np.uint8], other: NDArray[np.uint8]) -> NDArray[np.float32]:
    """The mean error, 0 to 1, of each block of two pictures (h, w, 3) of one size: (h / 16, w / 16), rounded up."""
    error = luma_error(one, other)
    height, width = (-(-side // BLOCK_PX) for side in one.shape[:2])
    return np.asarray(cv2.resize(error, (width, height), interpolation=cv2.INTER_AREA), dtype=np.float32)


def worst_area(errors: NDArray[np.float32]) -> Rect:
    """The part of the picture, in fractions of it, where most was lost."""
    height, width = errors.shape
    tall, wide = max(1, round(height * WORST_SHARE)), max(1, round(width * WORST_SHARE))
    mean = cv2.boxFilter(errors, -1, (wide, tall), anchor=(0, 0), borderType=cv2.BORDER_CONSTANT)
    valid = mean[: height - tall + 1, : width - wide + 1]
    row, column = np.unravel_index(int(np.argmax(valid)), valid.shape)
    return Rect(float(column) / width, float(row) / height, wide / width, tall / height)


def painted(errors: NDArray[np.float32]) -> NDArray[np.uint8]:
    """The errors as a veil (h, w, 4) to be laid over the picture: the stronger, the worse."""
    share = np.clip((errors - SHOWS) / (FULL - SHOWS), 0, 1) ** CURVE
    veil = np.empty((*errors.shape, 4), np.uint8)
    veil[..., :3] = COLOUR
    veil[..., 3] = np.rint(share * MOST_ALPHA)
    return veil
