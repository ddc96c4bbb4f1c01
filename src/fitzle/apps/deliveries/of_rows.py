"""Files of the rows of a run handed over: of some rows, of all, or only what changed."""

from __future__ import annotations

from collections.abc import Sequence
from uuid import UUID

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.deliveries.actions import USUAL, How, deliver_opened
from fitzle.apps.deliveries.models import Delivery
from fitzle.apps.deliveries.record import last_of_rows
from fitzle.apps.pieces.row_files import check_names, whole_rows
from fitzle.apps.pieces.row_fits import opened_in_turn, places_of_run
from fitzle.apps.pieces.rows import run_of
from fitzle.apps.pieces.saving import piece_of
from fitzle.core.errors import FitzleError


@action(Capability.DELIVER)
def deliver_rows(
    access: Access, piece_id: UUID, rows: Sequence[str] | None = None, *, changed: bool = False, how: How = USUAL
) -> Delivery:
    """Hands over the files of rows that are made and would be accepted; raises FitzleError where there are none."""
    piece = piece_of(access.workspace, piece_id)
    run, places = run_of(piece), places_of_run(piece)
    whole = whole_rows(access, run, rows)
    check_names(access, run, whole, places)
    last = last_of_rows(access.workspace, piece.pk)
    ready = []
    for opened in opened_in_turn(access.workspace, piece, [one.entry.id for one in whole], places):
        standing = opened.standing(last.get((opened.fit.row, opened.fit.placement_id)))
        if not opened.fit._state.adding and standing.deliverable and (standing.changed or not changed):
            ready.append(opened)
    if not ready:
        made = "changed since it was handed over" if changed else "is made and would be accepted"
        raise FitzleError(f"no file of these rows {made}", advice="Make the files first.")
    return deliver_opened(access, ready, how)
