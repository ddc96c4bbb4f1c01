"""Versions of a mark: joined, parted, and made for dark grounds."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status

from fitzle.apps.accounts.access import access_to
from fitzle.apps.api.artwork_views import artwork_view
from fitzle.apps.api.schemas import ArtworkOut, Message
from fitzle.apps.artwork.actions import make_dark_version
from fitzle.apps.pieces.actions import join_versions as join_versions_of

if TYPE_CHECKING:
    pass

router = Router(tags=["versions"])


class VersionOf(Schema):
    """The mark to be a version of; null for none."""

    artwork: UUID | None


@router.put("/artwork/{uuid:artwork}/version-of", response={204: None, 422: Message})
def join_versions(request: HttpRequest, workspace: Path[str], artwork: UUID, given: VersionOf) -> Status[None]:
    """Joins a mark with another one as its version, or parts it from those it is joined with."""
    join_versions_of(access_to(request.user, workspace), artwork, given.artwork)
    return Status(204, None)


@router.post("/artwork/{uuid:artwork}/dark-version", response={201: ArtworkOut, 422: Message})
def add_dark_version(request: HttpRequest, workspace: Path[str], artwork: UUID) -> Status[ArtworkOut]:
    """Makes a version of a mark for dark grounds; its colours can be changed in its preparation."""
    return Status(201, artwork_view(make_dark_version(access_to(request.user, workspace), artwork)))
