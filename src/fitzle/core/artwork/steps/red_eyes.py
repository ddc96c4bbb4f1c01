"""Red pupils made dark.

Within the circle of an eye, px whose red stands out get the mean of green and blue instead; glints, which are bright
and grey, are left.
"""

from __future__ import annotations

from collections.abc import Iterable

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.document import Eye

REDNESS = (1.35, 1.8)  # red against the larger of green and blue: from there it is taken down, and wholly
LEAST_RED = 60  # of 255; what is darker shows no colour
FADE_SHARE = 0.15  # of the radius


def without_red_eyes(pixels: Pixels, eyes: Iterable[Eye]) -> Pixels:
    """Pixels (h, w, 4) with the pupils within the circles freed of red."""
    out = pixels.copy()
    height, width = pixels.shape[:2]
    for eye in eyes:
        radius = max(1.0, eye.radius * min(width, height))
        x, y = eye.x * width, eye.y * height
        left, right = max(0, int(x - radius)), min(width, int(x + radius) + 1)
        top, bottom = max(0, int(y - radius)), min(height, int(y + radius) + 1)
        if left < right and top < bottom:
            _darken(out[top:bottom, left:right], (x - left, y - top), radius)
    return out


def _darken(part: Pixels, middle: tuple[float, float], radius: float) -> None:
    colour = part[..., :3].astype(np.float32)
    red, others = colour[..., 0], colour[..., 1:].max(axis=-1)
    low, high = REDNESS
    amount = np.clip((red / np.maximum(others, 1) - low) / (high - low), 0, 1) * (red >= LEAST_RED)
    rows, columns = np.mgrid[: part.shape[0], : part.shape[1]]
    away = np.hypot(columns + 0.5 - middle[0], rows + 0.5 - middle[1])
    amount = cv2.blur((amount * np.clip((radius - away) / (FADE_SHARE * radius), 0, 1)).astype(np.float32), (3, 3))
    dark = colour[..., 1:].mean(axis=-1)
    part[..., 0] = np.rint(red + amount * (dark - red)).astype(np.uint8)
