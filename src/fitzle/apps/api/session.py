"""Signing in and out."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any
from urllib.parse import unquote

from django.contrib.auth import authenticate, login, logout
from django.core.exceptions import PermissionDenied
from django.http import Http404, HttpRequest
from ninja import Router, Status
from ninja.utils import check_csrf

from fitzle.apps.accounts.access import Capability, access_to, workspaces_of
from fitzle.apps.accounts.addresses import pause_seconds, tries_too_often
from fitzle.apps.api.doing import may_see
from fitzle.apps.api.limits_view import limits_view
from fitzle.apps.api.schemas import Me, Message, SignIn, WorkspaceOut

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User

router, door = Router(), Router()
TOO_OFTEN = "Too many tries. Wait a quarter of an hour and try again."


@router.get("", response={200: Me, 401: Message}, auth=None)
def who_am_i(request: HttpRequest) -> Me | Status[Message]:
    """Who is signed in."""
    if not request.user.is_authenticated:
        return Status(401, Message(message="Please sign in."))
    return _me(request.user, runs=may_see(request))


@router.post("", response={200: Me, 401: Message, 403: Message, 429: Message}, auth=None)
def sign_in(request: HttpRequest, given: SignIn) -> Me | Status[Message]:
    """Signs in; after each failure beyond the fourth there is a pause, twice as long as the one before."""
    if check_csrf(request):
        return Status(403, Message(message="This page is out of date. Load it again."))
    credentials = {"email": given.email.strip().lower()}
    wait = pause_seconds(request, credentials["email"])
    if wait:
        return Status(429, Message(message=f"Too many tries. Wait {_words_for_seconds(wait)} and try again."))
    if tries_too_often(request):
        return Status(429, Message(message=TOO_OFTEN))
    user = authenticate(request, username=credentials["email"], email=credentials["email"], password=given.password)
    if user is None:
        return Status(401, Message(message="Mail address and password do not belong together. Try again."))
    login(request, user)
    return _me(user, runs=may_see(request))


def _words_for_seconds(seconds: int) -> str:
    return f"{seconds} seconds" if seconds < 100 else f"{round(seconds / 60)} minutes"


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
    if not request.user.is_authenticated:
        return Status(401, Message(message="Please sign in."))
    workspace = unquote(request.headers.get("X-Original-URI", "").partition("/workspaces/")[2].partition("/")[0])
    try:
        access_to(request.user, workspace).require(Capability.CHANGE)
    except (Http404, PermissionDenied) as refusal:
        return Status(403, Message(message=str(refusal)))
    return Status(204, None)


def _me(user: User, *, runs: bool) -> Me:
    found = [WorkspaceOut(name=entry.name, slug=entry.slug) for entry in workspaces_of(user)]
    return Me(name=user.name, email=user.email, workspaces=found, limits=limits_view(), runs=runs)
