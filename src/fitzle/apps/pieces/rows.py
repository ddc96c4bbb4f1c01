"""The rows of runs for the other modules: as they are kept, and as they change their piece."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.http import Http404

from fitzle.apps.artwork.library import ready_names
from fitzle.apps.jobs.queue import look_at_rows_later
from fitzle.apps.pieces.models import Fit, Piece, Run, RunRow
from fitzle.core.errors import DocumentError
from fitzle.core.piece.document import Piece as Document
from fitzle.core.piece.document import Row
from fitzle.core.piece.editing import piece_from
from fitzle.core.runs.document import Entry, Rows
from fitzle.core.runs.fields import columns_of
from fitzle.core.runs.names import row_tokens
from fitzle.core.runs.planning import called
from fitzle.core.runs.rows import CellProblem, row_of_entry
from fitzle.core.spec.naming import rule_for
from fitzle.core.spec.tokens import USUAL_RULE

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

LOOKED_AT_AFTER_S = 1.5  # without a further change: rows are many
OF_ARTWORK = ("picture", "mark")


class OpenRow(NamedTuple):
    """A row with what it makes of its piece; `told` is what its fields say, `problems` are those with its cells."""

    run: Run
    entry: Entry
    number: int
    row: Row
    problems: list[CellProblem]
    told: dict[str, str]

    @property
    def tokens(self) -> dict[str, str]:
        """What it gives to the tokens of a rule for names."""
        return row_tokens(self.told, self.number + 1)


def run_of(piece: Piece) -> Run:
    """The run of a piece; Http404 where it has none."""
    found = Run.objects.filter(piece=piece).first()
    if found is None:
        raise Http404("This piece has no rows.")
    return found


def number_of_rows(piece: Piece) -> int:
    """How many rows the run of a piece has; 0 without one."""
    return len(Run.objects.filter(piece=piece).values_list("order", flat=True).first() or ())


def rows_of(run: Run) -> Rows:
    """All rows of a run in their order."""
    kept = dict(run.rows.values_list("row", "document"))
    return Rows(Entry.model_validate(kept[row]) for row in run.order if row in kept)


def open_rows(
    workspace: Workspace, document: Document, run: Run, rows: Iterable[Entry], pictures: Mapping[str, str] | None = None
) -> list[OpenRow]:
    """Rows as they change their piece; `pictures` are artwork by what cells call it, if somebody looked it up."""
    numbers = {row: number for number, row in enumerate(run.order)}
    known = pictures_for(workspace, document) if pictures is None else pictures
    return [_opened(document, run, entry, numbers.get(entry.id, 0), known) for entry in rows]


def _opened(document: Document, run: Run, entry: Entry, number: int, pictures: Mapping[str, str]) -> OpenRow:
    row, problems = row_of_entry(document, entry, number, pictures)
    cells = {name: entry.cells.get(name, "") for name in document.fields}
    told = {name: text or str(row.values.get(name, "")) for name, text in cells.items()}
    return OpenRow(run, entry, number, row, problems, told)


def pictures_for(workspace: Workspace, document: Document) -> dict[str, str]:
    """The artwork that cells of a piece's fields may name: by id, and by name with or without its ending.

    Of two that are called the same the newer one.
    """
    if not any(column.kind in OF_ARTWORK for column in columns_of(document).values()):
        return {}
    named = dict[str, str]()
    ids = dict[str, str]()
    for key, name in ready_names(workspace):
        named[name], ids[key] = key, key
    return {written: named[name] for written, name in called(named).items()} | ids


def rows_for(fits: Iterable[Fit], documents: Mapping[UUID, Document]) -> dict[tuple[UUID, str], OpenRow]:
    """The rows that fits are of, by the id of their piece and their own; what is not there any more is left out."""
    wanted: dict[UUID, set[str]] = {}
    pieces = {}
    for fit in fits:
        if fit.row and fit.pk in documents:
            wanted.setdefault(fit.piece_id, set()).add(fit.row)
            pieces[fit.piece_id] = (fit.piece.workspace, documents[fit.pk])
    found = {}
    for run in Run.objects.filter(piece__in=wanted) if wanted else ():
        workspace, document = pieces[run.piece_id]
        kept = RunRow.objects.filter(run=run)
        if len(wanted[run.piece_id]) < len(run.order) / 2:
            kept = kept.filter(row__in=wanted[run.piece_id])
        entries = [Entry.model_validate(one) for row, one in kept.values_list("row", "document") if row in run.order]
        for opened in open_rows(workspace, document, run, entries):
            found[run.piece_id, opened.entry.id] = opened
    return found


def naming_of(run: Run, document: Document, house: str) -> str:
    """The rule for the names of a run's files: its own, else the usual one with what tells rows apart."""
    if run.naming:
        return run.naming
    words = next((column.name for column in columns_of(document).values() if column.kind == "words"), "")
    own = f"-{{{words}}}" if words else ""
    return f"{rule_for(USUAL_RULE, house)}-{{row}}{own}"


def check_row(workspace: Workspace, run: Run, row: str) -> None:
    """Raises DocumentError where what differs by hand in a row is nothing that its parts can be."""
    [entry] = [one for one in rows_of(run) if one.id == row]
    [opened] = open_rows(workspace, piece_from(run.piece.document), run, [entry])
    trouble = next((one.words for one in opened.problems if not one.field), "")
    if trouble:
        raise DocumentError(trouble)


def look_at_rows_again(piece: Piece) -> None:
    """Has the rows of a piece looked at, once nobody has changed anything for a moment; nothing where it has none."""
    if Run.objects.filter(piece=piece).exists():
        look_at_rows_later(piece.pk, LOOKED_AT_AFTER_S)
