"""Pixels made smaller, never larger."""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels


def at_most(pixels: Pixels, long_side_px: int) -> Pixels:
    """Pixels (h, w, bands) whose longer side is at most this; the very same where they are as small already."""
    height, width = pixels.shape[:2]
    scale = long_side_px / max(height, width)
    if scale >= 1:
        return pixels
    size = (max(1, round(width * scale)), max(1, round(height * scale)))
    return np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
