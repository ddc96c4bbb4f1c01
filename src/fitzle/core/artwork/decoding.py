"""From the bytes of a bitmap to a vips image, at the decoder's own smaller sizes. Loads neither numpy nor pydantic."""

from __future__ import annotations

from concurrent.futures import Future
from contextlib import suppress
from threading import Thread
from typing import Any

from fitzle.core.artwork.header import Header, read_header
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.pillow_formats import OPENED_BY_PILLOW, decoded_by_pillow
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.errors import FitzleError
from fitzle.core.libvips import libvips

OVERVIEW_LONG_SIDE_PX = 2560  # the first reading of a file is at least this large: twice the usual 1280


def decoding_factor(shrink: float, whole: int = 2) -> int:
    """The largest power of two up to 8 that leaves at least `whole` times the wanted size."""
    factor = 1
    while factor < 8 and factor * 2 * whole <= shrink:
        factor *= 2
    return factor


def overview_factor(width: float, height: float) -> int:
    """The factor of the first reading of a picture, in px."""
    return decoding_factor(max(width, height) / OVERVIEW_LONG_SIDE_PX, whole=1)


def decoded(data: bytes, fmt: str, upright: bool = True, factor: int = 1) -> Any:
    """A vips image in sRGB with 3 or 4 bands, upright, read from top to bottom (not all at once).

    A JPEG is read at 1/factor of its size (1, 2, 4 or 8); other formats whole.
    """
    pyvips = libvips()
    if fmt in OPENED_BY_PILLOW:
        image = decoded_by_pillow(data, fmt)
    else:
        options = {"shrink": factor} if fmt == "jpeg" and factor > 1 else {}
        image = pyvips.Image.new_from_buffer(data, "", access="sequential", fail_on="error", **options)
    if not upright:
        image = image.copy_memory().autorot()
    if image.get_typeof("icc-profile-data"):
        image = image.icc_transform("srgb", embedded=True, intent="relative")
    if image.interpretation != "srgb":
        image = image.colourspace("srgb")
    if image.format != "uchar":
        image = image.cast("uchar")
    return image


class Ahead:
    """The overview of a bitmap, decoded by a thread of its own while what looks at it is still being loaded."""

    def __init__(self, data: bytes, fmt: str, header: Header) -> None:
        self._factor = overview_factor(header.width, header.height)
        self._found: Future[Any] = Future()
        Thread(target=self._decode, args=(data, fmt, header.orientation == 1), daemon=True).start()

    def image(self, factor: int) -> Any:
        """The vips image at this factor; None for another one, and where decoding failed: trying again says why."""
        return self._found.result() if factor == self._factor else None

    def _decode(self, data: bytes, fmt: str, upright: bool) -> None:
        image = None
        try:
            with suppress(libvips().Error, FitzleError, MemoryError):
                image = decoded(data, fmt, upright, self._factor).copy_memory()
        finally:  # whatever happens: who waits for it would wait for ever
            self._found.set_result(image)


def decoded_ahead(data: bytes, limits: Limits = DEFAULT_LIMITS) -> Ahead | None:
    """Begins to decode a JPEG; None for anything else and for what cannot be opened: reading it says why."""
    if len(data) > limits.max_bytes or sniff_format(data) != "jpeg":
        return None
    try:
        return Ahead(data, "jpeg", read_header(data, "jpeg", limits))
    except FitzleError:
        return None
