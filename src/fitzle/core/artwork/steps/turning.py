"""Turned, mirrored, straightened pixels."""

from __future__ import annotations

import math

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.straight import premultiplied, straight


def turned(pixels: Pixels, quarters: int) -> Pixels:
    """Quarter turns clockwise."""
    return np.ascontiguousarray(np.rot90(pixels, -quarters))


def mirrored(pixels: Pixels, across: str) -> Pixels:
    """Left and right exchanged, or top and bottom."""
    return np.ascontiguousarray(pixels[:, ::-1] if across == "left and right" else pixels[::-1])


def straightened(pixels: Pixels, degrees: float) -> Pixels:
    """Turned by a few degrees clockwise.

    An opaque picture is cut to the largest window of its own shape without empty corners; a clear one grows, so that
    nothing of a mark is lost.
    """
    if not degrees:
        return pixels
    height, width = pixels.shape[:2]
    opaque = bool(pixels[..., 3].min() == 255)
    out = inner_size(width, height, degrees) if opaque else outer_size(width, height, degrees)
    size = (max(1, round(out[0])), max(1, round(out[1])))
    matrix = cv2.getRotationMatrix2D(((width - 1) / 2, (height - 1) / 2), -degrees, 1.0)
    matrix[:, 2] += [(size[0] - width) / 2, (size[1] - height) / 2]
    border = cv2.BORDER_REPLICATE if opaque else cv2.BORDER_CONSTANT
    moved = cv2.warpAffine(premultiplied(pixels), matrix, size, flags=cv2.INTER_CUBIC, borderMode=border)
    return straight(np.minimum(moved, moved[..., 3:]).astype(np.uint8))


def inner_size(width: float, height: float, degrees: float) -> tuple[float, float]:
    """The largest upright window of the picture's own shape inside the turned picture, in px.

    A window (kw, kh) turned back by the angle must lie in (w, h): k (w cos + h sin) <= w and k (w sin + h cos) <= h.
    """
    sine, cosine = abs(math.sin(math.radians(degrees))), abs(math.cos(math.radians(degrees)))
    share = min(width / (width * cosine + height * sine), height / (width * sine + height * cosine))
    return width * share, height * share


def outer_size(width: float, height: float, degrees: float) -> tuple[float, float]:
    """The smallest upright box around the turned picture, in px."""
    sine, cosine = abs(math.sin(math.radians(degrees))), abs(math.cos(math.radians(degrees)))
    return width * cosine + height * sine, width * sine + height * cosine
