"""Runs: their tables, how each row looks in each place, files of rows made and handed over."""

from __future__ import annotations

from collections.abc import Iterable
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import File, Path, Router, Status
from ninja.files import UploadedFile

from fitzle.apps.accounts.access import Access, Capability, access_to, workspace_numbered, workspace_to_see
from fitzle.apps.api.delivery_schemas import DeliveryOut
from fitzle.apps.api.delivery_views import delivery_view
from fitzle.apps.api.drawn import Shown, proof_place
from fitzle.apps.api.pictures import (
    download,
    held_picture,
    hold_picture,
    immutable_picture,
    keyed_picture,
    width_allowed,
)
from fitzle.apps.api.row_schemas import (
    MOST_SEEN,
    FacesAligned,
    LikeRow,
    NamingIn,
    OneSize,
    PastedIn,
    PreparedLike,
    RowClashOut,
    RowInPlace,
    RowsChanged,
    RowsDelivered,
    RowsEdit,
    RowsWanted,
    RunOut,
    RunState,
    WordSize,
)
from fitzle.apps.api.row_views import run_view, state_view
from fitzle.apps.api.schemas import Message
from fitzle.apps.api.views import state_of
from fitzle.apps.deliveries.actions import How
from fitzle.apps.deliveries.of_rows import deliver_rows
from fitzle.apps.deliveries.record import last_of_rows
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.pieces import row_actions, row_files, row_likeness, row_preparing
from fitzle.apps.pieces.opening import decided
from fitzle.apps.pieces.row_fits import open_row, opened_in_turn, places_of_run
from fitzle.apps.pieces.rows import rows_of, run_of
from fitzle.apps.pieces.saving import document_of, piece_of
from fitzle.core.errors import DocumentError
from fitzle.core.fit.proofs import proof_of
from fitzle.core.plan.screen import screen_width
from fitzle.core.runs.changes import Applied
from fitzle.core.runs.fields import columns_of
from fitzle.core.runs.reading import MOST_BYTES, pasted_cells, read_table
from fitzle.core.runs.table import Table
from fitzle.core.runs.writing import written_csv, written_xlsx
from fitzle.core.spec.stems import safe_stem

router = Router(tags=["runs"])
RUN = "/pieces/{uuid:piece}/run"
WORKBOOK = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@router.post(RUN, response={201: RunOut, 422: Message})
def begin_run(request: HttpRequest, workspace: Path[str], piece: UUID) -> Status[RunOut]:
    """Makes a run of a piece; where it is one already, gives that."""
    access = access_to(request.user, workspace)
    return Status(201, run_view(access, row_actions.begin_run(access, piece)))


@router.get(RUN, response=RunOut)
def read_run(request: HttpRequest, workspace: Path[str], piece: UUID) -> RunOut:
    """A run with all its rows."""
    return _view(_seeing(request, workspace), piece)


@router.get(f"{RUN}/state", response=RunState)
def read_state(request: HttpRequest, workspace: Path[str], piece: UUID) -> RunState:
    """What is said of a run's rows now, and how its files get on."""
    return state_view(run_of(piece_of(_seeing(request, workspace).workspace, piece)))


@router.patch(RUN, response={200: RowsChanged, 422: Message})
def change_rows(request: HttpRequest, workspace: Path[str], piece: UUID, given: RowsEdit) -> RowsChanged:
    """Changes rows; what clashes with somebody else's change is not made, and given with what is there."""
    access = access_to(request.user, workspace)
    return _changed(access, piece, row_actions.change_rows(access, piece, given.changes, given.step, given.key))


@router.post(f"{RUN}/paste", response={200: RowsChanged, 422: Message})
def paste_cells(request: HttpRequest, workspace: Path[str], piece: UUID, given: PastedIn) -> RowsChanged:
    """Fills cells from a corner on with text from the clipboard; rows that there are none of yet are added."""
    access = access_to(request.user, workspace)
    cells = pasted_cells(given.text)
    return _changed(access, piece, row_actions.paste_cells(access, piece, given.rows, given.fields, cells))


@router.post(f"{RUN}/table", response={200: RowsChanged, 422: Message})
def add_table(request: HttpRequest, workspace: Path[str], piece: UUID, file: File[UploadedFile]) -> RowsChanged:
    """Adds a row for each row of a table (CSV, text with tabs, or XLSX)."""
    access = access_to(request.user, workspace)
    access.require(Capability.FILL)
    name = file.name or "the table"
    if (file.size or 0) > MOST_BYTES:
        raise DocumentError("this table is too large", expected=f"at most {MOST_BYTES // 1_000_000} MB").about(name)
    found = row_actions.add_table(access, piece, read_table(file.read(), name))
    changed = _changed(access, piece, found.applied)
    changed.added, changed.left_over = found.rows, found.left_over
    return changed


@router.get(f"{RUN}/table")
def save_table(request: HttpRequest, workspace: Path[str], piece: UUID, format: str = "csv") -> HttpResponseBase:
    """The rows as a table to save: CSV or XLSX."""
    access = _seeing(request, workspace)
    found = piece_of(access.workspace, piece)
    document, run = document_of(found), run_of(found)
    fields = tuple(columns_of(document))
    rows = [tuple(entry.cells.get(name, "") for name in fields) for entry in rows_of(run)]
    table = Table(fields, rows, [])
    stem = f"{safe_stem(document.subject)}-rows"
    if format == "xlsx":
        return download(written_xlsx(table), f"{stem}.xlsx", WORKBOOK)
    return download(written_csv(table), f"{stem}.csv", "text/csv; charset=utf-8")


@router.post(f"{RUN}/undo", response={200: RunOut, 422: Message})
def undo_rows(request: HttpRequest, workspace: Path[str], piece: UUID) -> RunOut:
    """Takes one's own last step in the rows back."""
    access = access_to(request.user, workspace)
    row_actions.undo_rows(access, piece)
    return _view(access, piece)


@router.post(f"{RUN}/redo", response={200: RunOut, 422: Message})
def redo_rows(request: HttpRequest, workspace: Path[str], piece: UUID) -> RunOut:
    """Makes the step again that one took back last."""
    access = access_to(request.user, workspace)
    row_actions.redo_rows(access, piece)
    return _view(access, piece)


@router.put(f"{RUN}/naming", response={200: RunOut, 422: Message})
def name_files(request: HttpRequest, workspace: Path[str], piece: UUID, given: NamingIn) -> RunOut:
    """Another rule for the names of a run's files."""
    access = access_to(request.user, workspace)
    row_actions.name_files(access, piece, given.rule)
    return _view(access, piece)


@router.get(f"{RUN}/sizes", response=list[WordSize])
def list_sizes(request: HttpRequest, workspace: Path[str], piece: UUID) -> list[WordSize]:
    """How large words are over all rows, in each place, as far as rows are looked at."""
    run = run_of(piece_of(_seeing(request, workspace).workspace, piece))
    return [WordSize(**one._asdict()) for one in row_likeness.word_sizes(run)]


@router.put(f"{RUN}/sizes/{{part}}", response={200: RunOut, 422: Message})
def set_one_size(request: HttpRequest, workspace: Path[str], piece: UUID, part: str, given: OneSize) -> RunOut:
    """One size for the words of a part in all rows, or for each row its own."""
    access = access_to(request.user, workspace)
    row_likeness.one_size(access, piece, part, given.on)
    return _view(access, piece)


@router.put(f"{RUN}/faces/{{field}}", response={200: FacesAligned, 422: Message})
def align_faces(request: HttpRequest, workspace: Path[str], piece: UUID, field: str, given: OneSize) -> FacesAligned:
    """Faces of one height with their eyes on one line in all rows, or pictures as they are fitted."""
    access = access_to(request.user, workspace)
    found = row_likeness.align_faces(access, piece, field, given.on)
    return FacesAligned(run=_view(access, piece), **found._asdict())


@router.put(f"{RUN}/prepared/{{field}}", response={200: PreparedLike, 422: Message})
def prepare_alike(request: HttpRequest, workspace: Path[str], piece: UUID, field: str, given: LikeRow) -> PreparedLike:
    """Prepares the pictures of all rows as the one of a row is, wherever they stand."""
    access = access_to(request.user, workspace)
    return PreparedLike(**row_preparing.prepare_alike(access, piece, field, given.row)._asdict())


@router.get(f"{RUN}/seen", response={200: list[RowInPlace], 422: Message})
def see_rows(request: HttpRequest, workspace: Path[str], piece: UUID, rows: str) -> list[RowInPlace]:
    """Rows (ids separated by commas) in all their places, as they are now."""
    space = workspace_to_see(request.user, workspace)
    found = piece_of(space, piece)
    wanted = rows.split(",")[:MOST_SEEN]
    state = f"{found.revision}/{run_of(found).revision}/{row_files.progress_of(run_of(found))[:3]}"
    return view_rows.ask(state, space.pk, piece, wanted)


@router.get(f"{RUN}/{{row}}/{{uuid:placement}}/proof", response={422: Message})
def row_proof(
    request: HttpRequest, workspace: Path[str], piece: UUID, row: str, placement: UUID, width: int = 240, key: str = ""
) -> HttpResponse:
    """A row in a place, drawn; `key` makes the address change with it."""
    space, width = workspace_to_see(request.user, workspace), width_allowed(width)
    held = held_picture(proof_place(space.pk, key, width, Shown())) if key else None
    if held:
        return immutable_picture(held.data, held.media_type)
    found = piece_of(space, piece)
    state = key or f"{found.revision}/{run_of(found).revision}"
    drawn = draw_row.ask(state, space.pk, piece, row, placement, width)
    return keyed_picture(drawn, key if key == drawn.key else "")


@router.post(f"{RUN}/{{row}}/{{uuid:placement}}/fit", response={200: UUID, 404: Message, 422: Message})
def open_on_bench(request: HttpRequest, workspace: Path[str], piece: UUID, row: str, placement: UUID) -> UUID:
    """The fit of a row in a place, to be looked at and changed by hand."""
    return row_actions.fit_of_row(access_to(request.user, workspace), piece, row, placement).pk


@router.post(f"{RUN}/files", response={200: RunState, 422: Message})
def make_files(request: HttpRequest, workspace: Path[str], piece: UUID, given: RowsWanted) -> RunState:
    """Has files of rows made, all or some; what is made already is not made again."""
    access = access_to(request.user, workspace)
    row_files.make_row_files(access, piece, given.rows)
    return state_view(run_of(piece_of(access.workspace, piece)))


@router.delete(f"{RUN}/files", response=RunState)
def cancel_files(request: HttpRequest, workspace: Path[str], piece: UUID) -> RunState:
    """Stops before the next file; what is made stays."""
    access = access_to(request.user, workspace)
    row_files.cancel_row_files(access, piece)
    return state_view(run_of(piece_of(access.workspace, piece)))


@router.post(f"{RUN}/deliveries", response={201: DeliveryOut, 422: Message})
def deliver(request: HttpRequest, workspace: Path[str], piece: UUID, given: RowsDelivered) -> Status[DeliveryOut]:
    """Hands over the files of rows that are made and would be accepted."""
    access = access_to(request.user, workspace)
    how = How(given.way, given.folder, given.flat)
    return Status(201, delivery_view(deliver_rows(access, piece, given.rows, changed=given.changed, how=how), {}))


@drawable
def view_rows(workspace: int, piece: UUID, rows: list[str]) -> list[RowInPlace]:
    """Rows in all their places; nothing is drawn."""
    space = workspace_numbered(workspace)
    found = piece_of(space, piece)
    last = last_of_rows(space, piece)
    seen = []
    for opened in opened_in_turn(space, found, _there(rows, run_of(found).order), places_of_run(found)):
        fit = opened.fit
        shown = state_of(opened, last.get((fit.row, fit.placement_id)))
        seen.append(
            RowInPlace(
                row=fit.row,
                placement=fit.placement_id,
                fit=None if fit._state.adding else fit.pk,
                key=opened.proof_key,
                state=shown.state,
                why=shown.why,
                by_hand=opened.of_row.entry.by_hand if opened.of_row else 0,
            )
        )
    return seen


@drawable
def draw_row(workspace: int, piece: UUID, row: str, placement: UUID, width: int) -> Picture:
    """A row in a place."""
    space = workspace_numbered(workspace)
    opened = open_row(space, piece_of(space, piece), row, placement)
    place = proof_place(space.pk, opened.proof_key, width, Shown())
    held = held_picture(place)
    if held is None:
        looked = decided(space, opened)
        held = Picture(*proof_of(looked, opened.sources(preview=True), screen_width(*looked.plan.size, width)))
        hold_picture(place, held)
    return held._replace(key=opened.proof_key)


def _there(rows: Iterable[str], order: list[str]) -> list[str]:
    known = set(order)
    return [row for row in rows if row in known]


def _seeing(request: HttpRequest, workspace: str) -> Access:
    access = access_to(request.user, workspace)
    access.require(Capability.SEE)
    return access


def _view(access: Access, piece: UUID) -> RunOut:
    return run_view(access, run_of(piece_of(access.workspace, piece)))


def _changed(access: Access, piece: UUID, applied: Applied) -> RowsChanged:
    clashes = [RowClashOut(change=one.change, newest=one.newest) for one in applied.clashes]
    return RowsChanged(run=_view(access, piece), clashes=clashes)
