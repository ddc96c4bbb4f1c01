"""A run in a fitzle.toml: every row of its table in every place, as pictures like any other."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path, PurePosixPath

from fitzle.core.build.document import Picture, RunOf
from fitzle.core.errors import DocumentError
from fitzle.core.piece.document import Piece
from fitzle.core.runs.fields import matched
from fitzle.core.runs.rows import rows_of
from fitzle.core.runs.stems import RunFile, check_rule, check_stems, stem_for
from fitzle.core.runs.table import Table
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.spec.stems import safe_stem
from fitzle.core.units import Size

VECTOR = Size(1, 1)


def pictures_of(
    asked: RunOf, piece: Piece, table: Table, sheets: dict[str, SpecSheet], pictures: Iterable[str]
) -> list[Picture]:
    """The pictures of a run; `pictures` are the names of files in its folder of pictures, as the piece would name them.

    Raises DocumentError where a cell cannot be used or two files would be one: a build makes all or says why not.
    """
    found = matched(piece, table)
    if not found.columns:
        raise DocumentError(
            "no heading is that of a field", subject=asked.table, expected=", ".join(piece.fields) or "any field",
            actual=", ".join(table.headings),
        )  # fmt: skip
    check_rule(asked.name, piece.fields)
    rows, problems = rows_of(piece, table, found, _by_name(pictures))
    if problems:
        first, more = problems[0], f" ({len(problems) - 1} more)" if len(problems) > 1 else ""
        raise DocumentError(f"line {first.line}: {first.words}{more}", subject=asked.table)
    files: list[RunFile] = []
    made: list[Picture] = []
    for number, row in enumerate(rows, 1):
        for at, (place, sheet) in enumerate(sheets.items()):
            tokens = {"subject": safe_stem(piece.subject), "placement": safe_stem(sheet.name)}
            stem = stem_for(asked.name, row, number, tokens, delivered_size(sheet, VECTOR, vector=True))
            files.append(RunFile(row, at, stem))
            made.append(
                Picture(
                    piece=asked.piece,
                    place=place,
                    row=row.row.values,
                    file=_below(asked.folder, stem),
                    accept=asked.accept,
                )
            )
    check_stems(files)
    return made


def _by_name(pictures: Iterable[str]) -> dict[str, str]:
    """Files by what cells may call them: their name, with or without the ending."""
    known = sorted(pictures)
    stems = {PurePosixPath(name).stem.casefold(): name for name in known}
    return stems | {PurePosixPath(name).name.casefold(): name for name in known}


def _below(folder: str, stem: str) -> str:
    return str(PurePosixPath(folder) / stem) if folder else stem


def picture_files(folder: Path, piece: Path) -> list[str]:
    """The files in a folder of pictures, each named from the folder of the piece."""
    if not folder.is_dir():
        raise DocumentError("there is no such folder of pictures", subject=str(folder))
    if not folder.is_relative_to(piece.parent):
        raise DocumentError("pictures lie beside the piece, or below it", subject=str(folder))
    return [path.relative_to(piece.parent).as_posix() for path in sorted(folder.iterdir()) if path.is_file()]
