"""Outlines, colours and gradients in skia's terms."""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Any

from fitzle.core.colour.mixing import mixed_stops
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.geometry.path import Path
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.fills import Gradient, PaintFill, Solid
from fitzle.core.type.font_files import glyph_outline
from fitzle.core.type.setting import Layout

KEPT_GLYPHS = 4000


def skia_path(path: Path) -> Any:
    """An outline as a skia path."""
    import skia

    made = skia.Path()
    for command, points in path.steps:
        if command == "M":
            made.moveTo(*points[0])
        elif command == "L":
            made.lineTo(*points[0])
        elif command == "C":
            made.cubicTo(*points[0], *points[1], *points[2])
        else:
            made.close()
    return made


@lru_cache(maxsize=KEPT_GLYPHS)
def _glyph(file: str, glyph: int) -> Any:
    return skia_path(glyph_outline(file, glyph))


def layout_path(layout: Layout) -> Any:
    """All letters of a layout as one skia path, in px."""
    import skia

    made, size = skia.Path(), layout.size_px
    for glyph in layout.glyphs:
        matrix = skia.Matrix.MakeAll(size, 0, glyph.x, 0, size, glyph.y, 0, 0, 1)
        made.addPath(_glyph(glyph.file, glyph.glyph), matrix)
    return made


def skia_colour(hex_code: str, opacity: float = 1.0) -> int:
    """A colour with its opacity."""
    import skia

    return int(skia.Color(*parse_hex(hex_code), round(255 * opacity)))


def paint_of(fill: PaintFill, box: Rect) -> Any:
    """A paint for a solid colour or a gradient over a box; gradients are dithered so that they do not band."""
    import skia

    if isinstance(fill, Solid):
        return skia.Paint(Color=skia_colour(fill.colour), AntiAlias=True)
    return skia.Paint(Shader=gradient_shader(fill, box), AntiAlias=True, Dither=True)


def gradient_shader(fill: Gradient, box: Rect) -> Any:
    """The gradient as a shader in the box's unit."""
    import skia

    stops = mixed_stops([(stop.at, stop.colour, stop.opacity) for stop in fill.stops], fill.mix)
    colours = [int(skia.Color(*stop.colour, round(255 * stop.opacity))) for stop in stops]
    places = [stop.at for stop in stops]
    premultiplied = skia.GradientShader.kInterpolateColorsInPremul_Flag
    cx, cy = box.x + fill.centre.x * box.width, box.y + fill.centre.y * box.height
    if fill.form == "radial":
        return skia.GradientShader.MakeRadial(
            skia.Point(cx, cy), radial_reach(fill, box), colours, places, skia.TileMode.kClamp, int(premultiplied)
        )
    if fill.form == "angled":
        turned = skia.Matrix.RotateDeg(fill.angle, skia.Point(cx, cy))
        return skia.GradientShader.MakeSweep(
            cx, cy, colours, places, skia.TileMode.kClamp, 0, 360, int(premultiplied), turned
        )
    ends = [skia.Point(*point) for point in linear_ends(fill, box)]
    return skia.GradientShader.MakeLinear(ends, colours, places, skia.TileMode.kClamp, int(premultiplied))


def linear_ends(fill: Gradient, box: Rect) -> tuple[tuple[float, float], tuple[float, float]]:
    """Start and end of a linear gradient: the corners of the box lie exactly on its first and last colour."""
    dx, dy = math.cos(math.radians(fill.angle)), math.sin(math.radians(fill.angle))
    half = (box.width * abs(dx) + box.height * abs(dy)) / 2
    middle = box.centre
    return (middle.x - dx * half, middle.y - dy * half), (middle.x + dx * half, middle.y + dy * half)


def radial_reach(fill: Gradient, box: Rect) -> float:
    """From the centre of a radial gradient to the farthest corner of the box."""
    across = max(fill.centre.x, 1 - fill.centre.x) * box.width
    down = max(fill.centre.y, 1 - fill.centre.y) * box.height
    return max(math.hypot(across, down), 1e-3)
