"""Workspaces: a new one, another name, leaving."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, cast

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status
from pydantic import Field

from fitzle.apps.accounts.access import access_to
from fitzle.apps.accounts.workspaces import found_own, leave_workspace, rename_workspace
from fitzle.apps.api.schemas import Message, WorkspaceOut

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User, Workspace

router = Router(tags=["workspaces"])


class WorkspaceName(Schema):
    """What a workspace is called."""

    name: Annotated[str, Field(max_length=120, pattern=r"\S")]


@router.post("", response={201: WorkspaceOut, 422: Message})
def begin_workspace(request: HttpRequest, given: WorkspaceName) -> Status[WorkspaceOut]:
    """A workspace of one's own, empty."""
    return Status(201, _view(found_own(cast("User", request.user), given.name)))


@router.patch("/{workspace}", response={200: WorkspaceOut, 422: Message})
def rename(request: HttpRequest, workspace: Path[str], given: WorkspaceName) -> WorkspaceOut:
    """Another name; the address stays."""
    return _view(rename_workspace(access_to(request.user, workspace), given.name))


@router.post("/{workspace}/leave", response={204: None, 422: Message})
def leave(request: HttpRequest, workspace: Path[str]) -> Status[None]:
    """Ends one's own membership."""
    leave_workspace(access_to(request.user, workspace))
    return Status(204, None)


def _view(workspace: Workspace) -> WorkspaceOut:
    return WorkspaceOut(name=workspace.name, slug=workspace.slug)
