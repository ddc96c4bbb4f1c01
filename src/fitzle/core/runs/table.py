"""A table of text: a heading for each column, and rows of cells; what it may hold."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import NamedTuple

from fitzle.core.errors import DocumentError

MOST_ROWS, MOST_COLUMNS, LONGEST_CELL = 5_000, 100, 10_000
LONGEST_SHOWN = 40


class Table(NamedTuple):
    """Headings and rows, each as long as the headings; `lines` are where rows stood in the file, counted from 1."""

    headings: tuple[str, ...]
    rows: list[tuple[str, ...]]
    lines: list[int]


def table_of(lines: Iterable[Sequence[str]]) -> Table:
    """The table of lines of cells: the first that is not empty has the headings, and empty ones are left out.

    Raises DocumentError for a table without headings, with two alike, or larger than may be.
    """
    filled = _filled(lines)
    first = next(filled, None)
    if first is None:
        raise DocumentError(
            "this table is empty", advice="Its first line has the headings, a row for each episode follows."
        )
    headings = _headings(first[1])
    rows: list[tuple[str, ...]] = []
    numbers: list[int] = []
    for number, cells in filled:
        if len(rows) == MOST_ROWS:
            raise DocumentError(f"this table has more than {MOST_ROWS:,} rows", advice="Split it into several runs.")
        rows.append(_row(cells, headings, number))
        numbers.append(number)
    return Table(headings, rows, numbers)


def _filled(lines: Iterable[Sequence[str]]) -> Iterator[tuple[int, list[str]]]:
    for number, cells in enumerate(lines, 1):
        trimmed = [cell.strip() for cell in cells]
        while trimmed and not trimmed[-1]:
            trimmed.pop()
        if trimmed:
            yield number, trimmed


def _headings(cells: Sequence[str]) -> tuple[str, ...]:
    if len(cells) > MOST_COLUMNS:
        raise DocumentError(
            f"this table has {len(cells):,} columns; at most {MOST_COLUMNS} are read",
            advice="Leave out those that the piece does not need.",
        )
    seen: dict[str, int] = {}
    for number, heading in enumerate(cells, 1):
        _check_length(heading, 1, number)
        folded = heading.casefold()
        if heading and folded in seen:
            raise DocumentError(
                f"columns {seen[folded]} and {number} are both called {shortened(heading)!r}",
                advice="Give one of them another heading.",
            )
        seen[folded] = number
    return tuple(cells)


def _row(cells: list[str], headings: tuple[str, ...], number: int) -> tuple[str, ...]:
    if len(cells) > len(headings):
        raise DocumentError(
            f"line {number} has {len(cells)} cells, and there are {len(headings)} headings",
            advice="A cell that has the separator in it stands between quotes.",
        )
    for column, cell in enumerate(cells, 1):
        _check_length(cell, number, column)
    return tuple(cells + [""] * (len(headings) - len(cells)))


def _check_length(cell: str, line: int, column: int) -> None:
    if len(cell) > LONGEST_CELL:
        raise DocumentError(
            f"the cell in line {line}, column {column} ({shortened(cell)!r}) has {len(cell):,} letters",
            advice=f"At most {LONGEST_CELL:,} are read.",
        )


def shortened(text: str) -> str:
    """The beginning of a text, to be named in a message."""
    return text if len(text) <= LONGEST_SHOWN else f"{text[:LONGEST_SHOWN]}…"
