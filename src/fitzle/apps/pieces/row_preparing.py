"""Pictures of all rows prepared as one of them is: cut out alike, with the same ground behind, in the same light."""

from __future__ import annotations

from typing import NamedTuple
from uuid import UUID

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.artwork.actions import save_steps
from fitzle.apps.artwork.library import ready_by_id
from fitzle.apps.artwork.preparing import document_of, preparation_of
from fitzle.apps.pieces import saving
from fitzle.apps.pieces.rows import OF_ARTWORK, open_rows, rows_of, run_of
from fitzle.core.artwork.steps.sharing import prepared_like, shared_steps
from fitzle.core.errors import DocumentError
from fitzle.core.runs.fields import columns_of


class PreparedAlike(NamedTuple):
    """How many pictures were given the steps, and how many had them already or cannot be prepared."""

    prepared: int
    left: int


@action(Capability.CHANGE)
def prepare_alike(access: Access, piece_id: UUID, field: str, row: str) -> PreparedAlike:
    """Prepares the pictures of a field in all rows as the one of a row is, wherever they stand; each can be undone in
    its own preparation. Raises DocumentError where that row has no picture, or nothing of its steps can be shared.
    """
    piece = saving.piece_of(access.workspace, piece_id)
    document = saving.document_of(piece)
    run = run_of(piece)
    column = columns_of(document).get(field)
    if column is None or column.kind not in OF_ARTWORK:
        raise DocumentError(f"this run has no field {field!r} for pictures")
    rows = open_rows(access.workspace, document, run, [one for one in rows_of(run) if not one.put_away])
    shown = {one.entry.id: str(one.row.values[field]) for one in rows if one.row.values.get(field)}
    if row not in shown:
        raise DocumentError("this row has no picture of its own", advice="Choose a row with one.")
    ready = ready_by_id(access.workspace, set(shown.values()))
    if shown[row] not in ready:
        raise DocumentError("the picture of this row is not ready", advice="Wait until it is read.")
    steps = shared_steps(document_of(preparation_of(ready[shown[row]])))
    if not steps:
        raise DocumentError(
            "the picture of this row is not prepared", advice="Prepare it first: cut it out, or change its light."
        )
    prepared = 0
    others = [ready[key] for key in dict.fromkeys(shown.values()) if key in ready and key != shown[row]]
    for artwork in others:
        preparation = preparation_of(artwork)
        before = document_of(preparation)
        after = prepared_like(before, steps)
        if after == before or (artwork.facts or {}).get("kind") == "clip":
            continue
        save_steps(access, artwork.pk, preparation.revision, after, "prepare like another row")
        prepared += 1
    return PreparedAlike(prepared, len(others) - prepared)
