"""`run`: the files of a piece for every row of a table."""

from __future__ import annotations

import argparse
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from functools import lru_cache
from pathlib import Path
from typing import Any

from fitzle.cli.files import bytes_of, written
from fitzle.cli.reading import read, spec_of
from fitzle.cli.telling import ACCEPTED, REFUSED, Answer, plain_findings
from fitzle.core.errors import DocumentError, FitzleError

AT_ONCE = 2  # files, of which each mostly waits for encoders that use one core
KEPT_ARTWORK = 24  # opened pictures; a mark is in every row


def run(args: argparse.Namespace) -> Answer:
    """Makes the files of all rows; what is wrong with one row stops no other."""
    from fitzle.core.piece.editing import read_piece
    from fitzle.core.runs.fields import matched
    from fitzle.core.runs.reading import read_table
    from fitzle.core.runs.rows import rows_of
    from fitzle.core.runs.stems import check_rule, check_stems

    piece = read_piece(bytes_of(args.piece), args.piece.name)
    if not piece.fields:
        raise DocumentError("this piece has no fields", subject=args.piece.name, advice="Name what rows may change.")
    table = read_table(bytes_of(args.table), args.table.name)
    found = matched(piece, table)
    if not found.columns:
        raise DocumentError(
            "no heading is that of a field",
            subject=args.table.name,
            expected=", ".join(piece.fields),
            actual=", ".join(table.headings),
        )
    check_rule(args.name, piece.fields)
    pictures = _Pictures(args.piece.parent, args.pictures or args.table.parent)
    rows, problems = rows_of(piece, table, found, pictures.names)
    making = _Making(piece, [spec_of(spec) for spec in args.spec], pictures, args)
    files = [file for number, row in enumerate(rows, 1) for file in making.planned(row, number)]
    check_stems(files)
    making.begin()
    with ThreadPoolExecutor(AT_ONCE) as pool:
        told = list(pool.map(making.made, files))
    answer = {
        "rows": len(rows),
        "files": told,
        "problems": [{"line": one.line, "field": one.field, "message": one.words} for one in problems],
        "left_over": found.left_over,
    }
    bad = problems or any(one["verdict"] in ("refused", "failed") for one in told)
    return answer, REFUSED if bad else ACCEPTED


class _Pictures:
    """Artwork beside the piece, and what cells call by its name in the folder of pictures."""

    def __init__(self, beside: Path, folder: Path) -> None:
        self._beside, self._folder = beside, folder
        self.names = dict(self._called(folder))
        self.read = lru_cache(KEPT_ARTWORK)(self._read)

    @staticmethod
    def _called(folder: Path) -> Iterator[tuple[str, str]]:
        for path in sorted(folder.iterdir()) if folder.is_dir() else ():
            if path.is_file():
                yield path.stem.casefold(), path.name
        for path in sorted(folder.iterdir()) if folder.is_dir() else ():
            if path.is_file():
                yield path.name.casefold(), path.name

    def _read(self, name: str) -> Any:
        own = self._folder / name if name in self.names.values() else self._beside / name
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

    def planned(self, row: Any, number: int) -> list[Any]:
        """The files of a row, named."""
        from fitzle.core.runs.stems import RunFile, stem_for
        from fitzle.core.spec.sizing import delivered_size
        from fitzle.core.spec.stems import safe_stem
        from fitzle.core.units import Size

        today = datetime.now(UTC).date().isoformat()
        files = []
        for place, sheet in enumerate(self._sheets):
            subject, name = safe_stem(self._piece.subject), safe_stem(sheet.name)
            tokens = {"subject": subject, "placement": name, "date": today, "version": "1"}
            size = delivered_size(sheet, Size(1, 1), vector=True)
            files.append(RunFile(row, place, stem_for(self._args.name, row, number, tokens, size)))
        return files

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
