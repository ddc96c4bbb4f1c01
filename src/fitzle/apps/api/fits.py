"""Fits: everything the bench shows, proofs, edits that answer with plan and findings at once, and repairs."""

from __future__ import annotations

from typing import TYPE_CHECKING
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import Access, Capability, access_to, workspace_to_see
from fitzle.apps.api.drawn import Shown, draw_fit, draw_proof, proof_place
from fitzle.apps.api.pictures import held_picture, immutable_picture, width_allowed
from fitzle.apps.api.schemas import ComposedIn, Edit, FitOut, Message, Reason, StalePiece
from fitzle.apps.artwork.library import newest_change
from fitzle.apps.drawing.errors import DrawingTooHeavy, SavedTooHeavy
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.composing import Placing
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import open_fit
from fitzle.apps.pieces.saving import document_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.document import artworks_in

if TYPE_CHECKING:
    from fitzle.apps.pieces.models import Fit

router = Router(tags=["fits"])


@router.get("/fits/{uuid:fit}", response=FitOut)
def read_fit(request: HttpRequest, workspace: Path[str], fit: UUID) -> FitOut:
    """One fit."""
    access = access_to(request.user, workspace)
    access.require(Capability.SEE)
    return view_of(access, fit_of(access.workspace, fit))


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
        key=given.key,
    )
    return view_of_changed(access, actions.change_fit(access, fit, wanted), given.proof_width)


@router.put("/fits/{uuid:fit}/muted/{rule}", response={200: FitOut, 422: Message})
def mute_rule(request: HttpRequest, workspace: Path[str], fit: UUID, rule: str, given: Reason) -> FitOut:
    """Says why what a rule finds is right as it is here."""
    access = access_to(request.user, workspace)
    return view_of(access, actions.mute_rule(access, fit, rule, given.reason))


@router.delete("/fits/{uuid:fit}/muted/{rule}", response=FitOut)
def judge_again(request: HttpRequest, workspace: Path[str], fit: UUID, rule: str) -> FitOut:
    """Lets the findings of a rule count again."""
    access = access_to(request.user, workspace)
    return view_of(access, actions.judge_again(access, fit, rule))


@router.post("/fits/{uuid:fit}/repairs/{name}", response={200: FitOut, 409: StalePiece, 422: Message})
def repair_fit(request: HttpRequest, workspace: Path[str], fit: UUID, name: str, part: str | None = None) -> FitOut:
    """Makes a repair that a finding names, for this placement only."""
    access = access_to(request.user, workspace)
    return view_of_changed(access, actions.repair_fit(access, fit, name, part))


@router.put("/fits/{uuid:fit}/composed", response={200: FitOut, 409: StalePiece, 422: Message})
def compose_for(request: HttpRequest, workspace: Path[str], fit: UUID, given: ComposedIn) -> FitOut:
    """Lets places of other shapes follow this fit by calculation, or all places keep to the boxes of the piece."""
    access = access_to(request.user, workspace)
    return view_of_changed(access, actions.compose_for(access, fit, given.on))


@router.post("/fits/{uuid:fit}/enough", response=FitOut)
def end_search(request: HttpRequest, workspace: Path[str], fit: UUID) -> FitOut:
    """Ends the search for the file of a fit with the best that it has found so far."""
    access = access_to(request.user, workspace)
    return view_of(access, actions.end_search(access, fit))


@router.post("/fits/{uuid:fit}/simpler/{part}", response={200: FitOut, 422: Message})
def simplify_mark(request: HttpRequest, workspace: Path[str], fit: UUID, part: str) -> FitOut:
    """Makes a version of a mark with fewer parts for this place; it stands there once it is read."""
    access = access_to(request.user, workspace)
    return view_of(access, actions.simplify_mark(access, fit, part))


@router.post("/fits/{uuid:fit}/prepared/{part}", response={200: FitOut, 409: StalePiece, 422: Message})
def prepare_here(request: HttpRequest, workspace: Path[str], fit: UUID, part: str, step: str) -> FitOut:
    """Lets a version of a mark with one further step ("cut out", "clean edge") stand in this place alone."""
    access = access_to(request.user, workspace)
    return view_of_changed(access, actions.prepare_here(access, fit, part, step))


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
    found, shown = fit_of(space, fit), Shown(only, without, as_drawn)
    width = width_allowed(width)
    held = held_picture(proof_place(space.pk, key, width, shown)) if key else None
    if held:
        return immutable_picture(*held)
    now = open_fit(space, found).proof_key
    picture = held_picture(proof_place(space.pk, now, width, shown))
    answer = immutable_picture(*(picture or draw_proof.ask(now, space.pk, found.pk, width, shown)))
    if key != now:
        answer["Cache-Control"] = "no-store"
    return answer


def view_of_changed(access: Access, fit: Fit, proof_width: int | None = None) -> FitOut:
    """The same after a change, which stands however heavy it is to draw: without its proof, else SavedTooHeavy."""
    try:
        return view_of(access, fit, proof_width)
    except DrawingTooHeavy:
        try:
            return view_of(access, fit)
        except DrawingTooHeavy as error:
            raise SavedTooHeavy(fit.piece.revision) from error


def view_of(access: Access, fit: Fit, proof_width: int | None = None) -> FitOut:
    """A fit as it is now; with a width its proof comes in the same answer, so that a change costs one request."""
    width, space = width_allowed(proof_width) if proof_width else None, access.workspace
    changed = newest_change(space, artworks_in(document_of(fit.piece)))
    return draw_fit.ask(f"{fit.piece.revision}/{changed}", space.pk, fit.pk, access.actor.pk, width)
