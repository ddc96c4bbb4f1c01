"""Motion of a fit: what each part does in the seconds of the loop, proposals, and the loop to be watched."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Schema
from pydantic import Field

from fitzle.apps.accounts.access import Capability, access_to, workspace_to_see
from fitzle.apps.api.drawn_motion import MotionOut, draw_frames, draw_moment, draw_playing, look_at_motion
from fitzle.apps.api.fits import view_of_changed
from fitzle.apps.api.pictures import keyed_picture, width_allowed
from fitzle.apps.api.schemas import FitOut, Message, StalePiece
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import open_fit
from fitzle.core.piece.motion import LONGEST_S

router = Router(tags=["motion"])
Moment = Annotated[float, Field(ge=0, le=LONGEST_S)]


class LetMove(Schema):
    """How lively the parts are to move, calm (0) to lively (1); null lets all of them stand still."""

    liveliness: Annotated[float, Field(ge=0, le=1)] | None = None


@router.get("/fits/{uuid:fit}/motion", response=MotionOut)
def read_motion(request: HttpRequest, workspace: Path[str], fit: UUID) -> MotionOut:
    """What moves, and when."""
    access = access_to(request.user, workspace)
    access.require(Capability.SEE)
    opened = open_fit(access.workspace, fit_of(access.workspace, fit))
    return look_at_motion.ask(opened.file_key, access.workspace.pk, fit)


@router.post("/fits/{uuid:fit}/motion", response={200: FitOut, 409: StalePiece, 422: Message})
def let_move(request: HttpRequest, workspace: Path[str], fit: UUID, given: LetMove) -> FitOut:
    """Lets the parts of the piece move as a calculation proposes, or stand still again."""
    access = access_to(request.user, workspace)
    return view_of_changed(access, actions.let_move(access, fit, given.liveliness))


@router.get("/fits/{uuid:fit}/motion/playing", response={422: Message})
def playing(request: HttpRequest, workspace: Path[str], fit: UUID, width: int = 480, key: str = "") -> HttpResponse:
    """The loop at a width of the screen, as an animated WebP; `key` makes the address change with the fit."""
    space = workspace_to_see(request.user, workspace)
    opened = open_fit(space, fit_of(space, fit))
    return keyed_picture(draw_playing.ask(opened.file_key, space.pk, fit, width_allowed(width)), key)


@router.get("/fits/{uuid:fit}/motion/frames", response={422: Message})
def frames(
    request: HttpRequest,
    workspace: Path[str],
    fit: UUID,
    first: int = 0,
    count: int = 1,
    width: int = 480,
    key: str = "",
) -> HttpResponse:
    """Some of the frames of the loop as one picture, one below the other: who watches need not wait for all."""
    space = workspace_to_see(request.user, workspace)
    opened = open_fit(space, fit_of(space, fit))
    drawn = draw_frames.ask(opened.file_key, space.pk, fit, width_allowed(width), first, count)
    return keyed_picture(drawn, key)


@router.get("/fits/{uuid:fit}/motion/moment", response={422: Message})
def moment(
    request: HttpRequest, workspace: Path[str], fit: UUID, at: Moment = 0.0, width: int = 480, key: str = ""
) -> HttpResponse:
    """The picture of a moment, in seconds of the loop; `key` makes the address change with the fit."""
    space = workspace_to_see(request.user, workspace)
    opened = open_fit(space, fit_of(space, fit))
    return keyed_picture(draw_moment.ask(opened.file_key, space.pk, fit, at, width_allowed(width)), key)
