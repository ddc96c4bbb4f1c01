"""Draws a plan with skia on the CPU. Rendering asks no questions: everything was decided in the plan."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

import numpy as np

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.geometry.fitting import snapped
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.planning import PlacedArtwork, Plan
from fitzle.core.units import Size


def paint(plan: Plan, sources: Mapping[str, Source], width_px: int | None = None) -> Pixels:
    """The picture of a plan: (height, width, 4) uint8, sRGB, straight alpha.

    With `width_px` the same plan is drawn at another width, for previews.
    """
    import skia

    scale = width_px / plan.size.width if width_px else 1.0
    size = Size(max(1, round(plan.size.width * scale)), max(1, round(plan.size.height * scale)))
    surface = skia.Surface.MakeRaster(skia.ImageInfo.MakeN32Premul(size.width, size.height))
    canvas = surface.getCanvas()
    canvas.clear(_skia_colour(plan.ground) if plan.ground else skia.ColorTRANSPARENT)
    for part in plan.artworks:
        _draw(canvas, part, sources[part.artwork], scale, size)
    pixels = np.empty((size.height, size.width, 4), dtype=np.uint8)
    info = skia.ImageInfo.Make(size.width, size.height, skia.kRGBA_8888_ColorType, skia.kUnpremul_AlphaType)
    surface.readPixels(info, pixels, size.width * 4, 0, 0)
    return pixels


def _draw(canvas: Any, part: PlacedArtwork, source: Source, scale: float, size: Size) -> None:
    import skia

    box, window = _grid(part, scale, size)
    whole = Size(round(box.width), round(box.height))
    pixels = np.ascontiguousarray(source.pixels(window, whole))
    image = skia.Image.fromarray(pixels, skia.kRGBA_8888_ColorType, alphaType=skia.kPremul_AlphaType, copy=False)
    paint_with = skia.Paint()
    if part.tint:
        paint_with.setColorFilter(skia.ColorFilters.Blend(_skia_colour(part.tint), skia.BlendMode.kSrcIn))
    canvas.drawImage(image, round(box.x), round(box.y), skia.SamplingOptions(), paint_with)


def _grid(part: PlacedArtwork, scale: float, size: Size) -> tuple[Rect, Rect]:
    """The box on whole pixels and the window that belongs to exactly that box.

    A bitmap's box is rounded; a vector's is widened to the pixels it touches and its window with it, so that the
    mark itself stays where the plan put it to a fraction of a pixel.
    """
    box = part.box.scaled(scale)
    if not part.vector:
        return snapped(box, Rect(0, 0, size.width, size.height)), part.window
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


def _skia_colour(hex_code: str) -> int:
    import skia

    return int(skia.Color(*parse_hex(hex_code)))
