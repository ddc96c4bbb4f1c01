"""A run before anything of it is made: its rows, what is wrong with which cell, and what each file is called."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from pathlib import PurePosixPath
from typing import NamedTuple

from fitzle.core.errors import DocumentError
from fitzle.core.piece.document import Piece
from fitzle.core.runs.fields import matched
from fitzle.core.runs.rows import CellProblem, rows_of
from fitzle.core.runs.stems import RunFile, check_rule, check_stems, stem_for
from fitzle.core.runs.table import Table
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.spec.stems import safe_stem
from fitzle.core.units import Size

VECTOR = Size(1, 1)


class PlannedRun(NamedTuple):
    """The files of all rows in all places, row by row; problems of rows that are left out; headings of no field."""

    rows: int
    files: list[RunFile]
    problems: list[CellProblem]
    left_over: list[str]


def planned_run(
    piece: Piece,
    table: Table,
    sheets: Sequence[SpecSheet],
    rule: str,
    pictures: Mapping[str, str],
    tokens: Mapping[str, str] | None = None,
) -> PlannedRun:
    """The run of a piece for the rows of a table; `rule` names files, `tokens` are more of its tokens, `pictures` are
    artworks by what cells call them.

    Raises DocumentError where no heading is that of a field, for an unknown token, and where two files would be one.
    """
    if not piece.fields:
        raise DocumentError("this piece has no fields", advice="Name what rows may change.")
    found = matched(piece, table)
    if not found.columns:
        fields, headings = ", ".join(piece.fields), ", ".join(table.headings)
        raise DocumentError("no heading is that of a field", expected=fields, actual=headings)
    check_rule(rule, piece.fields)
    rows, problems = rows_of(piece, table, found, pictures)
    usual = {"subject": safe_stem(piece.subject), **(tokens or {})}
    files = []
    for row in rows:
        for place, sheet in enumerate(sheets):
            size = delivered_size(sheet, VECTOR, vector=True)
            told = {**usual, "placement": safe_stem(sheet.name)}
            files.append(RunFile(row, place, stem_for(rule, row, told, size)))
    check_stems(files)
    return PlannedRun(len(rows), files, problems, found.left_over)


def called(names: Iterable[str]) -> dict[str, str]:
    """Files by what cells may call them, in small letters: their name, with or without the ending."""
    known = sorted(names)
    stems = {PurePosixPath(name).stem.casefold(): name for name in known}
    return stems | {PurePosixPath(name).name.casefold(): name for name in known}
