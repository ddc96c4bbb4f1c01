"""Tokens for scripts: made, listed, revoked, and found again by what a request carries."""

from __future__ import annotations

import secrets
from collections.abc import Iterable
from datetime import timedelta
from typing import NamedTuple

from django.core.exceptions import PermissionDenied
from django.db.models import Q
from django.http import Http404
from django.utils import timezone

from fitzle.apps.accounts.access import Access, Capability, action
from fitzle.apps.accounts.invitations import hashed
from fitzle.apps.accounts.models import ApiToken
from fitzle.core.errors import ValueOutOfRange

PREFIX = "fitzle_"
SCOPES = (Capability.SEE, Capability.CHANGE, Capability.DELIVER)
NOTED_EACH = timedelta(minutes=1)
MOST = 50  # in a workspace


class MadeToken(NamedTuple):
    """A token with its secret, which is told this once."""

    row: ApiToken
    secret: str


@action(Capability.CHANGE)
def make_token(access: Access, name: str, scopes: Iterable[str]) -> MadeToken:
    """A token for scripts of this person; it always lets them see. Raises ValueOutOfRange for scopes that are none."""
    if access.scopes is not None:
        raise PermissionDenied("A script makes no tokens. Sign in and make one.")
    wanted = [scope for scope in SCOPES if scope in {*scopes, Capability.SEE}]
    unknown = next((scope for scope in scopes if scope not in SCOPES), None)
    if unknown is not None:
        raise ValueOutOfRange("there is no such scope", expected=", ".join(SCOPES), actual=repr(unknown))
    if ApiToken.objects.filter(workspace=access.workspace, revoked_at=None).count() >= MOST:
        raise ValueOutOfRange(f"a workspace has at most {MOST} tokens", advice="Revoke one that is not used any more.")
    secret = PREFIX + secrets.token_urlsafe(32)
    row = ApiToken.objects.create(
        workspace=access.workspace, user=access.actor, name=name.strip() or "a script", hashed=hashed(secret),
        begins=secret[:12], scopes=[str(scope) for scope in wanted],
    )  # fmt: skip
    return MadeToken(row, secret)


@action(Capability.CHANGE)
def revoke_token(access: Access, number: int) -> None:
    """Ends a token: its next request is refused. Owners end anybody's, others their own; Http404 for any other."""
    found = ApiToken.objects.filter(workspace=access.workspace, pk=number, revoked_at=None).first()
    if found is None or (found.user_id != access.actor.pk and access.role != "owner"):
        raise Http404("There is no such token.")
    found.revoked_at = timezone.now()
    found.save(update_fields=["revoked_at"])


def tokens_of(access: Access) -> list[ApiToken]:
    """All tokens that count, one's own; an owner sees everybody's."""
    found = ApiToken.objects.filter(workspace=access.workspace, revoked_at=None).select_related("user")
    return list(found if access.role == "owner" else found.filter(user=access.actor))


def token_of(secret: str) -> ApiToken | None:
    """The token with this secret, also one that was revoked; None for any other. Notes that it was used."""
    if not secret.startswith(PREFIX):
        return None
    found = ApiToken.objects.select_related("workspace", "user").filter(hashed=hashed(secret)).first()
    if found and found.revoked_at is None:
        now = timezone.now()
        unnoted = Q(used_at=None) | Q(used_at__lt=now - NOTED_EACH)
        ApiToken.objects.filter(unnoted, pk=found.pk).update(used_at=now)
    return found
