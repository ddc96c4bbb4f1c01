"""Tables read from what spreadsheets write: CSV (RFC 4180 and its usual kin), text with tabs, and XLSX (ECMA-376)."""

from __future__ import annotations

import csv
import io
import re
from collections import Counter
from collections.abc import Iterator, Sequence
from datetime import date, datetime, time
from itertools import islice
from typing import Any
from zipfile import BadZipFile, ZipFile

from fitzle.core.errors import DocumentError, FitzleError
from fitzle.core.runs.table import MOST_COLUMNS, MOST_ROWS, Table, table_of

SEPARATORS = (",", ";", "\t", "|")
LOOKED_AT = 50  # lines, to find the separator
MOST_BYTES = 64_000_000
MOST_UNPACKED = 400_000_000  # bytes of an XLSX: a small file may be made to fill the memory
QUOTED_BY = "'"  # what spreadsheets put before a cell that would else be a formula
FORMULA_SIGNS = ("=", "+", "-", "@", "\t", "\r")
BOMS = ((b"\xef\xbb\xbf", "utf-8-sig"), (b"\xff\xfe", "utf-16"), (b"\xfe\xff", "utf-16"))
TOLD = re.compile(r"sep=(.)\r?\n", re.IGNORECASE)  # a first line with which spreadsheets tell the separator
OLD_EXCEL = b"\xd0\xcf\x11\xe0"


def read_table(data: bytes, name: str = "the table") -> Table:
    """The table of a file; which kind it is the data say, not the name. Formulas are never run.

    Raises DocumentError about `name` for what is no table, or is larger than may be.
    """
    try:
        if len(data) > MOST_BYTES:
            raise DocumentError("this table is too large", expected=f"at most {MOST_BYTES // 1_000_000} MB")
        if data[:4] == b"PK\x03\x04":
            return _of_xlsx(data)
        if data[:4] == OLD_EXCEL:
            raise DocumentError("this is a workbook of an old kind", advice="Save it as XLSX or CSV.")
        return table_of(_lines_of_text(_decoded(data)))
    except FitzleError as error:
        raise error.about(name) from error


def pasted_cells(text: str) -> list[list[str]]:
    """Cells from the clipboard without headings, row by row; spreadsheets put tabs between them, nothing else does."""
    return [list(cells) for cells in islice(_lines_of_text(text, "\t"), MOST_ROWS)]


def _decoded(data: bytes) -> str:
    """UTF-8 or UTF-16 by its mark, UTF-8 where it is that, else Windows-1252, which spreadsheets write."""
    encoding = next((encoding for mark, encoding in BOMS if data.startswith(mark)), None)
    try:
        text = data.decode(encoding or "utf-8")
    except UnicodeDecodeError:
        text = data.decode("cp1252", errors="replace")
    if "\0" in text:
        raise DocumentError("this is no table", expected="CSV, text with tabs between cells, or XLSX")
    return text


def _lines_of_text(text: str, separator: str = "") -> Iterator[Sequence[str]]:
    told = None if separator else TOLD.match(text)
    text = text[told.end() :] if told else text
    separator = separator or (told[1] if told else _separator(text))
    csv.field_size_limit(MOST_BYTES)  # cells that are too long are told with their place
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=separator, strict=False)
    try:
        for cells in reader:
            yield [_without_quote(cell) for cell in cells]
    except csv.Error as error:
        raise DocumentError(
            f"line {reader.line_num} cannot be read: {error}", advice="Look for a quote that is never closed."
        ) from error


def _without_quote(cell: str) -> str:
    """A cell without the sign that kept it from being a formula."""
    quoted = cell.startswith(QUOTED_BY) and cell[1:].startswith((*FORMULA_SIGNS, QUOTED_BY))
    return cell[1:] if quoted else cell


def _separator(text: str) -> str:
    """The separator that gives most lines the same number of cells, and more than one: of two as good the first."""
    first = [line for line in islice(io.StringIO(text), LOOKED_AT) if line.strip()]

    def agreement(separator: str) -> tuple[float, int]:
        try:
            counts = Counter(len(cells) for cells in csv.reader(first, delimiter=separator) if cells)
        except csv.Error:
            return 0.0, 0
        usual, times = max(counts.items(), key=lambda entry: (entry[1], entry[0]), default=(0, 0))
        return (times / max(1, counts.total()) if usual > 1 else 0.0), usual

    return max(SEPARATORS, key=agreement)


def _of_xlsx(data: bytes) -> Table:
    import openpyxl

    try:
        with ZipFile(io.BytesIO(data)) as packed:
            if sum(entry.file_size for entry in packed.infolist()) > MOST_UNPACKED:
                raise DocumentError("this workbook is too large when it is unpacked")
            if "xl/workbook.xml" not in packed.namelist():
                raise DocumentError("this is no table", expected="CSV, text with tabs between cells, or XLSX")
        book = openpyxl.load_workbook(io.BytesIO(data), read_only=True, data_only=True)
        try:
            shown = [sheet for sheet in book.worksheets if sheet.sheet_state == "visible"]
            if not shown:
                raise DocumentError("this workbook has no sheet that shows", advice="Let the one with the table show.")
            sheet = shown[0]
            sheet.reset_dimensions()  # what it says of its size may be wrong
            return table_of(_lines_of_sheet(sheet))
        finally:
            book.close()
    except FitzleError:
        raise
    except (BadZipFile, KeyError, ValueError, TypeError, AttributeError, OSError, SyntaxError, EOFError) as error:
        raise DocumentError("this workbook cannot be read", advice="Save it anew, or as CSV.") from error


def _lines_of_sheet(sheet: Any) -> Iterator[Sequence[str]]:
    blank = 0
    for cells in sheet.iter_rows(values_only=True, max_col=MOST_COLUMNS + 1):
        blank = 0 if any(cell is not None for cell in cells) else blank + 1
        if blank > MOST_ROWS:
            return
        yield [_text_of(cell) for cell in cells]


def _text_of(value: object) -> str:
    """A value of a workbook as somebody would type it."""
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float) and value.is_integer() and abs(value) < 1e15:
        return str(int(value))
    if isinstance(value, datetime) and value.time() == time():
        return value.date().isoformat()
    if isinstance(value, date | datetime | time):
        return value.isoformat(sep=" ") if isinstance(value, datetime) else value.isoformat()
    return str(value)
