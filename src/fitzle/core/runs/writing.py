"""Tables written so that a spreadsheet opens them as text: no cell becomes a formula (OWASP, "CSV Injection")."""

from __future__ import annotations

import csv
import io

from fitzle.core.runs.reading import FORMULA_SIGNS, QUOTED_BY
from fitzle.core.runs.table import Table


def written_csv(table: Table) -> bytes:
    """UTF-8 with its mark, commas, lines ended as RFC 4180 has them; read again it is the same table."""
    out = io.StringIO(newline="")
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([_safe(heading) for heading in table.headings])
    writer.writerows([[_safe(cell) for cell in row] for row in table.rows])
    return out.getvalue().encode("utf-8-sig")


def written_xlsx(table: Table) -> bytes:
    """A workbook of one sheet, every cell of it text."""
    import openpyxl
    from openpyxl.cell import WriteOnlyCell
    from openpyxl.cell.cell import ILLEGAL_CHARACTERS_RE

    book = openpyxl.Workbook(write_only=True)
    sheet = book.create_sheet("Run")
    sheet.freeze_panes = "A2"
    for row in (table.headings, *table.rows):
        cells = []
        for text in row:
            cell = WriteOnlyCell(sheet, value=ILLEGAL_CHARACTERS_RE.sub("", text))
            cell.data_type = "s"
            cells.append(cell)
        sheet.append(cells)
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


def _safe(cell: str) -> str:
    return f"{QUOTED_BY}{cell}" if cell.startswith((*FORMULA_SIGNS, QUOTED_BY)) else cell
