"""Letters to glyphs with HarfBuzz: fallback for missing letters, right-to-left runs, ligatures, kerning."""

from __future__ import annotations

import unicodedata
from functools import lru_cache
from typing import Any, NamedTuple

from fitzle.core.type.bidi import embedding_levels
from fitzle.core.type.faces import Face, face_of
from fitzle.core.type.library import Cut, fallback_families

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
def shaped(text: str, cut: Cut, ligatures: bool = True) -> Paragraph:
    """One paragraph without line breaks."""
    text = unicodedata.normalize("NFC", text)
    faces, missing = _faces_by_letter(text, cut)
    levels = embedding_levels(text)
    clusters: list[Cluster] = []
    start = 0
    for end in range(1, len(text) + 1):
        if end == len(text) or faces[end] is not faces[start] or levels[end] != levels[start]:
            clusters += _shaped_run(text[start:end], faces[start], levels[start], ligatures)
            start = end
    return Paragraph(tuple(clusters), missing)


def graphemes(text: str) -> list[str]:
    """What people count as letters (UAX #29); plain text is cut letter by letter, which is much quicker."""
    if not any(unicodedata.combining(letter) or ord(letter) in _JOINING or ord(letter) > 0x0E00 for letter in text):
        return list(text)
    from uniseg.graphemecluster import grapheme_clusters

    return [str(part) for part in grapheme_clusters(text)]


_JOINING = frozenset({0x200C, 0x200D})


def _faces_by_letter(text: str, cut: Cut) -> tuple[list[Face], str]:
    first = face_of(cut.files[0])  # whose spaces are used too: that of an emoji is as wide as an emoji
    faces: list[Face] = []
    missing: list[str] = []
    for letters in graphemes(text):
        face = first if letters.isspace() else _face_with(letters, cut)
        if face is None:
            missing.append(letters)
            face = first
        faces += [face] * len(letters)
    return faces, "".join(dict.fromkeys(missing))


def _face_with(letters: str, cut: Cut) -> Face | None:
    """The first file that has them: the cut's own, else a fallback's."""
    for file in (*cut.files, *_fallback_files(cut)):
        face = face_of(file)
        if face.has(letters):
            return face
    return None


def _fallback_files(cut: Cut) -> list[Any]:
    return [file for family in fallback_families() for file in family.cut(cut.weight).files]


def _shaped_run(text: str, face: Face, level: int, ligatures: bool) -> list[Cluster]:
    import uharfbuzz as hb

    buffer = hb.Buffer()
    buffer.add_str(text)
    buffer.guess_segment_properties()
    buffer.direction = "rtl" if level % 2 else "ltr"
    hb.shape(face.font, buffer, {} if ligatures else {"liga": False, "clig": False})
    grouped: dict[int, list[Glyph]] = {}
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        grouped.setdefault(info.cluster, []).append(
            Glyph(
                face.file,
                info.codepoint,
                position.x_offset / face.em,
                -position.y_offset / face.em,
                position.x_advance / face.em,
            )
        )
    starts = sorted(grouped)
    ends = [*starts[1:], len(text)]
    return [Cluster(text[start:end], level, tuple(grouped[start])) for start, end in zip(starts, ends, strict=True)]
