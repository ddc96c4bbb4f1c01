"""Formats that libvips does not read, opened by Pillow or by libheif: header first, pixels only when asked for."""

from __future__ import annotations

import io
from typing import Any

from fitzle.core.artwork.unreadable import unreadable
from fitzle.core.libvips import libvips

OPENED_BY_PILLOW = ("bmp", "ico", "heic")
# What Pillow's readers and libheif's binding let through on damaged files, found by mutating files.
COMPLAINTS = (
    OSError,
    EOFError,
    ValueError,
    SyntaxError,
    RuntimeError,
    LookupError,
    TypeError,
    MemoryError,
    OverflowError,
)


def opened(data: bytes, fmt: str) -> Any:
    """The picture, not decoded yet (a Pillow image); of an icon the largest entry. Raises ArtworkError."""
    from PIL import Image

    try:
        if fmt == "heic":
            import pi_heif

            # libheif turns and mirrors by itself: what comes out is upright.
            return pi_heif.open_heif(io.BytesIO(data), convert_hdr_to_8bit=True)
        return Image.open(io.BytesIO(data), formats=[fmt.upper()])
    except (*COMPLAINTS, Image.DecompressionBombError) as error:
        raise unreadable(error) from error


def size_of(data: bytes, fmt: str) -> tuple[int, int]:
    """Upright width and height in px. Raises ArtworkError."""
    try:
        width, height = opened(data, fmt).size
    except COMPLAINTS as error:
        raise unreadable(error) from error
    return int(width), int(height)


def decoded_by_pillow(data: bytes, fmt: str) -> Any:
    """A vips image with 3 or 4 bands, with the colour profile of the file where it has one. Raises ArtworkError."""
    import numpy as np
    from PIL import Image

    pyvips = libvips()

    try:
        picture = opened(data, fmt)
        profile = picture.info.get("icc_profile")
        if fmt == "heic":
            picture = picture.to_pillow()
        picture = picture.convert("RGBA" if _has_alpha(picture) else "RGB")
        pixels = np.asarray(picture)
    except (*COMPLAINTS, Image.DecompressionBombError) as error:
        raise unreadable(error) from error
    image = pyvips.Image.new_from_array(pixels).copy(interpretation="srgb")
    if profile:
        image = image.copy()
        image.set_type(pyvips.GValue.blob_type, "icc-profile-data", profile)
    return image


def _has_alpha(picture: Any) -> bool:
    return "A" in picture.getbands() or "transparency" in picture.info
