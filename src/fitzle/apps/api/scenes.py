"""Proofs: a fit in the scenes where it will be seen, as data, as pictures and as a sheet for a client."""

from __future__ import annotations

from typing import Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Path, Router
from ninja.errors import HttpError

from fitzle.apps.accounts.access import workspace_to_see
from fitzle.apps.api.drawn_scenes import draw_proof_sheet, draw_scene_picture, draw_shown, list_scenes
from fitzle.apps.api.fit_scenes import shot_answer
from fitzle.apps.api.pictures import download, keyed_picture
from fitzle.apps.api.scene_views import ScenesOut
from fitzle.apps.api.schemas import Message
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import OpenFit, open_fit
from fitzle.core.scenes.sight import Sight
from fitzle.core.spec.stems import safe_stem

router = Router(tags=["scenes"])

MOST_SCALE = 3.0
MOST_SCENES = 60


@router.get("/fits/{uuid:fit}/scenes", response=ScenesOut)
def read_scenes(request: HttpRequest, workspace: Path[str], fit: UUID) -> ScenesOut:
    """The scenes of a fit, worked out for it."""
    space = workspace_to_see(request.user, workspace)
    return list_scenes.ask(state_of(open_fit(space, fit_of(space, fit))), space.pk, fit)


@router.get("/fits/{uuid:fit}/shown", response={422: Message})
def shown(request: HttpRequest, workspace: Path[str], fit: UUID, key: str = "", scene: str = "") -> HttpResponse:
    """What the destination shows, in one scene of it: the very file where there is one.

    `key` makes the address change with it.
    """
    space = workspace_to_see(request.user, workspace)
    state = state_of(open_fit(space, fit_of(space, fit)))
    return keyed_picture(draw_shown.ask(state, space.pk, fit, scene), key)


@router.get("/fits/{uuid:fit}/shot")
def shot(request: HttpRequest, workspace: Path[str], fit: UUID, key: str = "") -> HttpResponse:
    """The screenshot that the place was shown by; `key` makes the address change with it."""
    space = workspace_to_see(request.user, workspace)
    return shot_answer(fit_of(space, fit), key)


@router.get("/fits/{uuid:fit}/scenes/{scene}/picture", response={422: Message})
def scene_picture(
    request: HttpRequest,
    workspace: Path[str],
    fit: UUID,
    scene: str,
    sight: Sight = "usual",
    scale: float = 1,
    key: str = "",
) -> HttpResponse:
    """A scene drawn by the server, as somebody sees it."""
    space = workspace_to_see(request.user, workspace)
    state = state_of(open_fit(space, fit_of(space, fit)))
    by = min(max(scale, 0.25), MOST_SCALE)
    return keyed_picture(draw_scene_picture.ask(state, space.pk, fit, scene, sight, by), key)


@router.get("/fits/{uuid:fit}/proof-sheet", response={422: Message})
def proof_sheet(
    request: HttpRequest, workspace: Path[str], fit: UUID, kind: Literal["pdf", "png"] = "pdf", scenes: str = ""
) -> HttpResponseBase:
    """A proof sheet to save, of the scenes named (ids separated by commas) or of all."""
    space = workspace_to_see(request.user, workspace)
    opened = open_fit(space, fit_of(space, fit))
    wanted = [name for name in scenes.split(",") if name]
    if len(wanted) > MOST_SCENES:
        raise HttpError(422, f"A proof sheet has room for {MOST_SCENES} scenes.")
    drawn = draw_proof_sheet.ask(state_of(opened), space.pk, fit, wanted, kind)
    name = safe_stem(f"{opened.document.subject} {opened.sheet.name} proofs")
    return download(drawn.data, f"{name}.{kind}", drawn.media_type)


def state_of(opened: OpenFit) -> str:
    """What the pictures follow from: how it is drawn, whether its file is made, how the place shows it, the rules."""
    made = opened.record.files[0].sha256 if opened.record and opened.record.files else ""
    return f"{opened.proof_key}/{opened.judgement_key}/{made}/{opened.findings is not None}"
