"""Sheets out of files: sheet files, ZIPs of them, and pictures that a place took."""

from __future__ import annotations

import io
import zipfile
from typing import TYPE_CHECKING, NamedTuple, get_args

from fitzle.core.artwork.header import read_header
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.sniff import SNIFFED_BYTES, sniff_format
from fitzle.core.errors import ArtworkError, DocumentError, FitzleError
from fitzle.core.formats import Format
from fitzle.core.spec.reading import read_spec_sheet
from fitzle.core.spec.sheet import SpecSheet

if TYPE_CHECKING:
    from collections.abc import Iterator

MOST_FILES, MOST_SHEETS, MOST_SHEET_BYTES = 5000, 500, 1_000_000
ZIP, JSON = b"PK", (b"{", b"\xef")
NAMED = 120


class Taken(NamedTuple):
    """A file and the sheet that came of it, or why none did."""

    file: str
    sheet: SpecSheet | None
    message: str = ""


def sheets_of(name: str, data: bytes) -> list[Taken]:
    """What one file gives: a sheet file its sheet, a ZIP the sheets in it, a picture one that asks for such a file."""
    try:
        if data.startswith(ZIP):
            return list(_in_zip(data))
        sheet = read_spec_sheet(data, name) if data.lstrip()[:1] in JSON else _of_picture(name, data)
    except FitzleError as error:
        return [Taken(name, None, error.about(name).message)]
    return [Taken(name, sheet)]


def _in_zip(data: bytes) -> Iterator[Taken]:
    """Names in a ZIP are words to be shown, never paths."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            files = [entry for entry in archive.infolist() if not entry.is_dir()]
            sheets = [entry for entry in files if entry.filename.lower().endswith(".json")]
            if len(files) > MOST_FILES or len(sheets) > MOST_SHEETS:
                most = f"at most {MOST_SHEETS} sheets among {MOST_FILES:,} files are taken of one ZIP"
                raise DocumentError(f"there are {len(files):,} files in this ZIP; {most}", advice="Split it.")
            if not sheets:
                raise DocumentError("there is no sheet file (.json) in this ZIP", advice="Choose another one.")
            for entry in sheets:
                yield _in_entry(archive, entry)
    except (zipfile.BadZipFile, EOFError) as error:
        raise DocumentError("this ZIP is damaged or cut off", advice="Copy it again.") from error


def _in_entry(archive: zipfile.ZipFile, entry: zipfile.ZipInfo) -> Taken:
    name = entry.filename[-NAMED:]
    try:
        with archive.open(entry) as stream:
            data = stream.read(MOST_SHEET_BYTES + 1)
        if len(data) > MOST_SHEET_BYTES:
            raise DocumentError("this sheet file is larger than 1 MB", subject=name)
        return Taken(name, read_spec_sheet(data, name))
    except FitzleError as error:
        return Taken(name, None, error.message)
    except (RuntimeError, NotImplementedError):
        return Taken(name, None, f"{name}: this file is locked by a password.")


def _of_picture(name: str, data: bytes) -> SpecSheet:
    fmt = sniff_format(data[:SNIFFED_BYTES])
    if fmt is None or fmt not in get_args(Format) or fmt in ("svg", "lottie", "mp4", "webm"):
        raise ArtworkError(
            "no sheet can be made of this", subject=name, advice="Choose a sheet file, a ZIP of them, or a picture."
        )
    header = read_header(data, fmt, Limits())
    values = {
        "fitzle_spec": 1,
        "name": (name.rpartition(".")[0] or name)[:NAMED],
        "size": {"width": header.width, "height": header.height},
        "formats": [fmt],
        "motion": {"allowed": header.frames > 1},
    }
    return SpecSheet.model_validate(values)
