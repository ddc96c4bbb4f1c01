"""Rows of a table as rows of a run: values for the parts, and what is wrong with which cell."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any, NamedTuple

from fitzle.core.errors import FitzleError
from fitzle.core.piece.document import Piece, Row, parts_in
from fitzle.core.runs.document import Entry
from fitzle.core.runs.fields import Matched, columns_of, value_of_cell
from fitzle.core.runs.table import Table


class CellProblem(NamedTuple):
    """What is wrong with a cell: the line of the table, the field (empty: the row as a whole) and words for people."""

    line: int
    field: str
    words: str


class RunRow(NamedTuple):
    """A row of a run: where it stood in the file, the how manieth row it is (from 1, those that cannot be used counted
    too, so that mending one renames no other), its cells by field, and the values that they make.
    """

    line: int
    number: int
    cells: dict[str, str]
    row: Row


def rows_of(
    piece: Piece, table: Table, found: Matched, artworks: Mapping[str, str]
) -> tuple[list[RunRow], list[CellProblem]]:
    """The rows whose cells can all be used, and what is wrong with the others; those are left out, not the rest."""
    rows: list[RunRow] = []
    problems: list[CellProblem] = []
    for number, (cells, line) in enumerate(zip(table.rows, table.lines, strict=True)):
        own = {name: cells[column] for name, column in found.columns.items()}
        row, wrong = row_of_cells(piece, own, number, line, artworks)
        problems += wrong
        if row is not None:
            rows.append(RunRow(line, number + 1, own, row))
    return rows, problems


def row_of_cells(
    piece: Piece, cells: Mapping[str, str], number: int, line: int, artworks: Mapping[str, str]
) -> tuple[Row | None, list[CellProblem]]:
    """The row that cells (by field) stand for; None where one of them cannot be used."""
    values, wrong = _values(piece, cells, number, line, artworks)
    if wrong:
        return None, wrong
    row = Row(id=str(line), values=values)
    trouble = _unusable(piece, row)
    return (None, [CellProblem(line, "", trouble)]) if trouble else (row, [])


def row_of_entry(piece: Piece, entry: Entry, number: int, artworks: Mapping[str, str]) -> tuple[Row, list[CellProblem]]:
    """A row as it is kept with what can be used of it, so that it can be shown; and what is wrong with the rest.

    `number` counts rows from 0. Cells of fields that the piece does not have any more are kept, and mean nothing.
    """
    values, wrong = _values(piece, entry.cells, number, number + 1, artworks)
    row = Row(id=entry.id, values=values, differences=entry.differences, adjustments=entry.adjustments)
    if not _unusable(piece, row):
        return row, wrong
    for name, value in list(values.items()):
        trouble = _unusable(piece, Row(id=entry.id, values={name: value}))
        if trouble:
            wrong.append(CellProblem(number + 1, name, trouble))
            del values[name]
    row = Row(id=entry.id, values=values, differences=entry.differences, adjustments=entry.adjustments)
    trouble = _unusable(piece, row)
    if trouble:
        return Row(id=entry.id, values=values), [*wrong, CellProblem(number + 1, "", trouble)]
    return row, wrong


def _values(
    piece: Piece, cells: Mapping[str, str], number: int, line: int, artworks: Mapping[str, str]
) -> tuple[dict[str, Any], list[CellProblem]]:
    values, wrong = {}, []
    for name, column in columns_of(piece).items():
        try:
            value = value_of_cell(column, cells.get(name, ""), number, artworks)
        except FitzleError as error:
            wrong.append(CellProblem(line, name, str(error)))
            continue
        if value is not None:
            values[name] = value
    return values, wrong


def _unusable(piece: Piece, row: Row) -> str:
    """Why the parts of a piece cannot take what a row gives them; empty where they can."""
    try:
        parts_in(piece, None, row=row)
    except FitzleError as error:
        return str(error)
    return ""
