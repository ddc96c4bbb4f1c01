"""Who is signed in. Signing in itself, and all of an account, is django-allauth's: /api/account/ (config/urls.py)."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, cast
from urllib.parse import unquote

from django.contrib.auth import logout
from django.core.exceptions import PermissionDenied
from django.http import Http404, HttpRequest
from ninja import Router, Status

from fitzle.apps.accounts.access import Capability, access_to, workspaces_of
from fitzle.apps.accounts.invitations import runs_fitzle
from fitzle.apps.accounts.people import is_confirmed, rename_person
from fitzle.apps.accounts.workspaces import leaving_workspaces
from fitzle.apps.api.doing import may_see
from fitzle.apps.api.limits_view import limits_view
from fitzle.apps.api.schemas import LeavingOut, Me, Message, PersonName, WorkspaceOut
from fitzle.apps.api.token_auth import person_of

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User

router, door = Router(), Router()


@router.get("", response={200: Me, 401: Message}, auth=None)
def who_am_i(request: HttpRequest) -> Me | Status[Message]:
    """Who is signed in."""
    if not request.user.is_authenticated:
        return Status(401, Message(message="Please sign in."))
    return _me(request.user, runs=may_see(request))


@router.patch("", response={200: Me})
def call_me(request: HttpRequest, given: PersonName) -> Me:
    """Another name of who is signed in."""
    person = cast("User", request.user)
    rename_person(person, given.name)
    return _me(person, runs=may_see(request))


@router.delete("", response={204: None})
def sign_out(request: HttpRequest) -> Status[None]:
    """Signs out."""
    logout(request)
    return Status(204, None)


@door.get("", response={204: None, 401: Message, 403: Message}, auth=None, include_in_schema=False)
def may_bring_in(request: HttpRequest) -> Status[Any]:
    """Asked by the front before it takes the body of an upload: whether this person may bring files in there."""
    if request.headers.get("X-Original-Method", "") not in ("POST", "PUT", "PATCH"):
        return Status(204, None)
    secret = request.headers.get("Authorization", "").removeprefix("Bearer ")
    if secret and person_of(request, secret) is None:
        return Status(401, Message(message="There is no such token."))
    if not request.user.is_authenticated:
        return Status(401, Message(message="Please sign in."))
    if request.headers.get("X-Original-URI", "") == "/api/workspaces/bring-in" and not secret:
        return Status(204, None)  # a workspace of one's own
    workspace = unquote(request.headers.get("X-Original-URI", "").partition("/workspaces/")[2].partition("/")[0])
    try:
        access_to(request.user, workspace).require(Capability.CHANGE)
    except (Http404, PermissionDenied) as refusal:
        return Status(403, Message(message=str(refusal)))
    return Status(204, None)


def _me(user: User, *, runs: bool) -> Me:
    found = [WorkspaceOut(name=entry.name, slug=entry.slug) for entry in workspaces_of(user)]
    return Me(
        name=user.name,
        email=user.email,
        confirmed=is_confirmed(user),
        invites=runs_fitzle(user),
        workspaces=found,
        leaving=[
            LeavingOut(name=one.name, slug=one.slug, until=one.until.date().isoformat())
            for one in leaving_workspaces(user)
        ],
        limits=limits_view(),
        runs=runs,
    )
