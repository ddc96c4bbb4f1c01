"""All encoders. A new one is a module of lines and its entry below; what its format can hold stands in core.formats."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any, NamedTuple

from fitzle.core.encode.avif import AVIF_LINES, encode_avif
from fitzle.core.encode.bmp import BMP_EXACT, encode_bmp
from fitzle.core.encode.gif import GIF_LINES, encode_gif
from fitzle.core.encode.ico import encode_ico, icon_entries
from fitzle.core.encode.jpeg import JPEG_LINES, encode_jpeg
from fitzle.core.encode.line import Exact, Line
from fitzle.core.encode.png import PNG_EXACT, PNG_LINES, encode_png
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.settings import (
    AvifSettings,
    IconEntry,
    JpegSettings,
    Lossless,
    LossySettings,
    Outlines,
    PaletteSettings,
    Settings,
    Uncompressed,
)
from fitzle.core.encode.webp import WEBP_EXACT, WEBP_LINES, encode_webp
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.formats import Format, label_of


class Encoder(NamedTuple):
    """What one format offers: exact files of what is rendered, the best readable first, and lines.

    `encode` makes the file that settings, of one of the kinds in `told`, stand for.
    """

    exact: Callable[[Rendered], list[Exact]]
    lines: tuple[Line, ...]
    encode: Callable[[Rendered, Any], bytes]
    told: tuple[type, ...]


def _none(_rendered: Rendered) -> list[Exact]:
    return []


def _of_raster(encode: Callable[[Raster, Any], bytes]) -> Callable[[Rendered, Any], bytes]:
    return lambda rendered, settings: encode(rendered.raster, settings)


def _drawn_webp(rendered: Rendered) -> list[Exact]:
    """Of a photo a lossless WebP would take long and be too heavy."""
    return [WEBP_EXACT] if rendered.raster.drawn else []


def _icons(rendered: Rendered) -> list[Exact]:
    return [Exact("ico", entry, partial(encode_ico, settings=entry)) for entry in icon_entries(rendered.raster)]


def _bmp(rendered: Rendered, _settings: Uncompressed) -> bytes:
    return encode_bmp(rendered.raster)


ENCODERS: dict[Format, Encoder] = {
    "png": Encoder(lambda _rendered: [PNG_EXACT], PNG_LINES, _of_raster(encode_png), (Lossless, PaletteSettings)),
    "jpeg": Encoder(_none, JPEG_LINES, _of_raster(encode_jpeg), (JpegSettings,)),
    "webp": Encoder(_drawn_webp, WEBP_LINES, _of_raster(encode_webp), (Lossless, LossySettings)),
    "avif": Encoder(_none, AVIF_LINES, _of_raster(encode_avif), (AvifSettings,)),
    "gif": Encoder(_none, GIF_LINES, _of_raster(encode_gif), (PaletteSettings,)),
    "bmp": Encoder(lambda _rendered: [BMP_EXACT], (), _bmp, (Uncompressed,)),
    "ico": Encoder(_icons, (), _of_raster(encode_ico), (IconEntry,)),
    "svg": Encoder(
        lambda _rendered: [Exact("svg", Outlines(), None)],
        (),
        lambda rendered, _settings: rendered.svg,
        (Outlines,),
    ),
}


def writable(fmt: Format) -> bool:
    """Whether files of this format can be written."""
    return fmt in ENCODERS


def encoded_as(rendered: Rendered, fmt: Format, settings: Settings) -> bytes:
    """The file that a candidate stood for: the same bytes for the same pixels.

    Raises ValueOutOfRange for settings that this format's encoders are never told.
    """
    if not isinstance(settings, ENCODERS[fmt].told):
        raise ValueOutOfRange(f"a {label_of(fmt)} is not told this", actual=settings.words)
    return ENCODERS[fmt].encode(rendered, settings)
