"""How well a typeface reads small: the height of its x and its thinnest stroke, measured on its outlines."""

from __future__ import annotations

from functools import lru_cache
from itertools import pairwise
from pathlib import Path as FilePath
from typing import NamedTuple

from fitzle.core.geometry.path import flattened
from fitzle.core.type.font_files import font_of, glyph_outline

LEAST_X_HEIGHT_PX = 6.0  # seen px; below that the letters run together (see preflight/words.py)
LEAST_STROKE_PX = 0.75  # seen px; a thinner stroke is drawn in less than three quarters of its colour


class Small(NamedTuple):
    """Height of the lower-case x and thinnest stroke of n and o, in em."""

    x_height: float
    stroke: float


@lru_cache(maxsize=400)
def small_figures(file: FilePath) -> Small:
    """The figures of one face's Latin file; capitals stand in where it has no small letters."""
    font = font_of(file)
    strokes = [width for letter in "no" if (width := _thinnest(str(file), letter)) is not None]
    return Small(font.x_height, min(strokes, default=0.1))


def reads(small: Small, em_seen_px: float) -> bool:
    """Whether type of this size (em in px of the viewer's screen) still reads."""
    return small.x_height * em_seen_px >= LEAST_X_HEIGHT_PX and small.stroke * em_seen_px >= LEAST_STROKE_PX


def _thinnest(file: str, letter: str) -> float | None:
    """The thinner of a letter's first stroke across its middle and its topmost stroke down its middle."""
    font = font_of(file)
    glyph = font.font.get_nominal_glyph(ord(letter))
    if not glyph:
        return None
    outline = glyph_outline(file, glyph)
    left, top, right, bottom = font.ink(glyph)
    contours = [[(point.x, point.y) for point in contour] for contour in flattened(outline)]
    turned = [[(y, x) for x, y in contour] for contour in contours]
    across = _first_stroke(contours, (top + bottom) / 2)
    down = _first_stroke(turned, (left + right) / 2)
    found = [width for width in (across, down) if width]
    return min(found, default=None)


def _first_stroke(contours: list[list[tuple[float, float]]], level: float) -> float | None:
    """Where a level line first enters and leaves what the contours enclose (even-odd)."""
    crossings = []
    for contour in contours:
        for (x1, y1), (x2, y2) in pairwise([*contour, contour[0]]):
            if (y1 <= level) != (y2 <= level):
                crossings.append(x1 + (level - y1) / (y2 - y1) * (x2 - x1))
    crossings.sort()
    return crossings[1] - crossings[0] if len(crossings) >= 2 else None
