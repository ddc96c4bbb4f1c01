"""Workspaces of one's own: a new one, another name for it, and leaving one."""

from __future__ import annotations

from datetime import datetime, timedelta
from typing import NamedTuple

from django.db import transaction
from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action, found_workspace
from fitzle.apps.accounts.models import Membership, Role, User, Workspace
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.spec.stems import free_name, safe_stem

MOST_OWNED = 20  # workspaces that one person may own
LONGEST_SLUG = 50
DELAY = timedelta(days=14)  # for which a deleted workspace can be had back
OTHER_LETTERS = "workspace"  # addresses are typed and passed on: Latin letters only


class Leaving(NamedTuple):
    """A workspace that was deleted, and until when it can be had back."""

    name: str
    slug: str
    until: datetime


def found_own(person: User, name: str) -> Workspace:
    """A new workspace that this person owns, with an address of its own; raises ValueOutOfRange beyond MOST_OWNED."""
    name = name.strip()
    with transaction.atomic():
        User.objects.select_for_update().get(pk=person.pk)  # two at once would pass the limit
        if Membership.objects.filter(user=person, role=Role.OWNER).count() >= MOST_OWNED:
            raise ValueOutOfRange(f"one person may own at most {MOST_OWNED} workspaces", advice="Leave one first.")
        stem = safe_stem(name, longest=LONGEST_SLUG)
        stem = stem if stem.isascii() else OTHER_LETTERS
        taken = set(Workspace.objects.filter(slug__startswith=stem).values_list("slug", flat=True))
        return found_workspace(name=name, slug=free_name(stem, taken), owner=person, house_style={})


@action(Capability.RUN)
def rename_workspace(access: Access, name: str) -> Workspace:
    """Another name; the address stays."""
    access.workspace.name = name.strip()
    access.workspace.save(update_fields=["name"])
    return access.workspace


@action(Capability.SEE)
def leave_workspace(access: Access) -> None:
    """Ends one's membership; the last owner cannot go, since nobody could run the workspace then."""
    everyone = Membership.objects.select_for_update().filter(workspace=access.workspace)
    owners = [one.user_id for one in everyone if one.role == Role.OWNER]
    if owners == [access.actor.pk]:
        raise ValueOutOfRange("you are the only owner of this workspace", advice="Make somebody else an owner first.")
    everyone.filter(user=access.actor).delete()


@action(Capability.RUN)
def delete_workspace(access: Access) -> Workspace:
    """Hides a workspace from everybody; DELAY later it is gone."""
    access.workspace.leaving_at = timezone.now()
    access.workspace.save(update_fields=["leaving_at"])
    return access.workspace


@action(Capability.RUN)
def bring_workspace_back(access: Access) -> Workspace:
    """Has a deleted workspace back as it was."""
    access.workspace.leaving_at = None
    access.workspace.save(update_fields=["leaving_at"])
    return access.workspace


def leaving_workspaces(person: User) -> list[Leaving]:
    """The deleted workspaces of which this person is an owner, by name."""
    found = Workspace.objects.filter(memberships__user=person, memberships__role=Role.OWNER, leaving_at__isnull=False)
    return [Leaving(one.name, one.slug, (one.leaving_at or timezone.now()) + DELAY) for one in found.order_by("name")]


def workspaces_to_erase() -> list[int]:
    """The numbers of those that were deleted longer ago than DELAY."""
    return list(Workspace.objects.filter(leaving_at__lt=timezone.now() - DELAY).values_list("pk", flat=True))


def erase_rows(number: int) -> None:
    """Takes a workspace that is being deleted out of the database, with all that belongs to it."""
    Workspace.objects.filter(pk=number, leaving_at__isnull=False).delete()
