"""Links by which a colleague comes into a workspace to fill in rows."""

from __future__ import annotations

from typing import TYPE_CHECKING, cast
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status

from fitzle.apps.accounts.access import access_to
from fitzle.apps.accounts.joining import hand_on, join, joining_of
from fitzle.apps.api.schemas import Message
from fitzle.apps.pieces.rows import run_of
from fitzle.apps.pieces.saving import piece_of

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Joining, User

router, joining = Router(tags=["runs"]), Router(tags=["account"])


class HandedOn(Schema):
    """The page to which a link leads, without the address of the server."""

    path: str


class JoiningOut(Schema):
    """What a link lets somebody into, who made it, and the page that it opens."""

    workspace: str
    slug: str
    by: str
    path: str


@router.post("/pieces/{uuid:piece}/run/colleagues", response={201: HandedOn, 422: Message})
def hand_run_on(request: HttpRequest, workspace: Path[str], piece: UUID) -> Status[HandedOn]:
    """A link by which one person may fill in the rows of a run, and change nothing else."""
    access = access_to(request.user, workspace)
    run_of(piece_of(access.workspace, piece))
    return Status(201, HandedOn(path=f"/join/{hand_on(access, str(piece))}"))


@joining.get("/{secret}", response={200: JoiningOut, 422: Message})
def read_joining(request: HttpRequest, secret: str) -> JoiningOut:
    """What a link is for."""
    return _view(joining_of(secret))


@joining.post("/{secret}", response={200: JoiningOut, 422: Message})
def join_workspace(request: HttpRequest, secret: str) -> JoiningOut:
    """Joins by a link."""
    return _view(join(cast("User", request.user), secret))


def _view(found: Joining) -> JoiningOut:
    slug = found.workspace.slug
    return JoiningOut(
        workspace=found.workspace.name,
        slug=slug,
        by=found.by.name or found.by.email,
        path=f"/w/{slug}/runs/{found.piece}",
    )
