"""WebP: lossless for drawn pictures where it fits, else lossy."""

from __future__ import annotations

import io

from fitzle.core.encode.line import Exact, Line
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import Lossless, LossySettings

HIGHEST_QUALITY, LOWEST_QUALITY = 95, 1
EFFORT = 6  # a twelfth more time than 4, and a fourteenth fewer bytes
LARGE_PIXELS = 4_000_000  # from there on a search would otherwise take longer than it may:
QUICK_EFFORT = 2  # a third of the time, two in a hundred bytes more; and colour is halved plainly, in a third too


def encode_webp(raster: Raster, settings: Lossless | LossySettings) -> bytes:
    """A WebP without metadata."""
    return lossless_webp(raster) if isinstance(settings, Lossless) else _lossy(raster, settings.quality)


def _lossy(raster: Raster, quality: int) -> bytes:
    quick = raster.width * raster.height >= LARGE_PIXELS
    effort = QUICK_EFFORT if quick else EFFORT
    return bytes(raster.vips.webpsave_buffer(Q=quality, effort=effort, smart_subsample=not quick, keep="none"))


def lossless_webp(raster: Raster) -> bytes:
    """A WebP with exactly these pixels."""
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(raster.bands).save(out, "WEBP", lossless=True, quality=80, method=4)
    return out.getvalue()


WEBP_EXACT = Exact("webp", Lossless(), lossless_webp)
WEBP_LINES = (
    Line(
        "webp",
        "lossy",
        LOWEST_QUALITY,
        HIGHEST_QUALITY,
        lambda quality: LossySettings(quality=quality),
        encode_webp,
    ),
)
