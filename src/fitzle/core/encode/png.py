"""PNG: lossless where it fits, else a palette, else a palette of a smoothed picture."""

from __future__ import annotations

import io
from typing import Any

from fitzle.core.encode.indexed_png import indexed_png
from fitzle.core.encode.line import Exact, Line
from fitzle.core.encode.palette import LAST_STEP, colours_at, palette_picture, step_of
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import Lossless, PaletteSettings

OPTIMISER_LEVEL = 2  # 4 and more saves at most 4 % for 5 to 8 times the time
DEFLATE_LEVEL = 10  # of palettes: 11 takes 1.5 to 1.9 times as long for at most 3 % of the bytes
QUICK_OPTIMISER_LEVEL = 1
QUICK_DEFLATE_LEVEL = 8
DRAFT_DEFLATE_LEVEL = 7  # within 3 % of 8 in a third of the time
ROUGH_DEFLATE_LEVEL = 4  # of what is only weighed, whether it is far over its limit
QUICK_FROM_PIXELS = 4_000_000  # at level 2 a picture of 16 megapixels takes longer than a whole search may
HURRY = 0.9  # a palette packed well weighs 0.86 to 0.98 of one packed roughly


def encode_png(raster: Raster, settings: Lossless | PaletteSettings) -> bytes:
    """A PNG without metadata."""
    if isinstance(settings, Lossless):
        return lossless_png(raster)
    picture = palette_picture(raster, settings)
    well = QUICK_DEFLATE_LEVEL if _large(raster) else DEFLATE_LEVEL
    return indexed_png(picture.indices, picture.colours, DRAFT_DEFLATE_LEVEL if raster.rough else well)


def lossless_png(raster: Raster, *, full_colour: bool = False) -> bytes:
    """The smallest PNG with exactly these pixels; `full_colour` keeps 32 bits a pixel, as ICO entries need."""
    import oxipng

    colours = oxipng.ColorType.rgb() if raster.opaque and not full_colour else oxipng.ColorType.rgba()
    pixels = raster.pixels if full_colour else raster.bands
    raw = oxipng.RawImage(pixels.tobytes(), raster.width, raster.height, color_type=colours)
    if raster.rough and not raster.drawn:
        return _roughly(raw)
    reduce = not full_colour
    return bytes(
        raw.create_optimized_png(
            level=QUICK_OPTIMISER_LEVEL if raster.rough or _large(raster) else OPTIMISER_LEVEL,
            bit_depth_reduction=reduce,
            color_type_reduction=reduce,
            palette_reduction=reduce,
            grayscale_reduction=reduce,
        )
    )


def _roughly(raw: Any) -> bytes:
    """At most 1.15 times as heavy as it gets, in a tenth of the time: photos, whose rows Paeth's filter suits."""
    import oxipng

    deflate = oxipng.Deflaters.libdeflater(ROUGH_DEFLATE_LEVEL)
    return bytes(raw.create_optimized_png(level=0, filter=[oxipng.RowFilter.Paeth], deflate=deflate))


def _large(raster: Raster) -> bool:
    return bool(raster.width * raster.height >= QUICK_FROM_PIXELS)


def plain_png(pixels: Any) -> bytes:
    """A quick PNG of (h, w, 4) pixels for previews and ICO entries."""
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG", compress_level=3)
    return out.getvalue()


def _line(dither: float, *, smoothed: bool = False, low_of_photos: int = 0) -> Line:
    return Line(
        "png",
        f"{'smoothed ' if smoothed else ''}palette, dither {dither:g}",
        0,
        LAST_STEP,
        lambda step: PaletteSettings(colours=colours_at(step), dither=dither, smoothed=smoothed),
        encode_png,
        HURRY,
        QUICK_FROM_PIXELS,
        low_of_photos,
    )


PNG_EXACT = Exact("png", Lossless(), lossless_png)
# Photos of fewer colours look better smoothed than dithered: of 9, under 5 limits each, dithering won from 99 colours.
FEWEST_DITHERED = step_of(24)
PNG_LINES = (
    _line(0.0),
    _line(1.0, low_of_photos=FEWEST_DITHERED),
    _line(0.0, smoothed=True),
)  # in a hurry the first has to do
