"""Words to pixels: plate, shadow, glow, outline, letters, from back to front."""

from __future__ import annotations

from typing import Any

from fitzle.core.plan.placed import PlacedWords
from fitzle.core.render.skia_paths import layout_path, skia_colour, skia_path

GLOW_SPREAD = 0.5  # of the radius: how far the light is full before it fades
GLOW_SIGMA = 1 / 3  # of the radius: three standard deviations have all but vanished
HOLLOW_LINE = 0.08  # letter heights; what outline_only letters are drawn with that have no outline of their own


def draw_words(canvas: Any, part: PlacedWords) -> None:
    """Draws the words on a canvas in px of the file."""
    import skia

    path = layout_path(part.layout)
    if part.plate:
        plate = skia.Paint(Color=skia_colour(part.plate.colour, part.plate.opacity), AntiAlias=True)
        canvas.drawPath(skia_path(part.plate.path), plate)
    if part.shadow:
        _draw_shadow(canvas, part, path)
    if part.glow:
        spread = part.glow.radius * part.layout.cap_height_px
        light = _silhouette(part, 2 * GLOW_SPREAD * spread + 2 * outer_px(part))
        light.setColor(skia_colour(part.glow.colour, part.glow.strength))
        light.setMaskFilter(_blur(GLOW_SIGMA * spread))
        canvas.drawPath(path, light)
    if part.outline or part.outline_only:
        _draw_outline(canvas, part, path)
    if not part.outline_only:
        canvas.drawPath(path, skia.Paint(Color=skia_colour(part.colour), AntiAlias=True))


def outer_px(part: PlacedWords) -> float:
    """How far the outline reaches beyond the letters, in px."""
    width, offset = outline_px(part)
    return width + offset


def outline_px(part: PlacedWords) -> tuple[float, float]:
    """Width and offset of the outline in px; outline_only letters always have one."""
    if part.outline:
        return part.outline.width * part.layout.cap_height_px, part.outline.offset * part.layout.cap_height_px
    return (HOLLOW_LINE * part.layout.cap_height_px, 0.0) if part.outline_only else (0.0, 0.0)


def outline_colour(part: PlacedWords) -> str:
    """The outline's colour, for outline_only letters without one the letters' own."""
    return part.outline.colour if part.outline else part.colour


def _draw_shadow(canvas: Any, part: PlacedWords, path: Any) -> None:
    assert part.shadow is not None
    height = part.layout.cap_height_px
    paint = _silhouette(part, 2 * outer_px(part))
    paint.setColor(skia_colour(part.shadow.colour, part.shadow.opacity))
    if part.shadow.softness:
        paint.setMaskFilter(_blur(part.shadow.softness * height / 2))
    canvas.save()
    canvas.translate(part.shadow.dx * height, part.shadow.dy * height)
    canvas.drawPath(path, paint)
    canvas.restore()


def _draw_outline(canvas: Any, part: PlacedWords, path: Any) -> None:
    """The letters made larger, and what lies inside the line taken out again where one must see through."""
    import skia

    width, offset = outline_px(part)
    line = _silhouette(part, 2 * (width + offset), filled=True)
    line.setColor(skia_colour(outline_colour(part)))
    if not part.outline_only and offset == 0:
        canvas.drawPath(path, line)
        return
    canvas.saveLayer(path.getBounds().makeOutset(width + offset + 2, width + offset + 2))
    canvas.drawPath(path, line)
    inner = _silhouette(part, 2 * offset, filled=True)
    inner.setBlendMode(skia.BlendMode.kDstOut)
    canvas.drawPath(path, inner)
    canvas.restore()


def _silhouette(part: PlacedWords, stroke_px: float, filled: bool | None = None) -> Any:
    """A paint for the letters grown by half of `stroke_px`; outline_only ones cast only their line unless `filled`."""
    import skia

    paint = skia.Paint(AntiAlias=True, StrokeJoin=skia.Paint.kRound_Join, StrokeCap=skia.Paint.kRound_Cap)
    if stroke_px > 0:
        whole = filled if filled is not None else not part.outline_only
        paint.setStyle(skia.Paint.kStrokeAndFill_Style if whole else skia.Paint.kStroke_Style)
        paint.setStrokeWidth(stroke_px)
    return paint


def _blur(sigma_px: float) -> Any:
    """A Gaussian of this standard deviation in px of the file; it scales with the canvas."""
    import skia

    return skia.MaskFilter.MakeBlur(skia.kNormal_BlurStyle, max(sigma_px, 0.01), True)
