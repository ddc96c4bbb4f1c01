"""What lies behind everything: solid, gradient, picture or pattern."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from functools import lru_cache
from typing import Any

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.geometry.fitting import fill_window, whole_box
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.piece.fills import Fill, Gradient, Pattern, PictureFill
from fitzle.core.render.skia_paths import paint_of, skia_colour
from fitzle.core.units import Size

SHARP_SIGMA_PX = 3.0  # a picture blurred by more than that is drawn smaller first: nobody can tell
MOST_TILES = 4000  # of a pattern
KEPT_GRADIENTS, KEPT_UP_TO_PIXELS = 6, 1_000_000  # at most 24 MB


def draw_ground(canvas: Any, fill: Fill | None, sources: Mapping[str, Source], size: Size) -> None:
    """Fills a canvas of this size in px of the screen or file."""
    whole = Rect(0, 0, size.width, size.height)
    if isinstance(fill, PictureFill):
        _draw_picture(canvas, fill, sources[fill.artwork], size)
    elif isinstance(fill, Pattern):
        _draw_pattern(canvas, fill, sources[fill.artwork], size)
    elif isinstance(fill, Gradient) and size.width * size.height <= KEPT_UP_TO_PIXELS:
        canvas.drawImage(_kept_gradient(fill, size), 0, 0)
    elif fill is not None:
        canvas.drawPaint(paint_of(fill, whole))


@lru_cache(maxsize=KEPT_GRADIENTS)
def _kept_gradient(fill: Gradient, size: Size) -> Any:
    """A gradient as an image: while a piece is worked on its ground is drawn again and again, at 12 ms a time."""
    import skia

    surface = skia.Surface.MakeRaster(skia.ImageInfo.MakeN32Premul(size.width, size.height))
    surface.getCanvas().drawPaint(paint_of(fill, Rect(0, 0, size.width, size.height)))
    return surface.makeImageSnapshot()


def _draw_picture(canvas: Any, fill: PictureFill, source: Source, size: Size) -> None:
    import skia

    pixels = picture_pixels(fill, source, size)
    image = skia.Image.fromarray(pixels, skia.kRGBA_8888_ColorType, alphaType=skia.kPremul_AlphaType, copy=False)
    canvas.drawImage(image, 0, 0, skia.SamplingOptions())
    if fill.overlay:
        canvas.drawColor(skia_colour(fill.overlay.colour, fill.overlay.opacity))


def picture_pixels(fill: PictureFill, source: Source, size: Size) -> Pixels:
    """The picture filling the size, blurred: (height, width, 4), premultiplied."""
    natural = Rect(0, 0, source.width, source.height)
    window = fill_window(natural, size.ratio, Point(fill.focal_point.x, fill.focal_point.y), fill.zoom)
    sigma = fill.blur * size.short_side
    factor = max(1.0, sigma / SHARP_SIGMA_PX)
    small = Size(max(1, round(size.width / factor)), max(1, round(size.height / factor)))
    pixels = source.pixels(window, small)
    if sigma:
        pixels = cv2.GaussianBlur(pixels, (0, 0), sigma / factor, borderType=cv2.BORDER_REPLICATE)
        pixels = cv2.resize(pixels, size, interpolation=cv2.INTER_CUBIC)
        pixels = np.minimum(pixels, pixels[..., 3:])
    return np.ascontiguousarray(pixels)


def _draw_pattern(canvas: Any, fill: Pattern, source: Source, size: Size) -> None:
    import skia

    if fill.colour:
        canvas.drawColor(skia_colour(fill.colour))
    tile = fill.size * size.short_side
    box = whole_box(source.width / source.height, Rect(-tile / 2, -tile / 2, tile, tile))
    drawn = Size(max(1, round(box.width)), max(1, round(box.height)))
    pixels = np.ascontiguousarray(source.pixels(Rect(0, 0, source.width, source.height), drawn))
    image = skia.Image.fromarray(pixels, skia.kRGBA_8888_ColorType, alphaType=skia.kPremul_AlphaType, copy=False)
    paint = skia.Paint(AntiAlias=True, Alphaf=fill.opacity)
    if fill.tint:
        paint.setColorFilter(skia.ColorFilters.Blend(skia_colour(fill.tint), skia.BlendMode.kSrcIn))
    canvas.save()
    canvas.translate(size.width / 2, size.height / 2)
    canvas.rotate(fill.rotation)
    canvas.translate(fill.offset * pattern_step(fill, size), 0)
    for x, y in pattern_places(fill, size):
        place = skia.Rect.MakeXYWH(x + box.x, y + box.y, box.width, box.height)
        canvas.drawImageRect(image, place, skia.SamplingOptions(skia.FilterMode.kLinear), paint)
    canvas.restore()


def pattern_step(fill: Pattern, size: Size) -> float:
    """From the middle of one tile to that of the next, in px."""
    return fill.size * (1 + fill.spacing) * size.short_side


def pattern_places(fill: Pattern, size: Size) -> Iterator[tuple[float, float]]:
    """The middles of the tiles about the picture's middle, before turning; at most MOST_TILES, the inner ones."""
    step = pattern_step(fill, size)
    reach = math.hypot(size.width, size.height) / 2 + step
    count = min(math.ceil(reach / step), int(math.sqrt(MOST_TILES) / 2))
    for row in range(-count, count + 1):
        shift = step / 2 if fill.staggered and row % 2 else 0.0
        for column in range(-count, count + 1):
            yield column * step + shift, row * step
