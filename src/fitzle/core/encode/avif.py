"""AVIF: full colour, which words need, or half of it; the larger the picture, the less time for each px."""

from __future__ import annotations

import io

from fitzle.core.encode.line import Line
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import AvifSettings, Chroma

HIGHEST_QUALITY, LOWEST_QUALITY = 95, 1
# Px up to which a speed of libaom's is taken: 6 has a sixth fewer bytes than 8 and takes five times as long.
SPEEDS = ((300_000, 6), (2_000_000, 8))
FASTEST = 10
ROUGH_SPEED = 8


def encode_avif(raster: Raster, settings: AvifSettings) -> bytes:
    """A still AVIF without metadata; one thread, so that every machine gives the same bytes."""
    from PIL import Image

    out = io.BytesIO()
    usual = next((speed for most, speed in SPEEDS if raster.width * raster.height <= most), FASTEST)
    speed = max(usual, ROUGH_SPEED) if raster.rough else usual
    picture = Image.fromarray(raster.bands)
    picture.save(out, "AVIF", quality=settings.quality, subsampling=settings.chroma, speed=speed, max_threads=1)
    return out.getvalue()


def _line(chroma: Chroma) -> Line:
    def settings(quality: int) -> AvifSettings:
        return AvifSettings(chroma=chroma, quality=quality)

    return Line(
        "avif",
        chroma,
        LOWEST_QUALITY,
        HIGHEST_QUALITY,
        settings,
        encode_avif,
    )


AVIF_LINES = (_line("4:4:4"), _line("4:2:0"))
