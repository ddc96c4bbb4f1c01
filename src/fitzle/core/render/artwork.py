"""Pictures and marks to pixels: on whole px, tinted, recoloured, cut to a shape."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from fitzle.core.artwork.recolour import recoloured
from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.geometry.fitting import snapped
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import PlacedArtwork, PlacedDie
from fitzle.core.render.pixel_grid import on_pixel_grid
from fitzle.core.render.skia_paths import skia_colour, skia_path
from fitzle.core.units import Size

LARGEST_ON_GRID_PX = 192  # a proof of an icon drawn larger has no px that an edge could miss, and costs a second


def draw_artwork(canvas: Any, part: PlacedArtwork, source: Source, scale: float, size: Size) -> None:
    """Draws the part on a canvas in px of the screen or file; `scale` is that of the plan."""
    import skia

    turned = part.look.rotation != 0
    box, window = (part.box.scaled(scale), part.window) if turned else on_whole_px(part, scale, size)
    pixels = artwork_pixels(source, part, window, Size(max(1, round(box.width)), max(1, round(box.height))))
    image = skia.Image.fromarray(pixels, skia.kRGBA_8888_ColorType, alphaType=skia.kPremul_AlphaType, copy=False)
    paint = skia.Paint(AntiAlias=True)
    if part.tint:
        paint.setColorFilter(skia.ColorFilters.Blend(skia_colour(part.tint), skia.BlendMode.kSrcIn))
    if part.die:
        _draw_in_die(canvas, part.die, image, box, scale, paint)
    else:
        _draw_image(canvas, image, box, paint)


def artwork_pixels(source: Source, part: PlacedArtwork, window: Rect, size: Size) -> Pixels:
    """The window of the artwork at this size, recoloured: (height, width, 4), premultiplied."""
    fitted = part.grid and max(size) <= LARGEST_ON_GRID_PX
    pixels = on_pixel_grid(source, window, size) if fitted else source.pixels(window, size)
    if part.recolour:
        pixels = recoloured(pixels, part.palette, part.recolour)
    return np.ascontiguousarray(pixels)


def _draw_image(canvas: Any, image: Any, box: Rect, paint: Any) -> None:
    """The image in a box; pixel by pixel where the box lies on whole px."""
    import skia

    if (round(box.x), round(box.y), image.width(), image.height()) == tuple(box):
        canvas.drawImage(image, box.x, box.y, skia.SamplingOptions(), paint)
    else:
        canvas.drawImageRect(image, _rect(box), skia.SamplingOptions(skia.FilterMode.kLinear), paint)


def _draw_in_die(canvas: Any, die: PlacedDie, image: Any, box: Rect, scale: float, paint: Any) -> None:
    """The shape in a layer and the picture inside it; a shader in the shape measured 60 times slower."""
    import skia

    path = skia_path(die.path.scaled(scale))
    if die.fill:
        canvas.drawPath(path, skia.Paint(Color=skia_colour(die.fill), AntiAlias=True))
    canvas.saveLayer(path.getBounds().makeOutset(1, 1))
    canvas.drawPath(path, skia.Paint(AntiAlias=True))
    # What the picture does not cover must go too, so the picture comes as a layer of its own.
    canvas.saveLayer(None, skia.Paint(BlendMode=skia.BlendMode.kSrcIn))
    _draw_image(canvas, image, box, paint)
    canvas.restore()
    canvas.restore()
    if die.border:
        draw_border(canvas, path, die.border.width_px * scale, die.border.colour)


def draw_border(canvas: Any, path: Any, width_px: float, colour: str) -> None:
    """A line inside an outline: twice as wide, the outer half clipped away."""
    import skia

    canvas.save()
    canvas.clipPath(path, doAntiAlias=True)
    line = skia.Paint(Color=skia_colour(colour), AntiAlias=True, Style=skia.Paint.kStroke_Style)
    line.setStrokeWidth(2 * width_px)
    canvas.drawPath(path, line)
    canvas.restore()


def _rect(box: Rect) -> Any:
    import skia

    return skia.Rect.MakeXYWH(*box)


def on_whole_px(part: PlacedArtwork, scale: float, size: Size) -> tuple[Rect, Rect]:
    """The box on whole pixels and the window that belongs to exactly that box.

    A bitmap's box is rounded, in a die outwards so that the die is filled; a vector's is widened to the pixels it
    touches and its window with it, so that the mark itself stays where the plan put it to a fraction of a pixel.
    """
    box = part.box.scaled(scale)
    if part.die and not part.vector:
        left, top = math.floor(box.x), math.floor(box.y)
        return Rect(left, top, math.ceil(box.right) - left, math.ceil(box.bottom) - top), part.window
    if not part.vector:
        inside = box.x >= 0 and box.y >= 0 and box.right <= size.width and box.bottom <= size.height
        frame = Rect(0, 0, size.width, size.height) if inside else box.inset(-1)
        return snapped(box, frame), part.window
    left, top = math.floor(box.x + 1e-6), math.floor(box.y + 1e-6)
    right, bottom = math.ceil(box.right - 1e-6), math.ceil(box.bottom - 1e-6)
    across, down = part.window.width / box.width, part.window.height / box.height
    outer = Rect(left, top, max(1, right - left), max(1, bottom - top))
    window = Rect(
        part.window.x - (box.x - left) * across,
        part.window.y - (box.y - top) * down,
        outer.width * across,
        outer.height * down,
    )
    return outer, window
