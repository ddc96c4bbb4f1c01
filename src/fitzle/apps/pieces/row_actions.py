"""What people do to the rows of a run: begin one, change cells, paste, read tables, take steps back."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID, uuid4

from django.core.exceptions import PermissionDenied
from django.http import Http404

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.artwork.library import is_id
from fitzle.apps.pieces import saving
from fitzle.apps.pieces.actions import change_piece
from fitzle.apps.pieces.models import Fit, Piece, Run
from fitzle.apps.pieces.row_fits import keep_row_fits, places_of_run
from fitzle.apps.pieces.row_history import keep_changes, step_back, step_forward
from fitzle.apps.pieces.rows import OF_ARTWORK, look_at_rows_again, rows_of, run_of
from fitzle.core.errors import DocumentError
from fitzle.core.piece.changes import NameField
from fitzle.core.piece.document import Piece as Document
from fitzle.core.piece.fills import Solid
from fitzle.core.piece.parts import AnyPart, artwork_of_part
from fitzle.core.runs.changes import AddRow, AnyRowChange, Applied, Differ, SetCell, pasted_changes
from fitzle.core.runs.document import Entry
from fitzle.core.runs.fields import Column, columns_of, matched, proposed_fields
from fitzle.core.runs.stems import check_rule
from fitzle.core.runs.table import Table

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

STRANGERS = "Ask whoever gave you this run: you may fill in its cells, and change nothing else."


class Pasted(NamedTuple):
    """What pasting or reading a table came to; `left_over` are the headings of no field."""

    applied: Applied
    rows: int
    left_over: list[str]


@action(Capability.CHANGE)
def begin_run(access: Access, piece_id: UUID) -> Run:
    """The run of a piece, with a first row that says what the piece says; the run that it has already.

    A piece without fields gets those that a series most likely changes. Raises DocumentError where there are none.
    """
    piece = saving.piece_of(access.workspace, piece_id)
    found = Run.objects.filter(piece=piece).first()
    if found is not None:
        return found
    document = saving.document_of(piece)
    if not document.fields:
        proposed = proposed_fields(document)
        if not proposed:
            raise DocumentError("nothing in this piece would change from row to row", advice="Add words or a picture.")
        changes = [NameField(name=name, target=target) for name, target in proposed.items()]
        piece = change_piece(access, piece_id, piece.revision, changes, "name what rows change")
        document = saving.document_of(piece)
    run = Run.objects.create(piece=piece)
    keep_changes(run, access.actor, [], "begin the run")
    first = AddRow(entry=Entry(id=_new_id(), cells=own_cells(document)))
    keep_changes(run, access.actor, [first], "add a row")
    look_at_rows_again(piece)
    return run


@action(Capability.FILL)
def change_rows(
    access: Access, piece_id: UUID, changes: Sequence[AnyRowChange], step: str, key: UUID | None = None
) -> Applied:
    """Changes rows; those that clash with what somebody else changed are not made, and given with what is there.

    A save whose `key` came before is not made again.
    """
    if any(_differs_by_hand(change) for change in changes):
        _require_change(access)
    piece = saving.piece_of(access.workspace, piece_id)
    applied = keep_changes(run_of(piece), access.actor, changes, step, key)
    look_at_rows_again(piece)
    return applied


@action(Capability.FILL)
def paste_cells(
    access: Access, piece_id: UUID, rows: Sequence[str], fields: Sequence[str], cells: Sequence[Sequence[str]]
) -> Applied:
    """Fills cells from a corner on: `rows` and `fields` are what is shown from there, in the order it is shown."""
    piece = saving.piece_of(access.workspace, piece_id)
    run = run_of(piece)
    known = set(columns_of(saving.document_of(piece)))
    there = rows_of(run)
    order = [row for row in rows if row in there]
    changes = pasted_changes(there, order, [name for name in fields if name in known], cells, _new_ids())
    applied = keep_changes(run, access.actor, changes, "paste cells")
    look_at_rows_again(piece)
    return applied


@action(Capability.FILL)
def add_table(access: Access, piece_id: UUID, table: Table) -> Pasted:
    """A row for each row of a table, below those that are there. Raises DocumentError where no heading is a field's."""
    piece = saving.piece_of(access.workspace, piece_id)
    document = saving.document_of(piece)
    found = matched(document, table)
    if not found.columns:
        fields, headings = ", ".join(document.fields), ", ".join(table.headings)
        raise DocumentError("no heading is that of a field", expected=fields, actual=headings)
    changes: list[AnyRowChange] = []
    for cells in table.rows:
        own = {name: cells[column] for name, column in found.columns.items() if cells[column]}
        if own:
            changes.append(AddRow(entry=Entry(id=_new_id(), cells=own)))
    applied = keep_changes(run_of(piece), access.actor, changes, "read a table")
    look_at_rows_again(piece)
    return Pasted(applied, len(changes), found.left_over)


class CellTarget(NamedTuple):
    """Where a picture goes that was dropped on a run: a cell, or (no row) the row that names it, else a new one."""

    piece: Piece
    field: str
    row: str


def cell_of(workspace: Workspace, target: str) -> CellTarget:
    """What `row/PIECE/FIELD` or `row/PIECE/FIELD/ROW` says. Http404 unless it is a run of the workspace; DocumentError
    for anything that is no such target.
    """
    _, key, field, row, *more = [*target.split("/"), "", ""][:6]
    if not is_id(key) or any(more):
        raise DocumentError("this is no place to drop a file")
    piece = saving.piece_of(workspace, key)
    run = run_of(piece)
    column = columns_of(saving.document_of(piece)).get(field)
    if column is None or column.kind not in OF_ARTWORK or (row and row not in run.order):
        raise DocumentError("this is no place to drop a file", advice="Drop it on a cell for pictures.")
    return CellTarget(piece, field, row)


@action(Capability.FILL)
def put_into_row(access: Access, artwork: UUID, name: str, target: str) -> bool:
    """A picture that was dropped: into its cell, or a new row for it unless a cell names it already; whether any cell
    was changed.
    """
    piece, field, row = cell_of(access.workspace, target)
    run = run_of(piece)
    named = {name.casefold(), name.rpartition(".")[0].casefold()}
    if row:
        change: AnyRowChange = SetCell(row=row, field=field, text=str(artwork))
    elif any(entry.cells.get(field, "").strip().casefold() in named for entry in rows_of(run)):
        look_at_rows_again(piece)
        return False
    else:
        change = AddRow(entry=Entry(id=_new_id(), cells={field: name}))
    keep_changes(run, access.actor, [change], "put a picture into a row")
    look_at_rows_again(piece)
    return True


@action(Capability.CHANGE)
def fit_of_row(access: Access, piece_id: UUID, row: str, placement: UUID) -> Fit:
    """The fit of a row in a place, for the bench; Http404 where either is not there."""
    piece = saving.piece_of(access.workspace, piece_id)
    run = run_of(piece)
    places = places_of_run(piece)
    if row not in run.order or all(fit.placement_id != placement for fit in places):
        raise Http404("This row, or this place, is not there any more.")
    return next(fit for fit in keep_row_fits(run, [row], places) if fit.placement_id == placement)


@action(Capability.CHANGE)
def name_files(access: Access, piece_id: UUID, rule: str) -> Run:
    """Another rule for the names of a run's files; empty for the usual one. Raises DocumentError for unknown tokens."""
    piece = saving.piece_of(access.workspace, piece_id)
    run = run_of(piece)
    check_rule(rule, saving.document_of(piece).fields)
    run.naming = rule.strip()
    run.save(update_fields=["naming"])
    return run


@action(Capability.FILL)
def undo_rows(access: Access, piece_id: UUID) -> None:
    """Takes the actor's own last step back. Raises CannotTakeBack where somebody else's change stands on it."""
    piece = saving.piece_of(access.workspace, piece_id)
    step_back(run_of(piece), access.actor)
    look_at_rows_again(piece)


@action(Capability.FILL)
def redo_rows(access: Access, piece_id: UUID) -> None:
    """Makes the step again that the actor took back last."""
    piece = saving.piece_of(access.workspace, piece_id)
    step_forward(run_of(piece), access.actor)
    look_at_rows_again(piece)


def own_cells(document: Document) -> dict[str, str]:
    """What cells would say so that nothing differs from the piece, by field."""
    parts = {part.id: part for part in document.parts}
    found = {}
    for name, column in columns_of(document).items():
        if column.target.counter:
            continue
        part = parts[column.target.part]
        own = _said_by(part, column)
        if own:
            found[name] = own
    return found


def _said_by(part: AnyPart, column: Column) -> str:
    """What a cell says so that nothing differs from the piece; empty where none can."""
    if column.kind in OF_ARTWORK:
        return artwork_of_part(part) or ""
    value = getattr(part, column.target.field, "")
    if isinstance(value, Solid):
        return value.colour
    return str(value or "") if column.kind in ("words", "colour") and isinstance(value, str) else ""


def _new_id() -> str:
    return uuid4().hex[:12]


def _new_ids() -> Iterator[str]:
    while True:
        yield _new_id()


def _differs_by_hand(change: AnyRowChange) -> bool:
    """Whether it changes more than cells and rows: a new row may differ by hand too."""
    return isinstance(change, Differ) or (isinstance(change, AddRow) and change.entry.by_hand > 0)


def _require_change(access: Access) -> None:
    try:
        access.require(Capability.CHANGE)
    except PermissionDenied as error:
        raise PermissionDenied(STRANGERS) from error
