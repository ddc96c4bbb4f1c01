"""Pieces: read, changed, undone and redone."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.schemas import Message, PieceEdit, PieceOut, StalePiece
from fitzle.apps.api.views import piece_view
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.saving import piece_of

router = Router(tags=["pieces"])


@router.get("/pieces/{uuid:piece}", response=PieceOut)
def read_piece(request: HttpRequest, workspace: Path[str], piece: UUID) -> PieceOut:
    """One piece."""
    return piece_view(piece_of(workspace_to_see(request.user, workspace), piece))


@router.patch("/pieces/{uuid:piece}", response={200: PieceOut, 409: StalePiece, 422: Message})
def change_piece(request: HttpRequest, workspace: Path[str], piece: UUID, given: PieceEdit) -> PieceOut:
    """Saves changes; on an older revision they are merged, or answered with 409 and the newest piece."""
    access = access_to(request.user, workspace)
    return piece_view(actions.change_piece(access, piece, given.revision, given.changes, given.step))


@router.post("/pieces/{uuid:piece}/undo", response=PieceOut)
def undo(request: HttpRequest, workspace: Path[str], piece: UUID) -> PieceOut:
    """Takes the last step back."""
    return piece_view(actions.undo(access_to(request.user, workspace), piece))


@router.post("/pieces/{uuid:piece}/redo", response=PieceOut)
def redo(request: HttpRequest, workspace: Path[str], piece: UUID) -> PieceOut:
    """Does the step again that was taken back."""
    return piece_view(actions.redo(access_to(request.user, workspace), piece))
