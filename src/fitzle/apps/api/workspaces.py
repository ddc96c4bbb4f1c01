"""Workspaces: a new one, another name, leaving, deleting, and all of one in a ZIP."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated, cast

from django.http import HttpRequest
from django.http.response import HttpResponseBase
from django.utils import timezone
from ninja import File, Path, Router, Schema, Status
from ninja.files import UploadedFile
from pydantic import Field

from fitzle.apps.accounts.access import Capability, access_to, access_to_leaving
from fitzle.apps.accounts.workspaces import (
    bring_workspace_back,
    delete_workspace,
    found_own,
    leave_workspace,
    rename_workspace,
)
from fitzle.apps.api.pictures import streamed
from fitzle.apps.api.schemas import Message, WorkspaceOut
from fitzle.apps.portable.reading import bring_in_workspace
from fitzle.apps.portable.writing import export_of

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


@router.post("/bring-in", response={201: WorkspaceOut, 422: Message})
def bring_in(request: HttpRequest, file: File[UploadedFile]) -> Status[WorkspaceOut]:
    """A workspace out of the ZIP of an export; its artwork is read by the workers."""
    return Status(201, _view(bring_in_workspace(cast("User", request.user), file)))


@router.get("/{workspace}/export")
def export(request: HttpRequest, workspace: Path[str]) -> HttpResponseBase:
    """Everything that is in a workspace as a ZIP; also of one that is being deleted."""
    access = access_to_leaving(request.user, workspace)
    access.require(Capability.RUN)
    name = f"{access.workspace.slug}-{timezone.now():%Y-%m-%d}.zip"
    return streamed(export_of(access.workspace), name, "application/zip")


@router.post("/{workspace}/leaving", response={204: None})
def delete(request: HttpRequest, workspace: Path[str]) -> Status[None]:
    """Deletes a workspace: nobody sees it from now on, and 14 days later it is gone."""
    delete_workspace(access_to(request.user, workspace))
    return Status(204, None)


@router.delete("/{workspace}/leaving", response=WorkspaceOut)
def bring_back(request: HttpRequest, workspace: Path[str]) -> WorkspaceOut:
    """Has a deleted workspace back."""
    return _view(bring_workspace_back(access_to_leaving(request.user, workspace)))


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
