"""Pictures inside an SVG: PNG and JPEG as they are; WebP and GIF, which the renderer leaves out, made into PNG."""

from __future__ import annotations

import base64
import binascii
import re
from typing import Any

from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.formats import label_of
from fitzle.core.libvips import libvips

MOST_PIXELS = 25_000_000  # a quarter of what a file of its own may have
_DATA_PICTURE = re.compile(r"data:image/[\w.+-]+;base64,(.*)", re.S | re.I)
_DRAWN, _TURNED = ("png", "apng", "jpeg"), ("webp", "gif")
_ADVICE = "Embed it as PNG or JPEG, or remove it."


def embedded_picture(address: str) -> str | None:
    """The address to draw in the place of one that carries a picture; None for one that carries none.

    Raises ArtworkError where the picture cannot be read or is of another kind, LimitError where it is too large.
    """
    found = _DATA_PICTURE.fullmatch(address)
    if not found:
        return None
    data = _decoded(found[1])
    fmt = sniff_format(data)
    if fmt not in (*_DRAWN, *_TURNED):
        what = f"is kept as {label_of(fmt)}" if fmt else "cannot be read"
        raise ArtworkError(f"a picture in this SVG {what}", advice=_ADVICE)
    png = _checked(data, made_png=fmt in _TURNED)
    return f"data:image/png;base64,{base64.b64encode(png).decode()}" if png else address


def _decoded(text: str) -> bytes:
    try:
        return base64.b64decode(re.sub(r"\s+", "", text), validate=True)
    except (binascii.Error, ValueError) as error:
        raise ArtworkError("a picture in this SVG cannot be read", advice=_ADVICE) from error


def _checked(data: bytes, *, made_png: bool) -> bytes | None:
    pyvips = libvips()
    try:
        image: Any = pyvips.Image.new_from_buffer(data, "", access="sequential")
        if image.width * image.height > MOST_PIXELS:
            raise LimitError(
                f"a picture in this SVG is too large: {image.width} x {image.height} px",
                advice=f"At most {MOST_PIXELS // 1_000_000} megapixels are taken inside an SVG. Embed a smaller one.",
            )
        return bytes(image.pngsave_buffer(compression=3)) if made_png else None
    except pyvips.Error as error:
        raise ArtworkError("a picture in this SVG cannot be read", advice=_ADVICE) from error
