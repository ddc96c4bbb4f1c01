"""Tokens for scripts."""

from __future__ import annotations

from datetime import datetime
from typing import TYPE_CHECKING, Annotated, Any

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status
from pydantic import Field

from fitzle.apps.accounts.access import access_to
from fitzle.apps.accounts.tokens import make_token, revoke_token, tokens_of
from fitzle.apps.api.schemas import Message

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import ApiToken

router = Router(tags=["tokens"])


class TokenOut(Schema):
    """A token without its secret; `scopes` are see, change and deliver."""

    id: int
    name: str
    begins: str
    scopes: list[str]
    by: str
    made_at: datetime
    used_at: datetime | None


class NewTokenOut(TokenOut):
    """A token that was just made; its secret is told this once."""

    secret: str


class TokenIn(Schema):
    """What a token is for, and what it lets a script do beside seeing."""

    name: Annotated[str, Field(max_length=80)]
    scopes: Annotated[list[str], Field(max_length=10)] = []


@router.get("/tokens", response=list[TokenOut])
def list_tokens(request: HttpRequest, workspace: Path[str]) -> list[TokenOut]:
    """The tokens that count."""
    return [TokenOut(**_view(token)) for token in tokens_of(access_to(request.user, workspace))]


@router.post("/tokens", response={201: NewTokenOut, 422: Message})
def add_token(request: HttpRequest, workspace: Path[str], given: TokenIn) -> Status[NewTokenOut]:
    """Makes a token."""
    made = make_token(access_to(request.user, workspace), given.name, given.scopes)
    return Status(201, NewTokenOut(**_view(made.row), secret=made.secret))


@router.delete("/tokens/{int:number}", response={204: None})
def end_token(request: HttpRequest, workspace: Path[str], number: int) -> Status[None]:
    """Revokes a token."""
    revoke_token(access_to(request.user, workspace), number)
    return Status(204, None)


def _view(token: ApiToken) -> dict[str, Any]:
    return {
        "id": token.pk, "name": token.name, "begins": token.begins, "scopes": token.scopes,
        "by": token.user.name or token.user.email, "made_at": token.made_at, "used_at": token.used_at,
    }  # fmt: skip
