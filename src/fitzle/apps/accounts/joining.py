"""Letting a colleague into a workspace to fill in rows: a link that one person can use, once, within 14 days."""

from __future__ import annotations

import secrets

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.accounts.invitations import HOLDS, MOST_OPEN, hashed
from fitzle.apps.accounts.models import Joining, Membership, Role, User
from fitzle.core.errors import ValueOutOfRange

USED_UP = "this link was used already, or is older than 14 days"


@action(Capability.CHANGE)
def hand_on(access: Access, piece: str) -> str:
    """The secret of a link by which one person may fill in rows of this workspace; `piece` is the run that it opens.

    Raises ValueOutOfRange where too many of the actor's are not used yet.
    """
    if _open().filter(by=access.actor).count() >= MOST_OPEN:
        raise ValueOutOfRange(f"{MOST_OPEN} of your links are not used yet", advice="Wait until some are.")
    secret = secrets.token_urlsafe(24)
    Joining.objects.create(
        hashed=hashed(secret), by=access.actor, workspace=access.workspace, role=Role.FILLER, piece=piece
    )
    return secret


def joining_of(secret: str) -> Joining:
    """What a link is for. Raises ValueOutOfRange where it cannot be used any more."""
    found = _open().filter(hashed=hashed(secret)).select_related("workspace", "by").first()
    if found is None:
        raise ValueOutOfRange(USED_UP, advice="Ask for another one.")
    return found


@transaction.atomic
def join(person: User, secret: str) -> Joining:
    """Makes a person a member by a link; whoever is one already keeps their role, and the link is not used up."""
    found = joining_of(secret)
    if Membership.objects.filter(user=person, workspace=found.workspace).exists():
        return found
    if not _open().filter(pk=found.pk).update(used_by=person, used_at=timezone.now()):
        raise ValueOutOfRange(USED_UP, advice="Ask for another one.")  # somebody else was faster
    Membership.objects.create(user=person, workspace=found.workspace, role=found.role)
    return found


def _open() -> QuerySet[Joining]:
    there = Joining.objects.filter(used_at=None, workspace__leaving_at=None)
    return there.filter(made_at__gt=timezone.now() - HOLDS)
