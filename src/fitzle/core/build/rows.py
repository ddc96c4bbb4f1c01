"""A run in a fitzle.toml: every row of its table in every place, as pictures like any other."""

from __future__ import annotations

from collections.abc import Iterable
from pathlib import Path, PurePosixPath

from fitzle.core.build.document import Picture, RunOf
from fitzle.core.errors import DocumentError, FitzleError
from fitzle.core.piece.document import Piece
from fitzle.core.runs.planning import called, planned_run
from fitzle.core.runs.table import Table
from fitzle.core.spec.sheet import SpecSheet


def pictures_of(
    asked: RunOf, piece: Piece, table: Table, sheets: dict[str, SpecSheet], pictures: Iterable[str]
) -> list[Picture]:
    """The pictures of a run; `pictures` are the names of files in its folder of pictures, as the piece would name them.

    Raises DocumentError where a cell cannot be used or two files would be one: a build makes all or says why not.
    """
    try:
        planned = planned_run(piece, table, list(sheets.values()), asked.name, called(pictures))
    except FitzleError as error:
        raise error.about(asked.table) from error
    if planned.problems:
        first, others = planned.problems[0], len(planned.problems) - 1
        more = f" ({others} more)" if others else ""
        raise DocumentError(f"line {first.line}: {first.words}{more}", subject=asked.table)
    places = list(sheets)
    return [
        Picture(
            piece=asked.piece,
            place=places[file.place],
            row=file.row.row.values,
            file=_below(asked.folder, file.stem),
            accept=asked.accept,
        )
        for file in planned.files
    ]


def _below(folder: str, stem: str) -> str:
    return str(PurePosixPath(folder) / stem) if folder else stem


def picture_files(folder: Path, piece: Path) -> list[str]:
    """The files in a folder of pictures, each named from the folder of the piece."""
    if not folder.is_dir():
        raise DocumentError("there is no such folder of pictures", subject=str(folder))
    if not folder.is_relative_to(piece.parent):
        raise DocumentError("pictures lie beside the piece, or below it", subject=str(folder))
    return [path.relative_to(piece.parent).as_posix() for path in sorted(folder.iterdir()) if path.is_file()]
