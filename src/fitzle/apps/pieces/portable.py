"""Pieces and fits on their way out of a workspace and into another one; their files are made anew, byte for byte."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Any
from uuid import UUID

from pydantic import BaseModel, Field

from fitzle.apps.pieces.models import Fit, Piece, SharedFile, Sharing
from fitzle.apps.pieces.row_portable import add_portable_run, portable_run
from fitzle.apps.pieces.saving import create_piece, document_of
from fitzle.apps.pieces.uses import note_uses
from fitzle.core.encode.wish import NO_WISH, Wish
from fitzle.core.errors import DocumentError
from fitzle.core.handover.fields import LONGEST
from fitzle.core.piece.document import Piece as Document
from fitzle.core.runs.document import Entry
from fitzle.core.runs.table import MOST_ROWS

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace
    from fitzle.apps.destinations.models import Placement

Key = Annotated[str, Field(max_length=40)]
FieldName = Annotated[str, Field(max_length=120)]
FieldValue = Annotated[str, Field(max_length=LONGEST)]


class PortableFit(BaseModel):
    """Where a piece stands: the slug of the place, the take and row, and whether it is the one on the wall."""

    placement: Annotated[str, Field(max_length=80)]
    take: Key = ""
    row: Key = ""
    chosen: bool = True
    placed_at: datetime
    muted: Annotated[dict[Key, dict[Key, Annotated[str, Field(max_length=400)]]], Field(max_length=50)] = {}
    wish: Wish = NO_WISH
    fields: Annotated[dict[FieldName, FieldValue], Field(max_length=50)] = {}


class PortablePiece(BaseModel):
    """A piece with its fits, and the `rows` of its run where it is one, whose files are called by the rule `naming`.

    The ids of artwork in it are those of the same export.
    """

    id: UUID
    document: Document
    alternative_text: FieldValue = ""
    fits: Annotated[list[PortableFit], Field(max_length=5000)] = []
    rows: Annotated[list[Entry], Field(max_length=MOST_ROWS)] | None = None
    naming: Annotated[str, Field(max_length=200)] = ""


class PortableShared(BaseModel):
    """Places, by their slugs, that one file serves, and the slug that their adjustments are kept under."""

    slug: Annotated[str, Field(max_length=80)]
    placements: Annotated[list[Annotated[str, Field(max_length=80)]], Field(max_length=1000)]


def portable_shared(workspace: Workspace) -> list[PortableShared]:
    """All places that one file serves."""
    rows = SharedFile.objects.filter(workspace=workspace).prefetch_related("sharings__placement")
    found = [(row.slug, [one.placement.slug for one in row.sharings.all()]) for row in rows]
    return [PortableShared(slug=slug, placements=sorted(places)) for slug, places in sorted(found)]


def add_portable_shared(
    workspace: Workspace, entries: list[PortableShared], placements: Mapping[str, Placement]
) -> None:
    """Lets one file serve places again; each is in one group.

    Comes before the pieces: what they use follows from it.
    """
    for entry in entries:
        row = SharedFile.objects.create(workspace=workspace, slug=entry.slug)
        for slug in entry.placements:
            if slug not in placements:
                raise DocumentError(f"one file serves a place that is not there: {slug}")
            Sharing.objects.get_or_create(placement=placements[slug], defaults={"shared": row})


def portable_pieces(workspace: Workspace) -> list[PortablePiece]:
    """All pieces, the oldest first."""
    found = Piece.objects.filter(workspace=workspace).order_by("created_at", "pk").select_related("run")
    return [
        PortablePiece(
            id=piece.pk,
            document=document_of(piece),
            alternative_text=piece.alternative_text,
            fits=[
                PortableFit(
                    placement=fit.placement.slug,
                    take=fit.take,
                    row=fit.row,
                    chosen=bool(fit.chosen),
                    placed_at=fit.placed_at,
                    muted=fit.muted,
                    wish=Wish.model_validate(fit.wish),
                    fields=fit.fields,
                )
                for fit in piece.fits.select_related("placement")
                if not fit.row or fit.muted or fit.wish or fit.fields  # any other of a row is made when it is wanted
            ],
            **portable_run(piece),
        )
        for piece in found
    ]


def add_portable_pieces(
    workspace: Workspace,
    user: User,
    pieces: list[PortablePiece],
    artwork: Mapping[str, str],
    placements: Mapping[str, Placement],
) -> int:
    """Adds pieces and their fits, with the new ids of their artwork; how many fits. Raises DocumentError."""
    count, taken = 0, set[tuple[str, str]]()
    for entry in pieces:
        document = Document.model_validate(with_new_ids(entry.document.model_dump(mode="json"), artwork))
        piece = create_piece(workspace, user, document)
        if entry.alternative_text:
            piece.alternative_text = entry.alternative_text
            piece.save(update_fields=["alternative_text"])
        fits = []
        for fit in entry.fits:
            if fit.placement not in placements:
                raise DocumentError(f"a piece stands in a place that is not there: {fit.placement}")
            chosen = fit.chosen and (fit.placement, fit.row) not in taken
            if chosen:
                taken.add((fit.placement, fit.row))
            row, _ = Fit.objects.get_or_create(
                piece=piece,
                placement=placements[fit.placement],
                take=fit.take,
                row=fit.row,
                defaults={
                    "placed_at": fit.placed_at,
                    "chosen": True if chosen else None,
                    "muted": fit.muted,
                    "wish": fit.wish.model_dump(mode="json", exclude_defaults=True),
                    "fields": fit.fields,
                },
            )
            fits.append(row)
        if entry.rows is not None:
            rows = [Entry.model_validate(with_new_ids(row.model_dump(mode="json"), artwork)) for row in entry.rows]
            add_portable_run(piece, user, rows, entry.naming)
        note_uses([fit for fit in fits if not fit.row], document)
        count += len(fits)
    return count


def with_new_ids(value: Any, ids: Mapping[str, str]) -> Any:
    """A document with other ids wherever an old one stands."""
    if isinstance(value, dict):
        return {key: with_new_ids(entry, ids) for key, entry in value.items()}
    if isinstance(value, list):
        return [with_new_ids(entry, ids) for entry in value]
    return ids.get(value, value) if isinstance(value, str) else value
