"""Who may see and change which workspace. Strangers are told that there is nothing (404), not that they may not."""

from __future__ import annotations

from typing import Any, NamedTuple

from django.core.exceptions import PermissionDenied
from django.http import Http404

from fitzle.apps.accounts.models import Membership, Role, User, Workspace


def workspaces_of(user: User) -> list[Workspace]:
    """The workspaces a person belongs to, by name."""
    return list(Workspace.objects.filter(memberships__user=user).order_by("name"))


def workspace_to_see(user: Any, slug: str) -> Workspace:
    """The workspace, for a member; Http404 for anybody else."""
    return _membership(user, slug).workspace


def workspace_to_change(user: Any, slug: str) -> Workspace:
    """The workspace, for a member who may change it; Http404 for strangers, PermissionDenied for viewers."""
    membership = _membership(user, slug)
    if membership.role == Role.VIEWER:
        raise PermissionDenied("You can look at this workspace but not change it. Ask its owner.")
    return membership.workspace


class HouseStyle(NamedTuple):
    """What the workspace's pieces are made with: hex colours in order and typefaces (empty: the usual one)."""

    colours: list[str]
    heading: str
    text: str
    named: list[dict[str, str]]
    naming: str


def house_style(workspace: Workspace) -> HouseStyle:
    """The house style."""
    faces = workspace.house_style.get("typefaces", {})
    named = [{"name": entry.get("name", ""), "hex": entry["hex"]} for entry in workspace.house_style.get("colours", [])]
    return HouseStyle(
        list(house_colours(workspace)), faces.get("heading", ""), faces.get("text", ""), named, naming_rule(workspace)
    )


def house_colours(workspace: Workspace) -> tuple[str, ...]:
    """The hex codes of the house style's colours, in order."""
    return tuple(entry["hex"] for entry in workspace.house_style.get("colours", []))


def naming_rule(workspace: Workspace) -> str:
    """The house's own rule for file names; empty where each place's own holds."""
    return str(workspace.house_style.get("naming", ""))


def save_house_style(workspace: Workspace, colours: list[dict[str, str]], heading: str, text: str, naming: str) -> None:
    """Another house style."""
    faces = {"heading": heading, "text": text}
    workspace.house_style = {"colours": colours, "typefaces": faces, "naming": naming}
    workspace.save(update_fields=["house_style"])


def _membership(user: Any, slug: str) -> Membership:
    found = Membership.objects.select_related("workspace").filter(user_id=user.pk, workspace__slug=slug).first()
    if found is None:
        raise Http404("There is no such workspace.")
    return found


def found_workspace(*, name: str, slug: str, owner: User, house_style: dict[str, Any]) -> Workspace:
    """A new workspace with its owner."""
    workspace = Workspace.objects.create(name=name, slug=slug, house_style=house_style)
    Membership.objects.create(user=owner, workspace=workspace, role=Role.OWNER)
    return workspace
