"""How well a typeface reads small: heights, thinnest stroke and the rhythm of strokes, measured on its outlines.

A simulated observer (twelve faces, an eye's blur of 0.55 px, noise) told fewer than 95 of 100 letters right under an
x-height of 3.5 px or a rhythm of 2.2 px; words that are read in passing need about 1.35 times that (Legge and Bigelow,
"Does print size matter for reading?", Journal of Vision 2011; for the rhythm Majaj et al., "The role of spatial
frequency channels in letter identification", Vision Research 2002).
"""

from __future__ import annotations

from functools import lru_cache
from itertools import pairwise
from pathlib import Path as FilePath
from typing import NamedTuple

from fitzle.core.geometry.path import flattened
from fitzle.core.type.font_files import font_of, glyph_outline

LEAST_STROKE_PX = 0.5  # seen px; a thinner stroke is drawn in less than half of its colour
# On screens of density 1 and of density 2 or more, in px of the viewer's screen. At 4 px an x is 5 minutes of arc tall
# at arm's length, which is what usual sight tells, however fine the screen.
LEAST_X_HEIGHT_PX, LEAST_X_HEIGHT_DENSE_PX = 5.0, 4.0
LEAST_RHYTHM_PX, LEAST_RHYTHM_DENSE_PX = 3.0, 2.4


class Small(NamedTuple):
    """Height of the lower-case x, thinnest stroke of n and o and rhythm, in em; for capitals their own.

    The rhythm is the first stroke and the gap after it: of n at half its height, of H at a quarter.
    """

    x_height: float
    stroke: float
    rhythm: float
    cap_height: float
    cap_rhythm: float


class Least(NamedTuple):
    """The least height and rhythm on a screen, in px of it."""

    height_px: float
    rhythm_px: float


def least_for(density: float) -> Least:
    """What is asked on a screen of a density (px of the device for each px)."""
    finer = min(max(density - 1, 0.0), 1.0)
    return Least(
        LEAST_X_HEIGHT_PX + finer * (LEAST_X_HEIGHT_DENSE_PX - LEAST_X_HEIGHT_PX),
        LEAST_RHYTHM_PX + finer * (LEAST_RHYTHM_DENSE_PX - LEAST_RHYTHM_PX),
    )


@lru_cache(maxsize=400)
def small_figures(file: FilePath) -> Small:
    """The figures of one face's Latin file; capitals stand in where it has no small letters."""
    font = font_of(file)
    strokes = [width for letter in "no" if (width := _thinnest(str(file), letter)) is not None]
    return Small(
        font.x_height,
        min(strokes, default=0.1),
        _rhythm(str(file), "n", 0.5) or font.x_height / 2,
        font.cap_height,
        _rhythm(str(file), "H", 0.25) or font.cap_height / 2,
    )


def reads(small: Small, em_seen_px: float, density: float = 1.0) -> bool:
    """Whether type of this size (em in px of the viewer's screen) still reads."""
    least = least_for(density)
    tall = small.x_height * em_seen_px >= least.height_px and small.rhythm * em_seen_px >= least.rhythm_px
    return tall and small.stroke * em_seen_px >= LEAST_STROKE_PX


def _rhythm(file: str, letter: str, height: float) -> float | None:
    """From the beginning of a letter's first stroke to that of its second, at a share of its height."""
    font = font_of(file)
    glyph = font.font.get_nominal_glyph(ord(letter))
    if not glyph:
        return None
    _, top, _, bottom = font.ink(glyph)
    contours = [[(point.x, point.y) for point in contour] for contour in flattened(glyph_outline(file, glyph))]
    crossings = _crossings(contours, bottom - height * (bottom - top))
    return crossings[2] - crossings[0] if len(crossings) >= 4 else None


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
    crossings = _crossings(contours, level)
    return crossings[1] - crossings[0] if len(crossings) >= 2 else None


def _crossings(contours: list[list[tuple[float, float]]], level: float) -> list[float]:
    """Where a level line crosses the contours, from left to right."""
    return sorted(
        x1 + (level - y1) / (y2 - y1) * (x2 - x1)
        for contour in contours
        for (x1, y1), (x2, y2) in pairwise([*contour, contour[0]])
        if (y1 <= level) != (y2 <= level)
    )
