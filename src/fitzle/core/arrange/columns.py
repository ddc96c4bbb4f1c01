"""Columns of words at any size, by their tables: no words are set here."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from fitzle.core.arrange.members import Member
from fitzle.core.type.tables import TableRow

STEPS = 11  # halvings: the scale is found to a two-thousandth
SMALLER, LARGER = 0.45, 0.3  # of the capitals above and below: the space between two texts


class Set(NamedTuple):
    """One text in a column: its em in px and how many lines it takes."""

    em: float
    row: TableRow

    @property
    def size(self) -> tuple[float, float]:
        """Width and height in px."""
        return self.row.width * self.em, self.row.height * self.em


class Column(NamedTuple):
    """The texts of a column from top to bottom, and its height in px, spaces included."""

    height: float
    texts: tuple[Set, ...]


class Measure(NamedTuple):
    """How large words are in a place: `enlarged` px for each px of the composed picture, and the least capital in px.

    The headline of a column of its own may be lower than that: it is then as large as it can be.
    """

    enlarged: float
    least_capital: float

    def capital(self, word: Member, scale: float, alone: bool) -> float:
        """The height of a capital in px at a scale of what the piece had."""
        wanted = word.capital_px * self.enlarged * scale
        return wanted if alone and word.role == "headline" else max(wanted, self.least_capital)


def space_between(upper_capital: float, lower_capital: float) -> float:
    """The space in px between two texts over each other, by the heights of their capitals."""
    return SMALLER * min(upper_capital, lower_capital) + LARGER * max(upper_capital, lower_capital)


def column_at(words: Sequence[Member], width: float, scale: float, measure: Measure) -> Column | None:
    """The column at a scale in a width; None where one word is wider than that."""
    height, texts, above = 0.0, list[Set](), 0.0
    for word in words:
        table = word.table
        assert table
        capital = measure.capital(word, scale, alone=len(words) == 1)
        em = capital / table.cap
        row = table.fitting(em, width)
        if row is None:
            return None
        height += (space_between(above, capital) if texts else 0.0) + row.height * em
        texts.append(Set(em, row))
        above = capital
    return Column(height, tuple(texts))


def largest_column(words: Sequence[Member], width: float, height: float, most: float, measure: Measure) -> Column:
    """The column at the largest scale up to `most` that fits; below what is read where nothing else does."""
    found = _searched(words, width, height, 0.05, most, measure)
    found = found or _searched(words, width, height, 0.01, 1.0, measure._replace(least_capital=0.0))
    if found:
        return found
    narrow = [(word.table.rows[-1] if word.table else None) for word in words]
    return Column(height, tuple(Set(height * 0.1, row) for row in narrow if row))


def _searched(
    words: Sequence[Member], width: float, height: float, low: float, high: float, measure: Measure
) -> Column | None:
    largest = column_at(words, width, high, measure)
    if largest and largest.height <= height:
        return largest
    best = None
    for _ in range(STEPS):
        middle = (low + high) / 2
        found = column_at(words, width, middle, measure)
        if found and found.height <= height:
            best, low = found, middle
        else:
            high = middle
    return best
