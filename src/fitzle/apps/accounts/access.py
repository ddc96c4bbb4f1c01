"""Who may see and change which workspace. Strangers are told that there is nothing (404), not that they may not."""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum
from functools import wraps
from typing import TYPE_CHECKING, Any, Concatenate, NamedTuple, ParamSpec, TypeVar

from django.core.exceptions import PermissionDenied
from django.db import transaction
from django.http import Http404

from fitzle.apps.accounts.models import ApiToken, Membership, Role, User, Workspace
from fitzle.apps.watching.context import note

if TYPE_CHECKING:
    from django.contrib.auth.base_user import AbstractBaseUser
    from django.contrib.auth.models import AnonymousUser

P = ParamSpec("P")
Result = TypeVar("Result")


class Capability(StrEnum):
    """What somebody may do in a workspace."""

    SEE = "see"
    FILL = "fill"
    CHANGE = "change"
    DELIVER = "deliver"
    RUN = "run"


_MAY: dict[str, frozenset[Capability]] = {
    Role.VIEWER: frozenset({Capability.SEE}),
    Role.FILLER: frozenset({Capability.SEE, Capability.FILL}),
    Role.MAKER: frozenset({Capability.SEE, Capability.FILL, Capability.CHANGE, Capability.DELIVER}),
    Role.OWNER: frozenset(Capability),
}
_REFUSED = {
    Capability.SEE: "You cannot see this workspace.",
    Capability.FILL: "You can look at this workspace but not change it. Ask its owner.",
    Capability.CHANGE: "You can look at this workspace but not change it. Ask its owner.",
    Capability.DELIVER: "You can look at this workspace but hand nothing over. Ask its owner.",
    Capability.RUN: "Only its owner can do that.",
}
_FILLS_IN = "You may fill in rows in this workspace and change nothing else. Ask its owner."


ACTIONS: dict[str, Capability] = {}  # what each action asks of its actor, by module and name


class Access(NamedTuple):
    """Somebody in a workspace, with what they may do there: every action is done by one.

    Actors are people, or scripts with a token of theirs: `scopes` is what that lets them do, None for people.
    """

    actor: User
    workspace: Workspace
    role: str
    scopes: frozenset[str] | None = None

    def may(self, capability: Capability) -> bool:
        """Whether the actor may do that."""
        try:
            self.require(capability)
        except PermissionDenied:
            return False
        return True

    def require(self, capability: Capability) -> None:
        """Raises PermissionDenied, in words, where the actor may not do that."""
        if capability not in _MAY.get(self.role, frozenset()):
            raise PermissionDenied(_FILLS_IN if self.role == Role.FILLER else _REFUSED[capability])
        asked = Capability.CHANGE if capability == Capability.FILL else capability  # who may change may fill in too
        if self.scopes is not None and asked not in self.scopes:
            raise PermissionDenied(f"This token does not let a script do that ({capability}). Make another one.")


def access_to(user: AbstractBaseUser | AnonymousUser, slug: str) -> Access:
    """What somebody may do in the workspace with this slug; Http404 for strangers."""
    return _access(user_id=user.pk, workspace__slug=slug)._replace(scopes=scopes_of(user, slug))


def scopes_of(user: AbstractBaseUser | AnonymousUser, slug: str) -> frozenset[str] | None:
    """What the token lets do that a script came with; None for people. Http404 in any workspace but the token's."""
    token: ApiToken | None = getattr(user, "token", None)
    if token is None:
        return None
    if token.workspace.slug != slug:
        raise Http404("There is no such workspace.")
    return frozenset(token.scopes)


def access_again(user_id: int | None, workspace_id: int) -> Access:
    """The same for work that is done later: what they may do now. Http404 where they do not belong to it any more."""
    return _access(user_id=user_id, workspace_id=workspace_id)


def access_to_leaving(user: AbstractBaseUser | AnonymousUser, slug: str) -> Access:
    """The same for one that was deleted and is not gone yet, or not deleted at all."""
    found = _access(leaving_too=True, user_id=user.pk, workspace__slug=slug)
    return found._replace(scopes=scopes_of(user, slug))


def _access(*, leaving_too: bool = False, **who: Any) -> Access:
    there = Membership.objects.all() if leaving_too else Membership.objects.filter(workspace__leaving_at=None)
    found = there.select_related("workspace", "user").filter(**who).first()
    if found is None:
        raise Http404("There is no such workspace.")
    note(workspace=found.workspace_id, person=found.user_id)
    return Access(found.user, found.workspace, found.role)


def action(
    capability: Capability,
) -> Callable[[Callable[Concatenate[Access, P], Result]], Callable[Concatenate[Access, P], Result]]:
    """Makes a function a named action: its actor's capability is checked, and all that it writes is one transaction.

    An action queues its own work, which begins after the commit.
    """

    def checked(function: Callable[Concatenate[Access, P], Result]) -> Callable[Concatenate[Access, P], Result]:
        ACTIONS[f"{function.__module__}.{function.__qualname__}"] = capability

        @wraps(function)
        def act(access: Access, /, *args: P.args, **kwargs: P.kwargs) -> Result:
            access.require(capability)
            with transaction.atomic():
                return function(access, *args, **kwargs)

        return act

    return checked


def workspaces_of(user: User) -> list[Workspace]:
    """The workspaces a person belongs to, by name."""
    return list(Workspace.objects.filter(memberships__user_id=user.pk, leaving_at=None).order_by("name"))


def workspace_to_see(user: AbstractBaseUser | AnonymousUser, slug: str) -> Workspace:
    """The workspace, for a member; Http404 for anybody else."""
    access = access_to(user, slug)
    access.require(Capability.SEE)
    return access.workspace


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


def found_workspace(*, name: str, slug: str, owner: User, house_style: dict[str, Any]) -> Workspace:
    """A new workspace with its owner."""
    workspace = Workspace.objects.create(name=name, slug=slug, house_style=house_style)
    Membership.objects.create(user=owner, workspace=workspace, role=Role.OWNER)
    return workspace


def workspace_numbered(number: int) -> Workspace:
    """A workspace by its number, for work that nobody asks for."""
    return Workspace.objects.get(pk=number)


def all_workspaces() -> list[Workspace]:
    """All workspaces of this installation, for work that nobody asks for."""
    return list(Workspace.objects.order_by("pk"))
