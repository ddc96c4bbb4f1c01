"""A part while it is drawn: its outline as far as the pen has come, then what fills it."""

from __future__ import annotations

from typing import Any

from fitzle.core.piece.fills import Gradient, PaintFill
from fitzle.core.plan.placed import PlacedShape, PlacedWords
from fitzle.core.render.skia_paths import layout_path, paint_of, skia_colour, skia_path

BLACK = "#000000"
PEN_SHARE = 0.72  # of the time the pen takes; then the filling fades in
PEN_OF_LETTERS, PEN_OF_SHAPES = 0.05, 0.012  # width of the line, in letter heights and in sides of the box


def draw_outline_so_far(canvas: Any, part: PlacedWords | PlacedShape, progress: float) -> None:
    """Draws on a canvas in px of the file; a progress of 1 is the whole outline, filled."""
    import skia

    path = layout_path(part.layout) if isinstance(part, PlacedWords) else skia_path(part.path)
    filled = max(0.0, (progress - PEN_SHARE) / (1 - PEN_SHARE))
    if filled:
        paint = skia.Paint(Color=skia_colour(part.colour), AntiAlias=True) if isinstance(part, PlacedWords) else None
        if isinstance(part, PlacedShape) and part.fill:
            paint = paint_of(part.fill, part.stands)
        if paint is not None:
            paint.setAlphaf(paint.getAlphaf() * filled)
            canvas.drawPath(path, paint)
    pen = _pen(part)
    end = min(1.0, progress / PEN_SHARE)
    pen.setPathEffect(skia.TrimPathEffect.Make(0.0, end, skia.TrimPathEffect.Mode.kNormal) if end < 1 else None)
    pen.setAlphaf(pen.getAlphaf() * (1 - filled if _vanishes(part) else 1))
    canvas.drawPath(path, pen)


def _vanishes(part: PlacedWords | PlacedShape) -> bool:
    """Whether the finished part has no such line."""
    return not part.outline_only if isinstance(part, PlacedWords) else part.border is None


def _colour_of(fill: PaintFill | None) -> str:
    if isinstance(fill, Gradient):
        return fill.stops[0].colour
    return fill.colour if fill else BLACK


def _pen(part: PlacedWords | PlacedShape) -> Any:
    import skia

    if isinstance(part, PlacedWords):
        width, colour = PEN_OF_LETTERS * part.layout.cap_height_px, part.colour
    elif part.border:
        width, colour = part.border.width_px, part.border.colour
    else:
        width = PEN_OF_SHAPES * (part.box.width + part.box.height)
        colour = _colour_of(part.fill)
    return skia.Paint(
        Color=skia_colour(colour), AntiAlias=True, Style=skia.Paint.kStroke_Style, StrokeWidth=max(0.75, width),
        StrokeCap=skia.Paint.kRound_Cap, StrokeJoin=skia.Paint.kRound_Join,
    )  # fmt: skip
