"""`run`: the files of a piece for every row of a table."""

from __future__ import annotations

import argparse
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from functools import lru_cache
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of, written
from fitzle.cli.reading import read, spec_of
from fitzle.cli.telling import ACCEPTED, REFUSED, Answer, plain_findings
from fitzle.core.errors import FitzleError

AT_ONCE = 2  # files, of which each mostly waits for encoders that use one core
KEPT_ARTWORK = 24  # opened pictures; a mark is in every row


def run(args: argparse.Namespace) -> Answer:
    """Makes the files of all rows; what is wrong with one row stops no other."""
    from fitzle.core.piece.editing import read_piece
    from fitzle.core.runs.planning import planned_run
    from fitzle.core.runs.reading import read_table

    piece = read_piece(bytes_of(args.piece), args.piece.name)
    table = read_table(bytes_of(args.table), args.table.name)
    pictures = _Pictures(args.piece.parent, args.pictures or args.table.parent)
    sheets = [spec_of(spec) for spec in args.spec]
    more = {"date": datetime.now(UTC).date().isoformat(), "version": "1"}
    planned = planned_run(piece, table, sheets, args.name, pictures.names, more)
    making = _Making(piece, sheets, pictures, args)
    making.begin()
    with ThreadPoolExecutor(AT_ONCE) as pool:
        told = list(pool.map(making.made, planned.files))
    answer = {
        "rows": planned.rows,
        "files": told,
        "problems": [{"line": one.line, "field": one.field, "message": one.words} for one in planned.problems],
        "left_over": planned.left_over,
    }
    bad = planned.problems or any(one["verdict"] in ("refused", "failed") for one in told)
    return answer, REFUSED if bad else ACCEPTED


class _Pictures:
    """Artwork beside the piece, and what cells call by its name in the folder of pictures."""

    def __init__(self, beside: Path, folder: Path) -> None:
        self._beside, self._folder = beside, folder
        from fitzle.core.runs.planning import called

        files = [path.name for path in folder.iterdir() if path.is_file()] if folder.is_dir() else []
        self.names, self._own = called(files), frozenset(files)
        self.read = lru_cache(KEPT_ARTWORK)(self._read)

    def _read(self, name: str) -> Any:
        own = self._folder / name if name in self._own else self._beside / name
        return read(bytes_of(own), name)


class _Making:
    """Files of rows in places."""

    def __init__(self, piece: Any, sheets: list[Any], pictures: _Pictures, args: argparse.Namespace) -> None:
        self._piece, self._sheets, self._pictures, self._args = piece, sheets, pictures, args
        self._first: list[Any] = [None for _ in sheets]

    def begin(self) -> None:
        """Makes the file of the piece itself for each place: the search for those of rows begins where it ended."""
        for place, sheet in enumerate(self._sheets):
            try:
                self._first[place] = self._file(sheet, None, None).encoded
            except (FitzleError, OSError):
                continue  # what is wrong with the piece itself the rows will tell

    def _file(self, sheet: Any, row: Any, like: Any) -> Any:
        from fitzle.core.fit.alone import made_alone
        from fitzle.core.fit.beside import artwork_beside

        artworks = {name: self._pictures.read(name) for name in artwork_beside(self._piece, sheet, "", row)}
        return made_alone(self._piece, sheet, artworks, row=row, seconds=self._args.seconds, like=like)

    def made(self, file: Any) -> dict[str, Any]:
        """One file, made and written; what went wrong in words where it was not."""
        sheet = self._sheets[file.place]
        told: dict[str, Any] = {"line": file.row.line, "place": sheet.name, "file": None}
        try:
            return told | self._written(file, sheet)
        except (FitzleError, OSError) as error:
            return told | {"verdict": "failed", "message": str(error)}

    def _written(self, file: Any, sheet: Any) -> dict[str, Any]:
        from fitzle.core.formats import format_named

        made = self._file(sheet, file.row.row, self._first[file.place])
        encoded, verdict = made.encoded, made.judgement.verdict
        told: dict[str, Any] = {"verdict": verdict, "findings": plain_findings(made.judgement.findings)}
        if encoded and verdict != "refused":
            name = f"{file.stem}.{format_named(encoded.format).extension}"
            told["file"] = str(written(self._args.out, name, encoded.data))
            told["bytes"] = len(encoded.data)
        return told
