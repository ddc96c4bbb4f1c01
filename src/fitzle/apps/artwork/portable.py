"""Artwork on its way out of a workspace and into another one: the originals and what people did to them.

What an artwork is (facts, copies to look at, prepared files) is worked out anew where it is brought in.
"""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Any
from uuid import UUID, uuid4

from pydantic import BaseModel, Field

from fitzle.apps.artwork.models import Artwork, Preparation, plain_tags
from fitzle.apps.artwork.preparing import document_of
from fitzle.core.artwork.steps.document import NOT_PREPARED
from fitzle.core.artwork.steps.document import Preparation as Document

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

Sha256 = Annotated[str, Field(pattern=r"^[0-9a-f]{64}$")]
Words = Annotated[str, Field(max_length=255)]


class EarlierFile(BaseModel):
    """A file that an artwork was before it was replaced."""

    sha256: Sha256
    name: Words = ""
    bytes: Annotated[int, Field(ge=0)] = 0
    at: Annotated[str, Field(max_length=40)] = ""


class PortableArtwork(BaseModel):
    """One artwork; `parent` and `version_of` are ids within the same document."""

    id: UUID
    name: Words
    sha256: Sha256
    created_at: datetime
    origin: dict[str, Any] = {}
    tags: list[str] = []
    put_away: bool = False
    parent: UUID | None = None
    version_of: UUID | None = None
    earlier: Annotated[list[EarlierFile], Field(max_length=1000)] = []
    preparation: Document = NOT_PREPARED


def portable_artwork(workspace: Workspace) -> list[PortableArtwork]:
    """All artwork whose file is there, the oldest first."""
    found = Artwork.objects.filter(workspace=workspace).exclude(sha256="").order_by("created_at", "pk")
    steps = {one.artwork_id: one for one in Preparation.objects.filter(artwork__workspace=workspace)}
    return [
        PortableArtwork(
            id=entry.pk,
            name=entry.name,
            sha256=entry.sha256,
            created_at=entry.created_at,
            origin=entry.origin,
            tags=entry.tags,
            put_away=entry.put_away,
            parent=entry.parent_id,
            version_of=entry.version_of_id,
            earlier=[EarlierFile.model_validate(one) for one in entry.earlier],
            preparation=document_of(steps[entry.pk]) if entry.pk in steps else NOT_PREPARED,
        )
        for entry in found
    ]


def originals_of(artwork: Iterable[PortableArtwork]) -> set[str]:
    """The hashes of all files that these artworks are or were."""
    return {sha256 for entry in artwork for sha256 in (entry.sha256, *(one.sha256 for one in entry.earlier))}


def add_portable_artwork(
    workspace: Workspace, user: User, artwork: list[PortableArtwork], weights: dict[str, int]
) -> dict[str, str]:
    """Adds artwork, to be read by the workers; its new ids by the old ones. `weights` are bytes by hash."""
    ids = {entry.id: uuid4() for entry in artwork}
    rows = [
        Artwork(
            id=ids[entry.id],
            workspace=workspace,
            name=entry.name or "unnamed",
            sha256=entry.sha256,
            bytes=weights[entry.sha256],
            origin={key: value for key, value in entry.origin.items() if key != "replaces"},
            tags=plain_tags(entry.tags),
            put_away=entry.put_away,
            earlier=[one.model_dump(mode="json") for one in entry.earlier],
            created_by=user,
        )
        for entry in artwork
    ]
    Artwork.objects.bulk_create(rows, batch_size=500)
    for entry in artwork:
        parent = ids.get(entry.parent) if entry.parent else None
        version_of = ids.get(entry.version_of) if entry.version_of else None
        Artwork.objects.filter(pk=ids[entry.id]).update(
            created_at=entry.created_at, parent=parent, version_of=version_of, said=entry.name.lower()
        )
    Preparation.objects.bulk_create(
        Preparation(artwork_id=ids[entry.id], document=entry.preparation.model_dump(mode="json"), revision=1)
        for entry in artwork
        if entry.preparation.steps
    )
    return {str(old): str(new) for old, new in ids.items()}
