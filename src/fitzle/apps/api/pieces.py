"""Pieces: read, changed, undone and redone."""

from __future__ import annotations

from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router

from fitzle.apps.accounts.access import Capability, access_to
from fitzle.apps.api.schemas import Message, PieceEdit, PieceOut, StalePiece
from fitzle.apps.api.views import piece_view
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.saving import piece_of

router = Router(tags=["pieces"])


@router.get("/pieces/{uuid:piece}", response=PieceOut)
def read_piece(request: HttpRequest, workspace: Path[str], piece: UUID) -> PieceOut:
    """One piece."""
    access = access_to(request.user, workspace)
    access.require(Capability.SEE)
    return piece_view(piece_of(access.workspace, piece), access.actor.pk)


@router.patch("/pieces/{uuid:piece}", response={200: PieceOut, 409: StalePiece, 422: Message})
def change_piece(request: HttpRequest, workspace: Path[str], piece: UUID, given: PieceEdit) -> PieceOut:
    """Saves changes; on an older revision they are merged, or answered with 409 and the newest piece."""
    access = access_to(request.user, workspace)
    changed = actions.change_piece(access, piece, given.revision, given.changes, given.step)
    return piece_view(changed, access.actor.pk)


@router.post("/pieces/{uuid:piece}/undo", response={200: PieceOut, 422: Message})
def undo(request: HttpRequest, workspace: Path[str], piece: UUID) -> PieceOut:
    """Takes one's own last step back."""
    access = access_to(request.user, workspace)
    return piece_view(actions.undo(access, piece), access.actor.pk)


@router.post("/pieces/{uuid:piece}/redo", response={200: PieceOut, 422: Message})
def redo(request: HttpRequest, workspace: Path[str], piece: UUID) -> PieceOut:
    """Makes the step again that one took back last."""
    access = access_to(request.user, workspace)
    return piece_view(actions.redo(access, piece), access.actor.pk)
