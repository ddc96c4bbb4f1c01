"""The size that the head of a file states, read without a decoder: some refuse a size of 0 or 65,535 without words."""

from __future__ import annotations

import struct

from fitzle.core.artwork.jpeg_segments import start_of_frame
from fitzle.core.units import Size


def stated_size(data: bytes, fmt: str) -> Size | None:
    """Width and height in px of a png, gif, bmp or jpeg; None for other formats, or where it is not found."""
    try:
        return _READERS[fmt](data) if fmt in _READERS else None
    except struct.error:
        return None


def _png(data: bytes) -> Size:
    return Size(*struct.unpack(">II", data[16:24]))


def _gif(data: bytes) -> Size:
    return Size(*struct.unpack("<HH", data[6:10]))


def _bmp(data: bytes) -> Size:
    width, height = struct.unpack("<ii", data[18:26])
    return Size(width, abs(height))  # a negative height: rows from the top


def _jpeg(data: bytes) -> Size | None:
    at = start_of_frame(data)
    if at is None:
        return None
    height, width = struct.unpack(">HH", data[at + 5 : at + 9])
    return Size(width, height)


_READERS = {"png": _png, "gif": _gif, "bmp": _bmp, "jpeg": _jpeg}
