"""Saving pieces: each change is one transaction; a save made on an older revision is merged or answered with both."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, Any
from uuid import UUID

from django.db import transaction
from django.http import Http404

from fitzle.apps.artwork.library import require_ready
from fitzle.apps.pieces.models import Piece, PieceRevision, PieceState
from fitzle.apps.pieces.uses import artworks_anywhere, note_uses_of_piece, only_artwork_of
from fitzle.core.findings import Frozen
from fitzle.core.piece.changes import AnyChange, Change, apply_changes, clashes, value_of
from fitzle.core.piece.document import Piece as Document
from fitzle.core.piece.editing import piece_from

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

KEPT_STATES = 100


class Clash(Frozen):
    """A field that two people changed: what was wanted and what it is now."""

    change: Change
    newest: Any


class StaleRevision(Exception):
    """The save was made on an older revision and cannot be merged; carries the newest piece and the clashes."""

    def __init__(self, piece: Piece, found: list[Clash]) -> None:
        super().__init__("somebody else has changed this")
        self.piece, self.clashes = piece, found


def piece_of(workspace: Workspace, piece_id: UUID | str) -> Piece:
    """One piece of the workspace; Http404 for any other."""
    found = Piece.objects.filter(workspace=workspace, pk=piece_id).first()
    if found is None:
        raise Http404("There is no such piece.")
    return found


def document_of(piece: Piece) -> Document:
    """The piece as a frozen document."""
    return piece_from(piece.document)


def subject_of(piece: Piece) -> str:
    """What a piece is called; empty where its document is damaged."""
    return str(piece.document.get("subject", "")) if isinstance(piece.document, dict) else ""


def create_piece(workspace: Workspace, user: User | None, document: Document) -> Piece:
    """A new piece with the first state of its history."""
    data = document.model_dump(mode="json")
    piece = Piece.objects.create(workspace=workspace, document=data, only_artwork=only_artwork_of(document))
    PieceState.objects.create(piece=piece, position=0, document=data, step="make the piece", made_by=user)
    PieceRevision.objects.create(piece=piece, revision=piece.revision, document=data)
    return piece


@transaction.atomic
def save_changes(
    piece: Piece,
    user: User | None,
    base_revision: int,
    changes: Sequence[AnyChange],
    step: str,
    key: UUID | None = None,
) -> Piece:
    """Applies changes that were made on `base_revision`; a save whose `key` came before is not made again.

    Changes to fields that nobody else touched since are merged; otherwise StaleRevision is raised and nothing saved.
    Raises ArtworkError where they bring in artwork that the workspace does not have.
    """
    locked = Piece.objects.select_for_update().get(pk=piece.pk)
    if key and locked.states.filter(key=key).exists():
        return locked
    newest = document_of(locked)
    if base_revision != locked.revision:
        base = _document_at(locked, base_revision)
        found = clashes(base, newest, changes) if base else list(changes)
        if found:
            raise StaleRevision(locked, [Clash(change=entry, newest=value_of(newest, entry)) for entry in found])
    changed = apply_changes(newest, changes)
    require_ready(locked.workspace, artworks_anywhere(changed) - artworks_anywhere(newest))
    remember(locked, changed, user, step, key=key)
    return locked


def remember(piece: Piece, document: Document, user: User | None, step: str, **more: Any) -> None:
    """Stores a document as the next step of the history."""
    _store(piece, document)
    piece.states.filter(position__gt=piece.position).delete()  # of histories from before taking back was a step
    piece.position += 1
    PieceState.objects.create(
        piece=piece, position=piece.position, document=piece.document, step=step[:120], made_by=user, **more
    )
    piece.states.filter(position__lte=piece.position - KEPT_STATES).delete()
    piece.save()


def _store(piece: Piece, document: Document) -> None:
    note_uses_of_piece(piece, document_of(piece), document)
    piece.document = document.model_dump(mode="json")
    piece.only_artwork = only_artwork_of(document)
    piece.revision += 1
    PieceRevision.objects.create(piece=piece, revision=piece.revision, document=piece.document)
    piece.revisions.filter(revision__lte=piece.revision - KEPT_STATES).delete()


def _document_at(piece: Piece, revision: int) -> Document | None:
    found = piece.revisions.filter(revision=revision).first()
    return piece_from(found.document) if found else None
