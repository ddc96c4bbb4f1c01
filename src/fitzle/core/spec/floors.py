"""The least that a file of a size can weigh: that of a flat picture, below which a limit is one that nothing meets.

Measured with Pillow 12 at 64² to 4096² px, smallest settings, rounded down: the picture of one colour that compresses
best of all. BMP is written with 24 bits a pixel.
"""

from __future__ import annotations

import math

from fitzle.core.formats import Format
from fitzle.core.units import Size

# Bytes of an empty file, and bytes for each pixel. GIF and ICO need more of them at 256 px than at 4096.
_FLOORS: dict[Format, tuple[int, float]] = {
    "png": (67, 1 / 8256),
    "apng": (67, 1 / 8256),
    "jpeg": (159, 1 / 260),
    "webp": (30, 1 / 25_500),
    "avif": (300, 1 / 36_000),
    "gif": (35, 1 / 1260),
    "bmp": (54, 3.0),
    "ico": (85, 1 / 330),
    "svg": (60, 0.0),
    "lottie": (100, 0.0),
    "mp4": (900, 1 / 60_000),
    "webm": (450, 1 / 60_000),
}


def least_bytes(fmt: Format, size: Size) -> int:
    """What the lightest file of this format and size in px weighs, in bytes."""
    empty, each = _FLOORS[fmt]
    return empty + math.floor(each * size.width * size.height)
