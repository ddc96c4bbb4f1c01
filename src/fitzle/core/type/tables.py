"""How wide and high words are for each number of lines: what they take up at any size, without setting them again."""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

from fitzle.core.type.breaking import Token, line_width, lines_needed
from fitzle.core.type.setting import Prepared, Setting, block_height, cased, prepared

MOST_LINES = 8
LONGEST_LINE = 14  # tokens: words that stand on one line together
MOST_WIDTHS = 160  # that are tried; of a long text every other one, or fewer
HAIR = 0.02  # em: swashes that reach a little beyond the advance widths


class TableRow(NamedTuple):
    """So many lines need at least this width, and take up this height; both in em, outline and plate included."""

    lines: int
    width: float
    height: float


class WordTable(NamedTuple):
    """The rows of a text, fewest lines and so widest first; `cap` is the height of a capital in em, `words` how many
    words it has.
    """

    rows: tuple[TableRow, ...]
    cap: float
    words: int

    def fitting(self, em_px: float, width_px: float) -> TableRow | None:
        """The fewest lines that fit into a width at a size; None where the longest word does not."""
        return next((row for row in self.rows if row.width * em_px <= width_px), None)


@lru_cache(maxsize=500)
def word_table(text: str, setting: Setting) -> WordTable:
    """What a text takes up in up to MOST_LINES lines, those that the text itself breaks among them."""
    words = prepared(cased(text, setting.case), setting)
    spacing, reach = setting.letter_spacing * words.cap, 2 * setting.reach * words.cap
    least: dict[int, float] = {}
    for width in _widths(words, spacing):
        counts = [lines_needed(tokens, width * (1 + 1e-4), spacing) for tokens in words.tokens]
        known = [count for count in counts if count is not None]
        if len(known) == len(counts):
            least.setdefault(sum(known), width)
    rows = tuple(
        TableRow(lines, least[lines] + HAIR + reach, block_height(words, lines, setting) + reach)
        for lines in sorted(least)[:MOST_LINES]
    )
    return WordTable(rows, words.cap, len(text.split()))


def _widths(words: Prepared, spacing: float) -> list[float]:
    """The widths at which a line may begin to hold one more word, in em, the least first."""
    found = sorted({round(width, 4) for tokens in words.tokens for width in _runs(tokens, spacing)})
    step = len(found) // MOST_WIDTHS + 1
    return [*found[::step], found[-1]]


def _runs(tokens: list[Token], spacing: float) -> list[float]:
    count = len(tokens)
    return [
        line_width(tokens, start, end, spacing)
        for start in range(count)
        for end in range(start + 1, min(count, start + LONGEST_LINE) + 1)
    ]
