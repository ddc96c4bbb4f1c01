"""JPEG: three encoders at two resolutions of colour compete (facts/encoding.md); alpha must have been flattened."""

from __future__ import annotations

import io
from typing import Any

from fitzle.core.encode.line import Line
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import Chroma, JpegEncoder, JpegSettings

HIGHEST_QUALITY = 95
LOWEST_QUALITY = 5
LOW_LIMIT_TABLE = 3  # of mozjpeg's quantisation tables: wins where a limit is very low, loses at high quality


def encode_jpeg(raster: Raster, settings: JpegSettings) -> bytes:
    """A progressive JPEG without metadata."""
    return _ENCODERS[settings.encoder](raster, settings)


def _jpegli(raster: Raster, settings: JpegSettings) -> bytes:
    import pyjpegli

    return bytes(pyjpegli.encode(raster.rgb, raster.width, raster.height, settings.quality))


def _libjpeg(raster: Raster, settings: JpegSettings) -> bytes:
    from PIL import Image

    out = io.BytesIO()
    subsampling = 0 if settings.chroma == "4:4:4" else 2
    picture = Image.fromarray(raster.rgb)
    picture.save(out, "JPEG", quality=settings.quality, subsampling=subsampling, optimize=True, progressive=True)
    return out.getvalue()


def _mozjpeg(raster: Raster, settings: JpegSettings) -> bytes:
    options: dict[str, Any] = {"trellis_quant": True}
    if settings.smallest:
        options |= {"overshoot_deringing": True, "optimize_scans": True, "quant_table": LOW_LIMIT_TABLE}
    return bytes(
        raster.vips.extract_band(0, n=3).jpegsave_buffer(
            Q=settings.quality,
            subsample_mode="off" if settings.chroma == "4:4:4" else "on",
            optimize_coding=True,
            interlace=True,
            keep="none",
            **options,
        )
    )


_ENCODERS = {"jpegli": _jpegli, "libjpeg": _libjpeg, "mozjpeg": _mozjpeg}


def _line(encoder: JpegEncoder, chroma: Chroma, *, smallest: bool = False) -> Line:
    def settings(quality: int) -> JpegSettings:
        return JpegSettings(encoder=encoder, chroma=chroma, quality=quality, smallest=smallest)

    return Line(
        "jpeg",
        f"{encoder} {chroma}{' smallest' if smallest else ''}",
        LOWEST_QUALITY,
        HIGHEST_QUALITY,
        settings,
        encode_jpeg,
    )


JPEG_LINES = (
    _line("jpegli", "4:2:0"),
    _line("mozjpeg", "4:4:4"),
    _line("mozjpeg", "4:2:0", smallest=True),
    _line("libjpeg", "4:4:4"),
)
