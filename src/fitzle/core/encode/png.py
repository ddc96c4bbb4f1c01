"""PNG: lossless where it fits, else a palette, else a palette of a smoothed picture."""

from __future__ import annotations

import io
from functools import partial
from typing import Any

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.picture import Picture
from fitzle.core.encode.result import Attempt, Encoded, Search, best_of
from fitzle.core.libvips import libvips

OPTIMISER_LEVEL = 2  # 4 and more saves at most 4 % for 5 to 8 times the time
HIGHEST_QUALITY, LOWEST_QUALITY = 100, 1
DITHERS = (0.0, 0.5, 1.0)
GOOD_SCORE = 70.0
SMOOTHING_PX, SMOOTHING_COLOUR = 7, 30  # bilateral filter: diameter in px, range in 1/255


def encode_png(picture: Picture, limit: int | None) -> Search:
    """The best-looking PNG of at most `limit` bytes."""
    lossless = Encoded(lossless_png(picture), "png", "lossless", 100.0)
    tried = [lossless.attempt]
    if limit is None or len(lossless.data) <= limit:
        return Search(lossless, tried)
    found: list[Encoded] = []
    for dither in DITHERS:  # the less dither, the smaller the file
        entry = _palette(picture, picture.vips, limit, dither, "palette", tried)
        if not entry:
            break
        found.append(entry)
    best = best_of(found)
    if best is None or best.score < GOOD_SCORE:
        smoothed = _palette(picture, _smoothed(picture), limit, 0.0, "palette of the smoothed picture", tried)
        best = best_of([entry for entry in (best, smoothed) if entry])
    return Search(best, tried)


def lossless_png(picture: Picture, *, full_colour: bool = False) -> bytes:
    """The smallest PNG with exactly these pixels; `full_colour` keeps 32 bits a pixel, as ICO entries need."""
    import oxipng

    colours = oxipng.ColorType.rgb() if picture.opaque and not full_colour else oxipng.ColorType.rgba()
    pixels = picture.pixels if full_colour else picture.bands
    raw = oxipng.RawImage(pixels.tobytes(), picture.width, picture.height, color_type=colours)
    reduce = not full_colour
    return bytes(
        raw.create_optimized_png(
            level=OPTIMISER_LEVEL,
            bit_depth_reduction=reduce,
            color_type_reduction=reduce,
            palette_reduction=reduce,
            grayscale_reduction=reduce,
        )
    )


def _palette(
    picture: Picture, image: Any, limit: int, dither: float, words: str, tried: list[Attempt]
) -> Encoded | None:
    found, settings = largest_under(
        partial(_quantised, image, dither), limit, LOWEST_QUALITY, HIGHEST_QUALITY, lowest_first=True
    )
    tried += [
        Attempt("png", f"{words}, quality {entry.position}, dither {dither:g}", len(entry.data)) for entry in settings
    ]
    if not found:
        return None
    settings_words = f"{words}, quality {found.position}, dither {dither:g}"
    return Encoded(found.data, "png", settings_words, picture.score(found.data))


def _quantised(image: Any, dither: float, quality: int) -> bytes:
    import oxipng

    data = image.pngsave_buffer(palette=True, Q=quality, dither=dither, effort=1, compression=6, keep="none")
    return bytes(oxipng.optimize_from_memory(data, level=OPTIMISER_LEVEL))


def _smoothed(picture: Picture) -> Any:
    import cv2

    pyvips = libvips()
    smooth = cv2.bilateralFilter(picture.rgb, SMOOTHING_PX, SMOOTHING_COLOUR, SMOOTHING_PX)
    bands = smooth if picture.opaque else with_alpha(smooth, picture.pixels[..., 3])
    return pyvips.Image.new_from_array(bands).copy(interpretation="srgb")


def plain_png(pixels: Any) -> bytes:
    """A quick PNG of (h, w, 4) pixels for previews and ICO entries."""
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(pixels).save(out, "PNG", compress_level=3)
    return out.getvalue()
