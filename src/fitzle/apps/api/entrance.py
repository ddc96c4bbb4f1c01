"""Before one is signed in: who may sign up, and the mails of an installation that has no mail server."""

from __future__ import annotations

from typing import TYPE_CHECKING, cast

from django.http import Http404, HttpRequest
from ninja import Router, Schema, Status

from fitzle.apps.accounts.addresses import comes_from_here
from fitzle.apps.accounts.invitations import invite, is_invited, sign_up_now
from fitzle.apps.api.schemas import Message
from fitzle.apps.mails.read import are_files, newest_mails
from fitzle.apps.mails.sending import are_delayed

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import User

router, mails, invitations = Router(tags=["account"]), Router(tags=["account"]), Router(tags=["account"])


class EntranceOut(Schema):
    """`sign_up`: open, closed, or first (nobody is there yet); `mails_here`: they can be read at /mail."""

    sign_up: str
    invited: bool
    mails_here: bool
    mails_delayed: bool


class MailOut(Schema):
    """A mail that was written into a file; `at` is its moment in UTC."""

    to: str
    subject: str
    body: str
    at: str


class InvitationOut(Schema):
    """The page to which an invitation leads, without the address of the server."""

    path: str


@router.get("", response=EntranceOut, auth=None)
def entrance(request: HttpRequest, invitation: str = "") -> EntranceOut:
    """How one comes in."""
    return EntranceOut(
        sign_up=sign_up_now().value,
        invited=is_invited(invitation),
        mails_here=_may_read_mails(request),
        mails_delayed=are_delayed(),
    )


@mails.get("", response={200: list[MailOut], 404: Message}, auth=None)
def read_mails(request: HttpRequest) -> list[MailOut]:
    """The newest mails first; only where nobody but this machine's own people come."""
    if not _may_read_mails(request):
        raise Http404("There is nothing here.")
    return [
        MailOut(to=one.to, subject=one.subject, body=one.body, at=one.at.isoformat(timespec="seconds"))
        for one in newest_mails()
    ]


@invitations.post("", response={201: InvitationOut, 422: Message})
def make_invitation(request: HttpRequest) -> Status[InvitationOut]:
    """Lets one more person sign up."""
    return Status(201, InvitationOut(path=f"/sign-up?invitation={invite(cast('User', request.user))}"))


def _may_read_mails(request: HttpRequest) -> bool:
    return are_files() and comes_from_here(request)
