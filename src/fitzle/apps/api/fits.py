"""Fits: everything the bench shows, proofs, edits that answer with plan and findings at once, and repairs."""

from __future__ import annotations

from base64 import b64encode
from typing import TYPE_CHECKING, NamedTuple
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.pictures import Picture, held_picture, hold_picture, immutable_picture, width_allowed
from fitzle.apps.api.schemas import Edit, FitOut, Message, StalePiece
from fitzle.apps.api.views import fit_view
from fitzle.apps.deliveries.delivering import last_delivered_keys
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.composing import Placing
from fitzle.apps.pieces.fits import fit_of, fits_of_piece
from fitzle.apps.pieces.opening import OpenFit, decided, open_fit, open_fits
from fitzle.core.fit.proofs import off_the_grid, parts_alone, proof_bytes, without_parts
from fitzle.core.geometry.rect import Rect

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.pieces.models import Fit

router = Router(tags=["fits"])


@router.get("/fits/{uuid:fit}", response=FitOut)
def read_fit(request: HttpRequest, workspace: Path[str], fit: UUID) -> FitOut:
    """One fit."""
    space = workspace_to_see(request.user, workspace)
    return view_of(space, fit_of(space, fit))


@router.patch("/fits/{uuid:fit}", response={200: FitOut, 409: StalePiece, 422: Message})
def change_fit(request: HttpRequest, workspace: Path[str], fit: UUID, given: Edit) -> FitOut:
    """Changes the fit's piece and answers with the plan, the findings and the address of the new proof."""
    access = access_to(request.user, workspace)
    wanted = actions.Edit(
        revision=given.revision,
        step=given.step,
        changes=given.changes,
        values=given.values,
        placings=[Placing(one.part, Rect(one.x, one.y, one.width, one.height)) for one in given.placings],
        take_back=given.take_back,
        everywhere=given.everywhere,
    )
    return view_of(access.workspace, actions.change_fit(access, fit, wanted), given.proof_width)


@router.post("/fits/{uuid:fit}/repairs/{name}", response={200: FitOut, 409: StalePiece, 422: Message})
def repair_fit(request: HttpRequest, workspace: Path[str], fit: UUID, name: str, part: str | None = None) -> FitOut:
    """Makes a repair that a finding names, for this placement only."""
    access = access_to(request.user, workspace)
    return view_of(access.workspace, actions.repair_fit(access, fit, name, part))


@router.delete("/fits/{uuid:fit}", response={204: None})
def empty_placement(request: HttpRequest, workspace: Path[str], fit: UUID) -> Status[None]:
    """Takes the piece out of this placement; the piece itself stays."""
    actions.empty_placement(access_to(request.user, workspace), fit)
    return Status(204, None)


@router.get("/fits/{uuid:fit}/proof")
def proof(
    request: HttpRequest,
    workspace: Path[str],
    fit: UUID,
    width: int = 900,
    key: str = "",
    only: str = "",
    without: str = "",
    as_drawn: bool = False,
) -> HttpResponse:
    """The fit drawn at a width of the screen; `key` makes the address change with the fit.

    `only` draws some parts (ids separated by commas) alone on a clear ground, `without` everything else.
    `as_drawn` leaves small marks off the pixel grid.
    """
    space = workspace_to_see(request.user, workspace)
    width, shown = width_allowed(width), Shown(only, without, as_drawn)
    found = fit_of(space, fit)
    held = held_picture(_proof_key(space, key, width, shown)) if key else None
    if held:
        return immutable_picture(*held)
    opened = open_fit(space, found)
    answer = immutable_picture(*_proof(space, opened, width, shown))
    if key != opened.proof_key:
        answer["Cache-Control"] = "no-store"
    return answer


class Shown(NamedTuple):
    """What a proof shows: all parts, some alone, or all but some; small marks fitted to the grid or as drawn."""

    only: str = ""
    without: str = ""
    as_drawn: bool = False


def _proof_key(space: Workspace, key: str, width: int, shown: Shown) -> str:
    return f"proof/{space.pk}/{key}/{width}/{shown.only}/{shown.without}/{shown.as_drawn:d}"


def _proof(space: Workspace, opened: OpenFit, width: int, shown: Shown) -> Picture:
    """The picture and its media type, drawn once for each state and width."""
    key = _proof_key(space, opened.proof_key, width, shown)
    held = held_picture(key)
    if held is None:
        plan = decided(space, opened).plan
        if shown.only:
            plan = parts_alone(plan, shown.only.split(","))
        elif shown.without:
            plan = without_parts(plan, shown.without.split(","))
        if shown.as_drawn:
            plan = off_the_grid(plan)
        held = Picture(*proof_bytes(plan, opened.planned.sources(opened.sources(preview=True)), width))
        hold_picture(key, held)
    return held


def view_of(space: Workspace, fit: Fit, proof_width: int | None = None) -> FitOut:
    """A fit as it is now; with a width its proof comes in the same answer, so that a change costs one request."""
    beside = open_fits(space, fits_of_piece(fit.piece))
    opened = next((entry for entry in beside if entry.fit.pk == fit.pk), None)
    if opened is None:
        raise Http404("The artwork of this fit is not there any more.")
    view = fit_view(space, opened, beside, last_delivered_keys(space))
    if proof_width:
        data, media_type = _proof(space, opened, width_allowed(proof_width), Shown())
        view.proof = f"data:{media_type};base64,{b64encode(data).decode()}"
    return view
