"""A picture as a plain file without any limit: what a person asked to be written down."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fitzle.core.errors import ValueOutOfRange
from fitzle.core.formats import format_named, format_of_extension

BEST_JPEG_QUALITY = 95
_SAVED = ("png", "jpeg", "webp")
_OPTIONS: dict[str, dict[str, Any]] = {
    "JPEG": {"quality": BEST_JPEG_QUALITY, "subsampling": 0},
    "WEBP": {"lossless": True},
}


def format_of(suffix: str) -> str:
    """Pillow's name of the format that a file's ending stands for; raises ValueOutOfRange for any other ending."""
    fmt = format_of_extension(suffix) if suffix else None
    if fmt not in _SAVED:
        expected = ", ".join(f".{format_named(name).extension}" for name in _SAVED)
        raise ValueOutOfRange("this ending stands for no picture", expected=expected, actual=repr(suffix))
    return str(format_named(fmt).pillow)


def picture_file(pixels: NDArray[np.uint8], suffix: str) -> bytes:
    """Pixels (h, w, 4), straight alpha, in the format that a file's ending names; on white where it has no alpha.

    Raises ValueOutOfRange for any other ending.
    """
    from PIL import Image

    fmt = format_of(suffix)
    picture = Image.fromarray(pixels)
    if fmt == "JPEG" or pixels[..., 3].min() == 255:
        white = Image.new("RGBA", picture.size, "white")
        picture = Image.alpha_composite(white, picture).convert("RGB")
    out = io.BytesIO()
    picture.save(out, fmt, **_OPTIONS.get(fmt, {}))
    return out.getvalue()
