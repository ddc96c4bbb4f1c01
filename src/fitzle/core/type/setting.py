"""Setting words into a box: the largest size at which they fit, with balanced lines."""

from __future__ import annotations

from typing import Literal, NamedTuple

from fitzle.core.geometry.path import Path, joined
from fitzle.core.geometry.rect import Rect
from fitzle.core.type.bidi import visual_order
from fitzle.core.type.breaking import SOFT_HYPHEN, ZERO_WIDTH_SPACE, Token, best_breaks, lines_needed, tokens_of
from fitzle.core.type.font_files import font_of, glyph_outline, glyph_reach
from fitzle.core.type.library import FontFace
from fitzle.core.type.shaping import Cluster, Glyph, Paragraph, shaped

Align = Literal["left", "centre", "right"]
VerticalAlign = Literal["top", "middle", "bottom"]
Case = Literal["as typed", "capitals", "small letters", "first letters"]

SEARCH_STEPS = 22  # halvings: the size is found to a four-millionth of its range
BALANCED_UP_TO = 120  # tokens; longer text is broken line by line, where nobody looks for balance
LARGEST_EM = 8.0  # in heights of the box; nothing that is read is larger
_ALIGNED = {"left": 0.0, "centre": 0.5, "right": 1.0}
_VERTICAL = {"top": 0.0, "middle": 0.5, "bottom": 1.0}


class Setting(NamedTuple):
    """How words are set. `letter_spacing` is added between letters, in letter heights; `line_height` is in em.

    `reach` is how far an outline or a plate extends beyond the letters on each side, in letter heights; the box holds
    it too. `largest_px` caps the size (em) in px.
    """

    face: FontFace
    align: Align = "left"
    vertical_align: VerticalAlign = "middle"
    case: Case = "as typed"
    letter_spacing: float = 0.0
    line_height: float = 1.1
    reach: float = 0.0
    largest_px: float | None = None


class LaidGlyph(NamedTuple):
    """A glyph where it stands, its origin in px."""

    file: str
    glyph: int
    x: float
    y: float


class Layout(NamedTuple):
    """Words, set. All in px; `block` is the box that the ink of the lines takes up, `lines` are in reading order.

    `size_px` is the em, `cap_height_px` the height of a capital: the unit of all effects.
    """

    glyphs: tuple[LaidGlyph, ...]
    lines: tuple[str, ...]
    size_px: float
    cap_height_px: float
    x_height_px: float
    block: Rect
    missing: str

    def reach(self) -> Rect:
        """A box around all letters in px that no outline leaves; a little too large where curves have long handles."""
        boxes = [
            glyph_reach(glyph.file, glyph.glyph).scaled(self.size_px).moved(glyph.x, glyph.y) for glyph in self.glyphs
        ]
        left, top = min(box.x for box in boxes), min(box.y for box in boxes)
        return Rect(left, top, max(box.right for box in boxes) - left, max(box.bottom for box in boxes) - top)

    def outline(self) -> Path:
        """All letters as one outline in px."""
        return joined(
            glyph_outline(glyph.file, glyph.glyph).transformed(self.size_px, 0, 0, self.size_px, glyph.x, glyph.y)
            for glyph in self.glyphs
        )


class _Line(NamedTuple):
    clusters: tuple[Cluster, ...]  # from left to right
    words: str


class Prepared(NamedTuple):
    """Paragraphs with their tokens and the ink above and below a base line, in em."""

    paragraphs: tuple[Paragraph, ...]
    tokens: tuple[list[Token], ...]
    above: float
    below: float
    cap: float


def cased(text: str, case: Case) -> str:
    """The text in the wanted case."""
    changed = {"capitals": str.upper, "small letters": str.lower, "first letters": _first_letters}.get(case)
    return changed(text) if changed else text


def _first_letters(text: str) -> str:
    return "\n".join(" ".join(word[:1].upper() + word[1:] for word in line.split(" ")) for line in text.split("\n"))


def set_words(text: str, setting: Setting, box: Rect) -> Layout:
    """The words in the box at the largest size at which they fit, or at most `largest_px`."""
    words = prepared(cased(text, setting.case), setting)
    size = _largest_size(words, setting, box)
    lines = _broken(words, setting, (box.width / size) - 2 * setting.reach * words.cap)
    over = _overhang(lines, setting, words, box, size)
    return _laid(lines, words, setting, box, size * over)


def prepared(text: str, setting: Setting) -> Prepared:
    """Text of the wanted case, shaped and broken into tokens, without a size."""
    spaced = setting.letter_spacing != 0
    first = font_of(setting.face.files[0])
    paragraphs = tuple(shaped(line.strip() or " ", setting.face, not spaced) for line in text.split("\n"))
    spacing = setting.letter_spacing * first.cap_height
    hyphen = shaped("-", setting.face).clusters[0].advance
    tokens = tuple(tokens_of(paragraph.clusters, spacing, hyphen) for paragraph in paragraphs)
    inks = [
        font_of(glyph.file).ink(glyph.glyph)
        for paragraph in paragraphs
        for cluster in paragraph.clusters
        for glyph in cluster.glyphs
    ]
    above = max([first.cap_height, *(-ink[1] for ink in inks)])
    below = max([0.0, *(ink[3] for ink in inks)])
    return Prepared(paragraphs, tokens, above, below, first.cap_height)


def _largest_size(text: Prepared, setting: Setting, box: Rect) -> float:
    """The largest em in px: halving between nothing and what the box's height allows for one line each."""
    low, high = 0.0, box.height * LARGEST_EM
    if setting.largest_px:
        high = min(high, setting.largest_px)
        if _fits(text, setting, box, high):
            return high
    for _ in range(SEARCH_STEPS):
        middle = (low + high) / 2
        low, high = (middle, high) if _fits(text, setting, box, middle) else (low, middle)
    return max(low, 1e-3)


def _fits(text: Prepared, setting: Setting, box: Rect, size: float) -> bool:
    reach = 2 * setting.reach * text.cap
    width = box.width / size - reach
    count = 0
    for tokens in text.tokens:
        needed = lines_needed(tokens, width, setting.letter_spacing * text.cap)
        if needed is None:
            return False
        count += needed
    return (block_height(text, count, setting) + reach) * size <= box.height


def block_height(text: Prepared, lines: int, setting: Setting) -> float:
    """The height of so many lines from the top of the ink to its bottom, in em."""
    return text.above + (lines - 1) * setting.line_height + text.below


def _broken(text: Prepared, setting: Setting, width: float) -> list[_Line]:
    spacing, lines = setting.letter_spacing * text.cap, []
    for paragraph, tokens in zip(text.paragraphs, text.tokens, strict=True):
        needed = lines_needed(tokens, width * (1 + 1e-6), spacing)
        if needed is None or len(tokens) > BALANCED_UP_TO:
            spans = _line_by_line(tokens, width, spacing)
        else:
            spans = best_breaks(tokens, needed, width * (1 + 1e-6), spacing)
        lines += [_line(paragraph, tokens[start:end], setting) for start, end in spans]
    return lines


def _line_by_line(tokens: list[Token], width: float, spacing: float) -> list[tuple[int, int]]:
    spans, start, used = [], 0, 0.0
    for index, token in enumerate(tokens):
        if index > start and used + token.width + token.hyphen - spacing > width:
            spans.append((start, index))
            start, used = index, 0.0
        used += token.width + token.space
    return [*spans, (start, len(tokens))]


def _line(paragraph: Paragraph, tokens: list[Token], setting: Setting) -> _Line:
    clusters = [
        cluster
        for cluster in paragraph.clusters[tokens[0].start : tokens[-1].blank]
        if cluster.letters not in (SOFT_HYPHEN, ZERO_WIDTH_SPACE)
    ]
    if tokens[-1].hyphen:
        clusters += shaped("-", setting.face).clusters
    ordered = tuple(clusters[index] for index in visual_order([cluster.level for cluster in clusters]))
    return _Line(ordered, "".join(cluster.letters for cluster in clusters))


def _overhang(lines: list[_Line], setting: Setting, text: Prepared, box: Rect, size: float) -> float:
    """By how much the size must shrink so that swashes beyond the advance widths stay in the box too (at most 1)."""
    laid = _laid(lines, text, setting, box, size)
    reach = 2 * setting.reach * laid.cap_height_px
    return min(1.0, box.width / max(laid.block.width + reach, 1e-6))


def _laid(lines: list[_Line], text: Prepared, setting: Setting, box: Rect, size: float) -> Layout:
    reach = setting.reach * text.cap * size
    room = box.inset(reach)
    height = block_height(text, len(lines), setting) * size
    top = room.y + _VERTICAL[setting.vertical_align] * (room.height - height)
    spacing = setting.letter_spacing * text.cap
    glyphs: list[LaidGlyph] = []
    spans: list[tuple[float, float]] = []
    for number, line in enumerate(lines):
        y = top + (text.above + number * setting.line_height) * size
        left, right = _ink_span(line, spacing)
        x = room.x + _ALIGNED[setting.align] * (room.width - (right - left) * size) - left * size
        glyphs += _placed(line, x, y, size, spacing)
        spans.append((x + left * size, x + right * size))
    shown = [span for span in spans if span[1] > span[0]] or [(room.x, room.x)]
    left, right = min(span[0] for span in shown), max(span[1] for span in shown)
    block = Rect(left, top, right - left, height)
    return Layout(
        tuple(glyphs),
        tuple(line.words for line in lines),
        size,
        text.cap * size,
        font_of(setting.face.files[0]).x_height * size,
        block,
        "".join(dict.fromkeys("".join(paragraph.missing for paragraph in text.paragraphs))),
    )


def _ink_span(line: _Line, spacing: float) -> tuple[float, float]:
    """Where the ink of a line begins and ends, in em from its origin: lines are aligned by what is seen."""
    at, left, right = 0.0, float("inf"), float("-inf")
    for cluster in line.clusters:
        for glyph in cluster.glyphs:
            ink = font_of(glyph.file).ink(glyph.glyph)
            if ink[2] > ink[0]:
                left, right = min(left, at + glyph.dx + ink[0]), max(right, at + glyph.dx + ink[2])
            at += glyph.advance
        at += spacing
    return (left, right) if right > left else (0.0, 0.0)


def _placed(line: _Line, x: float, y: float, size: float, spacing: float) -> list[LaidGlyph]:
    placed: list[LaidGlyph] = []
    for cluster in line.clusters:
        for glyph in cluster.glyphs:
            placed.append(_at(glyph, x, y, size))
            x += glyph.advance * size
        x += spacing * size
    return placed


def _at(glyph: Glyph, x: float, y: float, size: float) -> LaidGlyph:
    return LaidGlyph(glyph.file, glyph.glyph, x + glyph.dx * size, y + glyph.dy * size)
