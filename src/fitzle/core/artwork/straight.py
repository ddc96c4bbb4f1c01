"""Premultiplied to straight alpha."""

from __future__ import annotations

import numpy as np

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size


def straight(pixels: Pixels) -> Pixels:
    """(h, w, 4) premultiplied as (h, w, 4) with straight alpha, rounded to the nearest."""
    if pixels[..., 3].min() == 255:
        return pixels
    alpha = pixels[..., 3:].astype(np.uint16)
    colour = np.minimum(255, (pixels[..., :3].astype(np.uint16) * 255 + alpha // 2) // np.maximum(alpha, 1))
    return np.concatenate([colour, alpha], axis=-1).astype(np.uint8)


def whole_picture(source: Source) -> Pixels:
    """All of a source at its natural size, straight alpha."""
    size = Size(max(1, round(source.width)), max(1, round(source.height)))
    return straight(source.pixels(Rect(0, 0, source.width, source.height), size))


def premultiplied(pixels: Pixels) -> Pixels:
    """(h, w, 4) with straight alpha as premultiplied, rounded to the nearest."""
    if pixels[..., 3].min() == 255:
        return pixels
    alpha = pixels[..., 3:].astype(np.uint16)
    colour = (pixels[..., :3].astype(np.uint16) * alpha + 127) // 255
    return np.concatenate([colour, alpha], axis=-1).astype(np.uint8)
