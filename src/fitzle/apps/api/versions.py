"""Versions of a mark: joined, parted, and made for dark grounds."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status

from fitzle.apps.accounts.access import workspace_to_change
from fitzle.apps.api.shapes import ArtworkOut, Message
from fitzle.apps.artwork.library import artwork_of
from fitzle.apps.artwork.versions import join, make_dark_version, part
from fitzle.apps.jobs.queue import make_later, prepare_later
from fitzle.apps.pieces.fits import fits_showing

router = Router(tags=["versions"])


class VersionOf(Schema):
    """The mark to be a version of; null for none."""

    artwork: UUID | None


@router.put("/artwork/{uuid:artwork}/version-of", response={204: None, 422: Message})
def join_versions(request: HttpRequest, workspace: Path[str], artwork: UUID, given: VersionOf) -> Any:
    """Joins a mark with another one as its version, or parts it from those it is joined with."""
    space = workspace_to_change(request.user, workspace)
    mark = artwork_of(space, artwork)
    before = fits_showing(space, str(mark.pk))
    if given.artwork is None:
        part(mark)
    else:
        join(mark, artwork_of(space, given.artwork))
    after = fits_showing(space, str(mark.pk))
    make_later({fit.pk for fit in (*before, *after)})
    return Status(204, None)


@router.post("/artwork/{uuid:artwork}/dark-version", response={201: ArtworkOut, 422: Message})
def add_dark_version(request: HttpRequest, workspace: Path[str], artwork: UUID) -> Any:
    """Makes a version of a mark for dark grounds; its colours can be changed in its preparation."""
    space = workspace_to_change(request.user, workspace)
    version, revision = make_dark_version(artwork_of(space, artwork), request.user)
    prepare_later(version.pk, revision)
    return Status(201, version)
