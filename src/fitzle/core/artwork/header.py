"""What a bitmap's header says: size, orientation, frames. Nothing is decoded."""

from __future__ import annotations

from typing import NamedTuple

from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.pillow_formats import OPENED_BY_PILLOW, size_of
from fitzle.core.artwork.png_frames import png_frames
from fitzle.core.artwork.stated_size import stated_size
from fitzle.core.artwork.unreadable import unreadable
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.libvips import libvips
from fitzle.core.units import Size

_SIDEWAYS = {5, 6, 7, 8}  # EXIF 2.32, tag 0x0112: orientations that swap width and height
# Decoded as a whole, and held twice while they are converted; an interlaced PNG is one of them.
DECODED_WHOLE = ("webp", "avif", "heic", "ico", "gif")
_PAGES = ("tiff", "avif")  # what else is in the file are pages or thumbnails, not moments


class Header(NamedTuple):
    """Upright width and height in px, the EXIF orientation, the number of frames, whether its rows come in passes."""

    width: int
    height: int
    orientation: int
    frames: int
    interlaced: bool = False


def read_header(data: bytes, fmt: str, limits: Limits) -> Header:
    """The header, checked against the limits; raises ArtworkError or LimitError."""
    stated = stated_size(data, fmt)
    if stated:
        _check_size(stated, limits.max_pixels, limits)
    header = _pillow_header(data, fmt) if fmt in OPENED_BY_PILLOW else _vips_header(data, fmt)
    most = limits.max_pixels_whole if fmt in DECODED_WHOLE or header.interlaced else limits.max_pixels
    _check_size(Size(header.width, header.height), min(most, limits.max_pixels), limits)
    if header.frames > limits.max_frames:
        raise LimitError(f"the animation has {header.frames} frames", advice=f"At most {limits.max_frames} are taken.")
    return header


def _check_size(size: Size, most_pixels: int, limits: Limits) -> None:
    if min(size) < 1:
        raise ArtworkError(
            f"the picture has no pixels: it says {size.width} x {size.height} px", advice="Export it again."
        )
    pixels = size.width * size.height
    if pixels > most_pixels:
        raise LimitError(
            f"the picture is too large: {size.width} x {size.height} px ({pixels / 1e6:.0f} megapixels)",
            advice=f"At most {most_pixels / 1e6:.0f} megapixels are taken of this kind. Export it smaller.",
        )
    if max(size) > limits.max_side_px:
        raise LimitError(
            f"the picture is too long: {size.width} x {size.height} px",
            advice=f"At most {limits.max_side_px} px on a side are taken. Export it smaller.",
        )


def _vips_header(data: bytes, fmt: str) -> Header:
    pyvips = libvips()
    try:
        image = pyvips.Image.new_from_buffer(data, "", access="sequential")
    except pyvips.Error as error:
        raise unreadable(error) from error
    orientation = int(image.get("orientation")) if image.get_typeof("orientation") else 1
    frames = int(image.get("n-pages")) if image.get_typeof("n-pages") and fmt not in _PAGES else 1
    width, height = image.width, image.height
    if orientation in _SIDEWAYS:
        width, height = height, width
    if fmt == "png":
        frames = png_frames(data)
    interlaced = fmt == "png" and bool(image.get_typeof("interlaced"))
    return Header(width, height, orientation, frames, interlaced)


def _pillow_header(data: bytes, fmt: str) -> Header:
    width, height = size_of(data, fmt)
    return Header(width, height, 1, 1)
