"""The rows of a run on their way out of a workspace and into another one."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from fitzle.apps.pieces.models import Piece, Run
from fitzle.apps.pieces.row_history import keep_changes
from fitzle.apps.pieces.rows import look_at_rows_again, rows_of
from fitzle.core.runs.changes import AddRow
from fitzle.core.runs.document import Entry

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User


def portable_run(piece: Piece) -> dict[str, Any]:
    """The rows of a piece's run, and what its files are called; nothing where it has none."""
    run: Run | None = getattr(piece, "run", None)
    return {"rows": list(rows_of(run)), "naming": run.naming} if run else {}


def add_portable_run(piece: Piece, user: User, rows: list[Entry], naming: str) -> None:
    """The run of a piece that came in; its history begins with these rows."""
    run = Run.objects.create(piece=piece, naming=naming)
    keep_changes(run, user, [AddRow(entry=entry) for entry in rows], "bring the rows in")
    look_at_rows_again(piece)
