"""What a bitmap's header says: size, orientation, frames. Nothing is decoded."""

from __future__ import annotations

from typing import NamedTuple

from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.pillow_formats import OPENED_BY_PILLOW, size_of
from fitzle.core.artwork.unreadable import unreadable
from fitzle.core.errors import ArtworkError, LimitError

_SIDEWAYS = {5, 6, 7, 8}  # EXIF 2.32, tag 0x0112: orientations that swap width and height
_PAGES = ("tiff", "avif")  # what else is in the file are pages or thumbnails, not moments


class Header(NamedTuple):
    """Upright width and height in px, the EXIF orientation and the number of frames."""

    width: int
    height: int
    orientation: int
    frames: int


def read_header(data: bytes, fmt: str, limits: Limits) -> Header:
    """The header, checked against the limits; raises ArtworkError or LimitError."""
    header = _pillow_header(data, fmt) if fmt in OPENED_BY_PILLOW else _vips_header(data, fmt)
    if header.width < 1 or header.height < 1:
        raise ArtworkError("the picture has no pixels", actual=f"{header.width} x {header.height}", expected="1 x 1")
    pixels = header.width * header.height
    if pixels > limits.max_pixels or max(header.width, header.height) > limits.max_side_px:
        raise LimitError(
            f"the picture is too large: {header.width} x {header.height} px ({pixels / 1e6:.0f} megapixels)",
            advice=f"At most {limits.max_pixels / 1e6:.0f} megapixels are taken. Export it smaller.",
        )
    if header.frames > limits.max_frames:
        raise LimitError(f"the animation has {header.frames} frames", advice=f"At most {limits.max_frames} are taken.")
    return header


def _vips_header(data: bytes, fmt: str) -> Header:
    import pyvips

    try:
        image = pyvips.Image.new_from_buffer(data, "", access="sequential")
    except pyvips.Error as error:
        raise unreadable(error) from error
    orientation = int(image.get("orientation")) if image.get_typeof("orientation") else 1
    frames = int(image.get("n-pages")) if image.get_typeof("n-pages") and fmt not in _PAGES else 1
    width, height = image.width, image.height
    if orientation in _SIDEWAYS:
        width, height = height, width
    return Header(width, height, orientation, frames)


def _pillow_header(data: bytes, fmt: str) -> Header:
    width, height = size_of(data, fmt)
    return Header(width, height, 1, 1)
