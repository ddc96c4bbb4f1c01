"""Letters to glyphs with HarfBuzz: fallback for missing letters, right-to-left runs, ligatures, kerning."""

from __future__ import annotations

import unicodedata
from functools import lru_cache
from typing import Any, NamedTuple

from fitzle.core.type.bidi import embedding_levels
from fitzle.core.type.font_files import FontFile, font_of
from fitzle.core.type.library import FontFace, fallback_families

KEPT_PARAGRAPHS = 600


class Glyph(NamedTuple):
    """A glyph with its offset and advance in em."""

    file: str
    glyph: int
    dx: float
    dy: float
    advance: float


class Cluster(NamedTuple):
    """Letters that belong together (a base with its marks, a ligature); glyphs from left to right."""

    letters: str
    level: int
    glyphs: tuple[Glyph, ...]

    @property
    def advance(self) -> float:
        """Width in em."""
        return sum(glyph.advance for glyph in self.glyphs)

    @property
    def blank(self) -> bool:
        """Whether it is white space."""
        return self.letters.isspace() or self.letters in ("\u00ad", "\u200b")


class Paragraph(NamedTuple):
    """A shaped paragraph, clusters in reading order; `missing` are the letters that no typeface has."""

    clusters: tuple[Cluster, ...]
    missing: str


@lru_cache(maxsize=KEPT_PARAGRAPHS)
def shaped(text: str, face: FontFace, ligatures: bool = True) -> Paragraph:
    """One paragraph without line breaks."""
    text = unicodedata.normalize("NFC", text)
    fonts, missing = _fonts_by_letter(text, face)
    levels = embedding_levels(text)
    clusters: list[Cluster] = []
    start = 0
    for end in range(1, len(text) + 1):
        if end == len(text) or fonts[end] is not fonts[start] or levels[end] != levels[start]:
            clusters += _shaped_run(text[start:end], fonts[start], levels[start], ligatures)
            start = end
    return Paragraph(tuple(clusters), missing)


def graphemes(text: str) -> list[str]:
    """What people count as letters (UAX #29); plain text is split letter by letter, which is much quicker."""
    if not any(unicodedata.combining(letter) or ord(letter) in _JOINING or ord(letter) > 0x0E00 for letter in text):
        return list(text)
    from uniseg.graphemecluster import grapheme_clusters

    return [str(part) for part in grapheme_clusters(text)]


_JOINING = frozenset({0x200C, 0x200D})


def _fonts_by_letter(text: str, face: FontFace) -> tuple[list[FontFile], str]:
    first = font_of(face.files[0])  # whose spaces are used too: that of an emoji is as wide as an emoji
    fonts: list[FontFile] = []
    missing: list[str] = []
    for letters in graphemes(text):
        font = first if letters.isspace() else _font_with(letters, face)
        if font is None:
            missing.append(letters)
            font = first
        fonts += [font] * len(letters)
    return fonts, "".join(dict.fromkeys(missing))


def _font_with(letters: str, face: FontFace) -> FontFile | None:
    """The first file that has them: the face's own, else a fallback's."""
    for file in (*face.files, *_fallback_files(face)):
        font = font_of(file)
        if font.has(letters):
            return font
    return None


def _fallback_files(face: FontFace) -> list[Any]:
    return [file for family in fallback_families() for file in family.face(face.weight).files]


def _shaped_run(text: str, font: FontFile, level: int, ligatures: bool) -> list[Cluster]:
    import uharfbuzz as hb

    buffer = hb.Buffer()
    buffer.add_str(text)
    buffer.guess_segment_properties()
    buffer.direction = "rtl" if level % 2 else "ltr"
    hb.shape(font.font, buffer, {} if ligatures else {"liga": False, "clig": False})
    grouped: dict[int, list[Glyph]] = {}
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        grouped.setdefault(info.cluster, []).append(
            Glyph(
                font.file,
                info.codepoint,
                position.x_offset / font.em,
                -position.y_offset / font.em,
                position.x_advance / font.em,
            )
        )
    starts = sorted(grouped)
    ends = [*starts[1:], len(text)]
    return [Cluster(text[start:end], level, tuple(grouped[start])) for start, end in zip(starts, ends, strict=True)]
