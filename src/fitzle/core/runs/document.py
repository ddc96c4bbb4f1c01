"""The rows of a run as they are kept: cells as somebody typed them, and how a row differs by hand."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from typing import Annotated

from pydantic import Field

from fitzle.core.errors import DocumentError
from fitzle.core.findings import Frozen
from fitzle.core.piece.document import MOST_ADJUSTED, MOST_FIELDS, Differences, FieldName
from fitzle.core.runs.table import LONGEST_CELL, MOST_ROWS

RowId = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]
Cell = Annotated[str, Field(max_length=LONGEST_CELL)]


class Entry(Frozen):
    """One row: its cells by field (one that is not there is empty), what differs in it by hand everywhere or in one
    placement (its slug), and whether it is put away: kept, and not made.
    """

    id: RowId
    cells: Annotated[dict[FieldName, Cell], Field(max_length=MOST_FIELDS)] = {}
    differences: Differences = {}
    adjustments: Annotated[dict[str, Differences], Field(max_length=MOST_ADJUSTED)] = {}
    put_away: bool = False

    @property
    def by_hand(self) -> int:
        """In how many fields it differs by hand."""
        layers = [self.differences, *self.adjustments.values()]
        return sum(len(fields) for layer in layers for fields in layer.values())


class Rows:
    """Rows in their order; changed in place. Raises DocumentError for a row that is not there, or is there twice."""

    def __init__(self, entries: Iterable[Entry] = ()) -> None:
        self._entries: dict[str, Entry] = {}
        for entry in entries:
            self.add(entry, None)

    def __iter__(self) -> Iterator[Entry]:
        return iter(self._entries.values())

    def __len__(self) -> int:
        return len(self._entries)

    def __contains__(self, row: object) -> bool:
        return row in self._entries

    def __getitem__(self, row: str) -> Entry:
        if row not in self._entries:
            raise DocumentError(f"there is no row {row!r}", advice="Somebody took it away; look at the table again.")
        return self._entries[row]

    def next_after(self, row: str) -> str | None:
        """The id of the row below one; None for the last."""
        order = list(self._entries)
        below = order.index(self[row].id) + 1
        return order[below] if below < len(order) else None

    def add(self, entry: Entry, before: str | None) -> None:
        """A new row above another one; at the end where that is None, or not there any more."""
        if entry.id in self._entries:
            raise DocumentError(f"there is a row {entry.id!r} already")
        if len(self._entries) >= MOST_ROWS:
            raise DocumentError(f"a run has at most {MOST_ROWS:,} rows", advice="Begin another run.")
        self._place(entry, before)

    def remove(self, row: str) -> Entry:
        """Takes a row out."""
        self[row]
        return self._entries.pop(row)

    def replace(self, entry: Entry) -> None:
        """Another state of a row, where it is."""
        self[entry.id]
        self._entries[entry.id] = entry

    def move(self, row: str, before: str | None) -> None:
        """A row above another one, or to the end."""
        if row != before:
            self._place(self.remove(row), before)

    def _place(self, entry: Entry, before: str | None) -> None:
        if before is None or before not in self._entries:
            self._entries[entry.id] = entry
            return
        order = list(self._entries.values())
        at = list(self._entries).index(before)
        self._entries = {one.id: one for one in (*order[:at], entry, *order[at:])}


def without_empty(cells: Mapping[str, str]) -> dict[str, str]:
    """Cells that hold something."""
    return {name: text for name, text in cells.items() if text}
