"""Font files opened with HarfBuzz: coverage, metrics and outlines, all in em (1 em is the size of the type), y down."""

from __future__ import annotations

from functools import cached_property, lru_cache
from pathlib import Path as FilePath
from typing import Any

from fitzle.core.geometry.path import Path, Pen
from fitzle.core.geometry.rect import Rect

OPEN_FILES = 160  # font files kept open; all of one family's are about six
KEPT_OUTLINES = 6000  # glyphs


class FontFile:
    """One font file."""

    def __init__(self, file: str) -> None:
        import uharfbuzz as hb

        self.file = file
        self.hb_face = hb.Face(hb.Blob.from_file_path(file))
        self.font = hb.Font(self.hb_face)
        self.em = float(self.hb_face.upem)

    def has(self, letters: str) -> bool:
        """Whether every letter has a glyph; joiners and selectors do not count."""
        return all(ord(letter) in _UNSEEN or self.font.get_nominal_glyph(ord(letter)) for letter in letters)

    @cached_property
    def cap_height(self) -> float:
        """Height of a capital H."""
        return self._height_of("H", 0.7)

    @cached_property
    def x_height(self) -> float:
        """Height of a lower-case x."""
        return self._height_of("x", 0.5)

    def ink(self, glyph: int) -> tuple[float, float, float, float]:
        """(left, top, right, bottom) of a glyph's ink about its origin, y down; zeros for a blank."""
        extents = self.font.get_glyph_extents(glyph)
        if extents is None:
            return (0.0, 0.0, 0.0, 0.0)
        left, top = extents.x_bearing, -extents.y_bearing
        box = (left, top, left + extents.width, top - extents.height)
        return (box[0] / self.em, box[1] / self.em, box[2] / self.em, box[3] / self.em)

    def _height_of(self, letter: str, usual: float) -> float:
        glyph = self.font.get_nominal_glyph(ord(letter))
        return -self.ink(glyph)[1] if glyph else usual


_UNSEEN = frozenset({0x00AD, 0x200B, 0x200C, 0x200D, 0x2060, *range(0x200E, 0x2010), *range(0x202A, 0x202F),
                     *range(0x2066, 0x206A), *range(0xFE00, 0xFE10)})  # fmt: skip


@lru_cache(maxsize=OPEN_FILES)
def font_of(file: str | FilePath) -> FontFile:
    """The opened font file."""
    return FontFile(str(file))


@lru_cache(maxsize=KEPT_OUTLINES)
def glyph_outline(file: str, glyph: int) -> Path:
    """A glyph's outline about its origin."""
    font = font_of(file)
    pen = _GlyphPen(1 / font.em)
    font.font.draw_glyph_with_pen(glyph, pen)
    return pen.pen.path()


@lru_cache(maxsize=KEPT_OUTLINES)
def glyph_reach(file: str, glyph: int) -> Rect:
    """A box around a glyph's outline about its origin, in em: its curves' handles included, so it may be too large."""
    return glyph_outline(file, glyph).bounds()


class _GlyphPen:
    """Takes HarfBuzz's drawing commands (fontTools' pen protocol, y up, font units)."""

    def __init__(self, scale: float) -> None:
        self.pen, self._scale = Pen(), scale

    def _at(self, point: Any) -> tuple[float, float]:
        return (point[0] * self._scale, -point[1] * self._scale)

    def moveTo(self, point: Any) -> None:
        self.pen.move(*self._at(point))

    def lineTo(self, point: Any) -> None:
        self.pen.line(self._at(point))

    def qCurveTo(self, control: Any, point: Any) -> None:
        self.pen.quadratic(self._at(control), self._at(point))

    def curveTo(self, one: Any, two: Any, point: Any) -> None:
        self.pen.cubic(self._at(one), self._at(two), self._at(point))

    def closePath(self) -> None:
        self.pen.close()

    def endPath(self) -> None:
        self.pen.close()
