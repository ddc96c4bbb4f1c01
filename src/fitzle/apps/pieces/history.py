"""Undo and redo of pieces."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.db import transaction
from pydantic import ValidationError

from fitzle.apps.artwork.library import require_ready
from fitzle.apps.history import Kind, moved, names_of, stood_on
from fitzle.apps.pieces.models import Piece
from fitzle.apps.pieces.saving import document_of, remember
from fitzle.apps.pieces.uses import artworks_anywhere
from fitzle.core.piece.document import Piece as Document
from fitzle.core.piece.editing import piece_from

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User

PARTS = "parts"


@transaction.atomic
def step_back(piece: Piece, user: User) -> Piece:
    """Takes the person's own last step back; the piece as it is where there is none. Raises CannotTakeBack."""
    return _moved(piece, user, Kind.UNDO)


@transaction.atomic
def step_forward(piece: Piece, user: User) -> Piece:
    """Makes the step again that the person took back last; the piece as it is where there is none."""
    return _moved(piece, user, Kind.REDO)


def undo_and_redo_names(piece: Piece, user_id: int) -> tuple[str | None, str | None]:
    """What undo would take back and redo would make again for a person, in words; None where there is nothing."""
    return names_of(list(piece.states.filter(position__lte=piece.position).defer("document")), user_id)


def _moved(piece: Piece, user: User, kind: Kind) -> Piece:
    locked = Piece.objects.select_for_update().get(pk=piece.pk)
    rows = list(locked.states.filter(position__lte=locked.position).defer("document").select_related("made_by"))
    newest = document_of(locked)

    def plain_at(position: int) -> dict[str, Any]:
        return piece_from(locked.states.get(position=position).document).model_dump(mode="json")

    found = moved(rows, plain_at, newest.model_dump(mode="json"), kind, user.pk, PARTS)
    if found is None:
        return locked
    try:
        document = Document.model_validate(found.document)
    except ValidationError as error:  # a field of the piece may name a part that would go
        raise stood_on(found.of, rows, plain_at, PARTS) from error
    require_ready(locked.workspace, artworks_anywhere(document) - artworks_anywhere(newest))
    remember(locked, document, user, found.of.step, kind=kind, of=found.of.position)
    return locked
