"""Pieces: read, changed, undone and redone."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router

from fitzle.apps.accounts.access import workspace_to_change, workspace_to_see
from fitzle.apps.api.shapes import Edit, Message, PieceOut, StalePiece
from fitzle.apps.api.views import piece_view
from fitzle.apps.jobs.queue import make_later
from fitzle.apps.pieces.fits import fits_of_piece
from fitzle.apps.pieces.saving import piece_of, save_changes, step_back, step_forward

router = Router(tags=["pieces"])


@router.get("/pieces/{uuid:piece}", response=PieceOut)
def read_piece(request: HttpRequest, workspace: Path[str], piece: UUID) -> Any:
    """One piece."""
    return piece_view(piece_of(workspace_to_see(request.user, workspace), piece))


@router.patch("/pieces/{uuid:piece}", response={200: PieceOut, 409: StalePiece, 422: Message})
def change_piece(request: HttpRequest, workspace: Path[str], piece: UUID, given: Edit) -> Any:
    """Saves changes; on an older revision they are merged, or answered with 409 and the newest piece."""
    found = piece_of(workspace_to_change(request.user, workspace), piece)
    return _saved(save_changes(found, request.user, given.revision, given.changes, given.step))


@router.post("/pieces/{uuid:piece}/undo", response=PieceOut)
def undo(request: HttpRequest, workspace: Path[str], piece: UUID) -> Any:
    """Takes the last step back."""
    return _moved(request, workspace, piece, step_back)


@router.post("/pieces/{uuid:piece}/redo", response=PieceOut)
def redo(request: HttpRequest, workspace: Path[str], piece: UUID) -> Any:
    """Does the step again that was taken back."""
    return _moved(request, workspace, piece, step_forward)


def _moved(request: HttpRequest, workspace: Path[str], piece: UUID, move: Callable[[Any], Any]) -> PieceOut:
    return _saved(move(piece_of(workspace_to_change(request.user, workspace), piece)))


def _saved(piece: Any) -> PieceOut:
    make_later(fit.pk for fit in fits_of_piece(piece))
    return piece_view(piece)
