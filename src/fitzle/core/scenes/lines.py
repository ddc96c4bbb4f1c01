"""Lines of words on a skia canvas as real text: in a PDF they can be searched and copied."""

from __future__ import annotations

from collections import defaultdict
from functools import lru_cache
from typing import Any

from fitzle.core.render.skia_paths import skia_colour
from fitzle.core.scenes.scene import Align
from fitzle.core.type.library import USUAL_FAMILY, family_named
from fitzle.core.type.shaping import Paragraph, shaped


def line_of(text: str, weight: int) -> Paragraph:
    """The line, shaped."""
    return shaped(text, family_named(USUAL_FAMILY).face(weight), False)  # a ligature would be lost to who copies it


def width_of(text: str, size: float, weight: int) -> float:
    """How wide a line is."""
    return size * sum(cluster.advance for cluster in line_of(text, weight).clusters)


def draw_line(
    canvas: Any, text: str, x: float, y: float, size: float, weight: int, fill: str, align: Align = "left"
) -> None:
    """A line from (x, y) on its base line on, about it, or up to it."""
    import skia

    clusters = line_of(text, weight).clusters
    at = x - {"left": 0.0, "centre": 0.5, "right": 1.0}[align] * size * sum(one.advance for one in clusters)
    runs: dict[str, list[tuple[int, float, float]]] = defaultdict(list)
    for cluster in clusters:
        for glyph in cluster.glyphs:
            runs[glyph.file].append((glyph.glyph, at + glyph.dx * size, y + glyph.dy * size))
            at += glyph.advance * size
    paint = skia.Paint(Color=skia_colour(fill), AntiAlias=True)
    for file, glyphs in runs.items():
        builder = skia.TextBlobBuilder()
        font = skia.Font(_typeface(file), size)
        font.setSubpixel(True)
        font.setHinting(skia.FontHinting.kNone)
        builder.allocRunPos(font, [glyph for glyph, _, _ in glyphs], [skia.Point(px, py) for _, px, py in glyphs])
        canvas.drawTextBlob(builder.make(), 0, 0, paint)


@lru_cache(maxsize=32)
def _typeface(file: str) -> Any:
    import skia

    return skia.Typeface.MakeFromFile(file)


def broken(text: str, size: float, weight: int, width: float) -> list[str]:
    """The text in lines of at most this width; a longer word stands alone."""
    lines: list[str] = []
    for word in text.split():
        longer = f"{lines[-1]} {word}" if lines else word
        if lines and width_of(longer, size, weight) <= width:
            lines[-1] = longer
        else:
            lines.append(word)
    return lines
