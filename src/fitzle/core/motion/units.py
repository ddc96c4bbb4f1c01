"""Words taken apart into letters, words or lines that move by themselves; each is words of its own."""

from __future__ import annotations

import unicodedata
from collections.abc import Sequence
from typing import Literal

from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import PlacedWords
from fitzle.core.type.font_files import glyph_outline
from fitzle.core.type.setting import LaidGlyph

Unit = Literal["letter", "word", "line"]
SAME_LINE_EM, SAME_LETTER_EM, WORD_GAP_EM = 0.1, 0.02, 0.16


def taken_apart(words: PlacedWords, unit: Unit) -> list[PlacedWords]:
    """The units in reading order, without the plate, which stays in one piece (`plate_of`)."""
    lines = _lines(words.layout.glyphs, words.layout.size_px)
    groups: list[list[LaidGlyph]] = []
    for line in lines:
        own = [line] if unit == "line" else _split(line, words.layout.size_px, unit)
        groups += reversed(own) if _from_right(words.layout.lines) else own
    return [_alone(words, glyphs) for glyphs in groups]


def plate_of(words: PlacedWords) -> PlacedWords | None:
    """The surface behind words, without words."""
    if words.plate is None:
        return None
    return words._replace(layout=words.layout._replace(glyphs=()), outline=None, shadow=None, glow=None)


def _lines(glyphs: Sequence[LaidGlyph], em: float) -> list[list[LaidGlyph]]:
    found: list[list[LaidGlyph]] = []
    for glyph in sorted(glyphs, key=lambda one: (round(one.y / (SAME_LINE_EM * em)), one.x)):
        if found and abs(found[-1][0].y - glyph.y) <= SAME_LINE_EM * em:
            found[-1].append(glyph)
        else:
            found.append([glyph])
    return found


def _split(line: list[LaidGlyph], em: float, unit: Unit) -> list[list[LaidGlyph]]:
    """Letters with their accents, or words: between two words is a gap without ink."""
    found: list[list[LaidGlyph]] = []
    reach = float("-inf")
    for glyph in line:
        ink = _ink(glyph, em)
        if ink is None:
            continue
        gap = ink.x - reach
        together = bool(found) and (
            glyph.x - found[-1][0].x < SAME_LETTER_EM * em if unit == "letter" else gap < WORD_GAP_EM * em
        )
        if together:
            found[-1].append(glyph)
        else:
            found.append([glyph])
        reach = max(reach, ink.right)
    return found


def _ink(glyph: LaidGlyph, em: float) -> Rect | None:
    path = glyph_outline(glyph.file, glyph.glyph)
    if not path.steps:
        return None
    return path.transformed(em, 0, 0, em, glyph.x, glyph.y).bounds()


def _alone(words: PlacedWords, glyphs: list[LaidGlyph]) -> PlacedWords:
    boxes = [box for glyph in glyphs if (box := _ink(glyph, words.layout.size_px))]
    x, y = min((box.x for box in boxes), default=0.0), min((box.y for box in boxes), default=0.0)
    right, bottom = max((box.right for box in boxes), default=x), max((box.bottom for box in boxes), default=y)
    layout = words.layout._replace(glyphs=tuple(glyphs), block=Rect(x, y, right - x, bottom - y))
    return words._replace(layout=layout, plate=None)


def _from_right(lines: Sequence[str]) -> bool:
    """Whether the words are written from right to left, by their first letter that says so."""
    kinds = (unicodedata.bidirectional(letter) for line in lines for letter in line)
    return next((kind for kind in kinds if kind in ("L", "R", "AL")), "L") != "L"
