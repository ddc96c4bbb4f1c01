"""Scripts let in by a token in the Authorization header, into its own workspace alone."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.http import HttpRequest
from ninja.errors import HttpError
from ninja.security import HttpBearer

from fitzle.apps.accounts.tokens import token_of

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User

REVOKED = "This token was revoked. Make another one, or use one that counts."


class TokenAuth(HttpBearer):
    """The person of a token, on addresses of its workspace."""

    def authenticate(self, request: HttpRequest, token: str) -> Any:
        """The person, or None for a token that is none; raises HttpError for one that was revoked."""
        person = person_of(request, token)
        match = request.resolver_match
        return person if person and match and "workspace" in match.kwargs else None


def person_of(request: HttpRequest, secret: str) -> User | None:
    """Makes the person of a token the one who asks; their access goes by its scopes from here on."""
    found = token_of(secret)
    if found is None:
        return None
    if found.revoked_at is not None or not found.user.is_active:
        raise HttpError(401, REVOKED)
    person: Any = found.user
    person.token = found
    request.user = person
    return found.user
