"""Tables as spreadsheets write them: separators, quotes, encodings, workbooks, and what is too much."""

import io

import openpyxl
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.errors import DocumentError
from fitzle.core.runs.reading import MOST_UNPACKED, pasted_cells, read_table
from fitzle.core.runs.table import LONGEST_CELL, MOST_COLUMNS, MOST_ROWS, Table, table_of
from fitzle.core.runs.writing import written_csv, written_xlsx

WANTED = Table(("title", "guest"), [("True a wheel", "Rowan"), ("Grüße; groß, klein", "Ida")], [2, 3])


def workbook(*lines: list[object], **sheets: list[list[object]]) -> bytes:
    book = openpyxl.Workbook()
    assert book.active
    for line in lines:
        book.active.append(line)
    for name, own in sheets.items():
        sheet = book.create_sheet(name)
        for line in own:
            sheet.append(line)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


@pytest.mark.parametrize(
    "data",
    [
        'title,guest\r\nTrue a wheel,Rowan\r\n"Grüße; groß, klein",Ida\r\n'.encode(),
        'title;guest\nTrue a wheel;Rowan\n"Grüße; groß, klein";Ida'.encode("utf-8-sig"),
        "title\tguest\nTrue a wheel\tRowan\nGrüße; groß, klein\tIda\n".encode("utf-16"),
        'title;guest\r\nTrue a wheel;Rowan\r\n"Grüße; groß, klein";Ida'.encode("cp1252"),
        'sep=|\r\ntitle|guest\r\nTrue a wheel|Rowan\r\n"Grüße; groß, klein"|Ida'.encode(),
        workbook(["title", "guest"], ["True a wheel", "Rowan"], ["Grüße; groß, klein", "Ida"]),
        written_csv(WANTED),
        written_xlsx(WANTED),
    ],
    ids=["commas", "semicolons", "tabs, UTF-16", "Windows", "told", "workbook", "own CSV", "own workbook"],
)
def test_the_same_table_comes_out_of_all_of_them(data: bytes) -> None:
    found = read_table(data)
    assert (found.headings, found.rows) == (WANTED.headings, WANTED.rows)


def test_lines_within_quotes_and_empty_ones_keep_where_they_stood() -> None:
    found = read_table(b'\n\ntitle,guest\n"two\nlines",Rowan\n,,\n  Say "Ding" ,"He said ""no"""\n')
    assert found.rows == [("two\nlines", "Rowan"), ('Say "Ding"', 'He said "no"')]
    assert found.lines == [4, 6]


def test_a_workbook_gives_what_somebody_would_type() -> None:
    import datetime

    day = datetime.datetime(2026, 11, 30)
    found = read_table(workbook(["a", "b", "c", "d", "e"], [1, 2.5, True, day, None], [3.0, "=1+1", False, "x", "y"]))
    assert found.rows[0] == ("1", "2.5", "yes", "2026-11-30", "")
    assert found.rows[1] == ("3", "", "no", "x", "y"), "a formula is never run: its last value counts, and it has none"


def test_the_first_sheet_that_shows_is_read() -> None:
    book = openpyxl.load_workbook(io.BytesIO(workbook(["hidden"], ["x"], Run=[["title"], ["y"]])))
    book.worksheets[0].sheet_state = "hidden"
    out = io.BytesIO()
    book.save(out)
    assert read_table(out.getvalue()).headings == ("title",)


CELLS = st.text(st.characters(exclude_categories=("Cs", "Cc")), max_size=30).map(str.strip)


@given(st.lists(st.tuples(CELLS, CELLS.filter(bool)), min_size=1, max_size=6))
def test_what_is_written_is_read_again(rows: list[tuple[str, str]]) -> None:
    table = table_of([["a", "b"], *rows])
    assert read_table(written_csv(table)) == table
    assert read_table(written_xlsx(table)) == table


@pytest.mark.parametrize("sign", ["=", "+", "-", "@"])
def test_no_cell_becomes_a_formula(sign: str) -> None:
    table = table_of([["a"], [f'{sign}HYPERLINK("x")']])
    cell = written_csv(table).decode("utf-8-sig").splitlines()[1]
    assert cell.lstrip('"').startswith("'" + sign)
    book = openpyxl.load_workbook(io.BytesIO(written_xlsx(table)))
    assert book.active and book.active["A2"].data_type == "s"
    assert read_table(written_csv(table)) == table


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (b"", "empty"),
        (b"\n,,\n", "empty"),
        (b"a,A\n1,2", "columns 1 and 2 are both called 'A'"),
        (b"a,b\n1,2,3", "line 2 has 3 cells"),
        (("a\n" + "x" * (LONGEST_CELL + 1)).encode(), "line 2, column 1"),
        (("a\n" + "x" * 1_000_000).encode(), "1,000,000 letters"),
        (",".join(f"c{n}" for n in range(500)).encode(), "500 columns"),
        (b"a\n" + b"x\n" * 100_000, f"more than {MOST_ROWS:,} rows"),
        (b"PK\x03\x04nonsense", "cannot be read"),
        (b"\xd0\xcf\x11\xe0" + bytes(600), "old kind"),
        (b"\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR", "no table"),
        (workbook(), "empty"),
    ],
    ids=lambda value: "data" if isinstance(value, bytes) else value,  # workbooks have the time in them
)
def test_what_is_no_table_or_too_much_is_said(data: bytes, said: str) -> None:
    with pytest.raises(DocumentError, match=said.replace("(", r"\(")) as caught:
        read_table(data, "rows.csv")
    assert "rows.csv" in str(caught.value)


def test_a_workbook_that_would_fill_the_memory_is_not_unpacked() -> None:
    from zipfile import ZIP_DEFLATED, ZipFile

    out = io.BytesIO()
    with ZipFile(out, "w", ZIP_DEFLATED) as packed, packed.open("xl/workbook.xml", "w", force_zip64=True) as file:
        for _ in range(MOST_UNPACKED // 10_000_000 + 1):
            file.write(bytes(10_000_000))
    with pytest.raises(DocumentError, match="too large when it is unpacked"):
        read_table(out.getvalue())


def test_cells_from_the_clipboard() -> None:
    assert pasted_cells("a\tb\r\nc\t\r\n") == [["a", "b"], ["c", ""]]
    assert pasted_cells('One\tbeyond\nTwo, and three\n"of\ntwo lines"') == [
        ["One", "beyond"], ["Two, and three"], ["of\ntwo lines"],
    ]  # fmt: skip
    assert len(pasted_cells("a\n" * (MOST_ROWS + 5))) == MOST_ROWS
    assert MOST_COLUMNS >= 60
