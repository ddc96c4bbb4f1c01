"""A link that shows a fit's scenes on another device for a while, without signing in there, and nothing else.

The link is signed and carries what it shows; after half an hour it opens nothing any more.
"""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

import qrcode
import qrcode.image.svg
from django.core import signing
from django.http import Http404, HttpRequest, HttpResponse
from ninja import Path, Router, Schema

from fitzle.apps.accounts.access import workspace_numbered, workspace_to_see
from fitzle.apps.api.drawn_scenes import draw_shown, list_scenes
from fitzle.apps.api.fit_scenes import shot_answer
from fitzle.apps.api.pictures import keyed_picture
from fitzle.apps.api.scene_views import ScenesOut
from fitzle.apps.api.scenes import state_of
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import OpenFit, open_fit

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace

router = Router(tags=["scenes"])
seen = Router(tags=["scenes"])

SALT = "fitzle.scenes-on-a-phone"
LASTS_SECONDS = 30 * 60


class PhoneLink(Schema):
    """The address for the other device, the same as a code to be photographed (SVG), and how long both hold."""

    address: str
    code: str
    minutes: int


@router.post("/fits/{uuid:fit}/phone-link", response=PhoneLink)
def make_phone_link(request: HttpRequest, workspace: Path[str], fit: UUID) -> PhoneLink:
    """A link to the scenes of a fit for another device."""
    space = workspace_to_see(request.user, workspace)
    fit_of(space, fit)
    token = signing.dumps([space.pk, str(fit)], salt=SALT, compress=True)
    address = request.build_absolute_uri(f"/seen/{token}")
    drawn = qrcode.make(address, image_factory=qrcode.image.svg.SvgPathImage, box_size=10, border=2)
    return PhoneLink(address=address, code=drawn.to_string(encoding="unicode"), minutes=LASTS_SECONDS // 60)


@seen.get("/{token}", response=ScenesOut, auth=None)
def read_seen(request: HttpRequest, token: str) -> ScenesOut:
    """The scenes that a link shows."""
    space, opened = _opened(token)
    return list_scenes.ask(state_of(opened), space.pk, opened.fit.pk)


@seen.get("/{token}/shown", auth=None)
def seen_picture(request: HttpRequest, token: str, key: str = "", scene: str = "") -> HttpResponse:
    """The picture in them."""
    space, opened = _opened(token)
    return keyed_picture(draw_shown.ask(state_of(opened), space.pk, opened.fit.pk, scene), key)


@seen.get("/{token}/shot", auth=None)
def seen_shot(request: HttpRequest, token: str, key: str = "") -> HttpResponse:
    """The screenshot that the picture stands in."""
    return shot_answer(_opened(token)[1].fit, key)


def _opened(token: str) -> tuple[Workspace, OpenFit]:
    """What a link stands for; Http404 where it ended or was never made here."""
    try:
        space, fit = signing.loads(token, salt=SALT, max_age=LASTS_SECONDS)
    except signing.BadSignature as error:
        raise Http404("This link has ended. Ask for a new one on the screen it came from.") from error
    workspace = workspace_numbered(space)
    if workspace.leaving_at:
        raise Http404("What this link showed is not there any more.")
    return workspace, open_fit(workspace, fit_of(workspace, UUID(fit)))
