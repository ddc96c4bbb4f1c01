"""Who may sign up: anybody, or who was invited; and to whom a new installation belongs."""

from __future__ import annotations

import hashlib
import secrets
from datetime import timedelta
from enum import StrEnum

from django.conf import settings
from django.core.exceptions import PermissionDenied
from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.utils import timezone

from fitzle.apps.accounts.models import FirstPerson, Invitation, User
from fitzle.apps.accounts.people import is_confirmed
from fitzle.apps.accounts.sample import is_public
from fitzle.core.errors import ValueOutOfRange

HOLDS = timedelta(days=14)
MOST_OPEN = 50  # invitations of one person that nobody has used yet


class SignUp(StrEnum):
    """Who may sign up; `first`: nobody is there yet, and whoever comes becomes the installation's owner."""

    OPEN = "open"
    CLOSED = "closed"
    FIRST = "first"


def sign_up_now() -> SignUp:
    """Who may sign up now."""
    if not User.objects.exists():
        return SignUp.FIRST
    chosen = settings.SIGN_UP or ("closed" if is_public() else "open")
    return SignUp.OPEN if chosen == "open" else SignUp.CLOSED


def runs_fitzle(user: User) -> bool:
    """Whether this person runs the installation: its first one, or one whom its settings name."""
    return user.runs or (user.email in settings.OPERATORS and is_confirmed(user))  # anybody may type an address


def make_first(user: User) -> None:
    """Gives the installation to this person, unless somebody was there before."""
    if User.objects.exclude(pk=user.pk).exists():
        return
    try:
        with transaction.atomic():
            FirstPerson.objects.create(pk=FirstPerson.ONLY, user=user)
    except IntegrityError:
        return  # two came at once, and the other one was first
    user.runs = True
    user.save(update_fields=["runs"])


def invite(user: User) -> str:
    """A new invitation's secret; raises PermissionDenied for who does not run Fitzle, ValueOutOfRange for too many."""
    if not runs_fitzle(user):
        raise PermissionDenied("Only who runs this Fitzle can invite somebody.")
    if _open().filter(by=user).count() >= MOST_OPEN:
        raise ValueOutOfRange(f"{MOST_OPEN} of your invitations are not used yet", advice="Wait until some are.")
    secret = secrets.token_urlsafe(24)
    Invitation.objects.create(hashed=hashed(secret), by=user)
    return secret


def is_invited(secret: str) -> bool:
    """Whether an invitation of this secret can still be used."""
    return bool(secret) and _open().filter(hashed=hashed(secret)).exists()


def use_invitation(secret: str, user: User) -> bool:
    """Uses an invitation up; False where somebody else was faster."""
    used = _open().filter(hashed=hashed(secret)).update(used_by=user, used_at=timezone.now())
    return used == 1


def _open() -> QuerySet[Invitation]:
    return Invitation.objects.filter(used_at=None, made_at__gt=timezone.now() - HOLDS)


def hashed(secret: str) -> str:
    """What is kept of a secret; of 192 random bits and more no slow hash is needed."""
    return hashlib.sha256(secret.encode()).hexdigest()
