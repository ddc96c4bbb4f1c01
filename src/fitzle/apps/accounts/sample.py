"""The sample's account, whose password everybody can read: it exists on machines that only their own people reach."""

from __future__ import annotations

from django.conf import settings
from django.contrib.auth.hashers import check_password

from fitzle.apps.accounts.models import User

EMAIL = "juno@ottermoor.example"
PASSWORD = "true-wheels-run-quiet"
LOOPBACK = frozenset({"127.0.0.1", "localhost", "::1", "[::1]"})


class PublishedPassword(Exception):
    """Somebody else could sign in with the sample's password."""


def is_public() -> bool:
    """Whether others than this machine's own people are to reach Fitzle: by address, by its names, or by HTTPS."""
    return settings.HTTPS or not LOOPBACK.issuperset([settings.BIND, *settings.ALLOWED_HOSTS])


def refuse_published_password() -> None:
    """Raises PublishedPassword where Fitzle is public and the sample's account still has the published password."""
    if not is_public():
        return
    for user in User.objects.filter(email=EMAIL, is_active=True):
        if check_password(PASSWORD, user.password):
            raise PublishedPassword(
                f"Fitzle is to be reached from outside (FITZLE_BIND, FITZLE_HOSTS or FITZLE_HTTPS), and {EMAIL} still"
                f" has the password of the sample, which everybody can read. Run: ./manage changepassword {EMAIL}"
            )
