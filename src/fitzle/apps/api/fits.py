"""Fits: everything the bench shows, proofs, edits that answer with plan and findings at once, and repairs."""

from __future__ import annotations

from base64 import b64encode
from typing import Any, NamedTuple
from uuid import UUID

from django.core.cache import cache
from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Status

from fitzle.apps.accounts.access import house_colours, workspace_to_change, workspace_to_see
from fitzle.apps.api.pictures import immutable_picture, width_allowed
from fitzle.apps.api.shapes import Edit, FitOut, Message, StalePiece
from fitzle.apps.api.views import fit_view
from fitzle.apps.deliveries.delivering import last_delivered_keys
from fitzle.apps.jobs.queue import make_later
from fitzle.apps.pieces.composing import Placing, placing_changes
from fitzle.apps.pieces.fits import fit_of, fits_of_piece, take_away
from fitzle.apps.pieces.opening import OpenFit, looked_fit, open_fit
from fitzle.apps.pieces.saving import save_changes
from fitzle.core.geometry.rect import Rect
from fitzle.core.pipeline import off_the_grid, parts_alone, proof_bytes, without_parts
from fitzle.core.preflight.repairs import repair_changes

router = Router(tags=["fits"])


@router.get("/fits/{uuid:fit}", response=FitOut)
def read_fit(request: HttpRequest, workspace: Path[str], fit: UUID) -> Any:
    """One fit."""
    space = workspace_to_see(request.user, workspace)
    found = fit_of(space, fit)
    return _view(space, found, fits_of_piece(found.piece))


@router.patch("/fits/{uuid:fit}", response={200: FitOut, 409: StalePiece, 422: Message})
def change_fit(request: HttpRequest, workspace: Path[str], fit: UUID, given: Edit) -> Any:
    """Changes the fit's piece and answers with the plan, the findings and the address of the new proof."""
    space = workspace_to_change(request.user, workspace)
    found = fit_of(space, fit)
    placings = [
        Placing(entry.part, Rect(entry.x, entry.y, entry.width, entry.height), entry.placement)
        for entry in given.placings
    ]
    changes = given.changes + placing_changes(space, found, placings)
    save_changes(found.piece, request.user, given.revision, changes, given.step)
    return view_of_changed(space, found, given.proof_width)


@router.post("/fits/{uuid:fit}/repairs/{name}", response={200: FitOut, 409: StalePiece, 422: Message})
def repair_fit(request: HttpRequest, workspace: Path[str], fit: UUID, name: str, part: str | None = None) -> Any:
    """Makes a repair that a finding names, for this placement only."""
    space = workspace_to_change(request.user, workspace)
    found = fit_of(space, fit)
    opened = open_fit(space, found)
    placement, house = str(found.placement_id), house_colours(space)
    changes = repair_changes(name, opened.document, placement, opened.sheet, opened.facts, house, part)
    save_changes(found.piece, request.user, found.piece.revision, changes, name.replace("-", " "))
    return view_of_changed(space, found)


@router.delete("/fits/{uuid:fit}", response={204: None})
def empty_placement(request: HttpRequest, workspace: Path[str], fit: UUID) -> Any:
    """Takes the piece out of this placement; the piece itself stays."""
    take_away(fit_of(workspace_to_change(request.user, workspace), fit))
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
    held = cache.get(_proof_key(space, key, width, shown)) if key else None
    if held:
        return immutable_picture(*held)
    opened = looked_fit(space, found)
    answer = immutable_picture(*_proof(space, opened, width, shown))
    if key != opened.key:
        answer["Cache-Control"] = "no-store"
    return answer


class Shown(NamedTuple):
    """What a proof shows: all parts, some alone, or all but some; small marks fitted to the grid or as drawn."""

    only: str = ""
    without: str = ""
    as_drawn: bool = False


def _proof_key(space: Any, key: str, width: int, shown: Shown) -> str:
    return f"proof/{space.pk}/{key}/{width}/{shown.only}/{shown.without}/{shown.as_drawn:d}"


def _proof(space: Any, opened: OpenFit, width: int, shown: Shown) -> tuple[bytes, str]:
    """The picture and its media type, drawn once for each state and width."""
    key = _proof_key(space, opened.key, width, shown)
    held = cache.get(key)
    if held is None:
        plan = opened.planned.plan
        if shown.only:
            plan = parts_alone(plan, shown.only.split(","))
        elif shown.without:
            plan = without_parts(plan, shown.without.split(","))
        if shown.as_drawn:
            plan = off_the_grid(plan)
        held = proof_bytes(plan, opened.sources(preview=True), width)
        cache.set(key, held)
    return held[0], held[1]


def view_of_changed(space: Any, fit: Any, proof_width: int | None = None) -> FitOut:
    """The fit after a change of its piece, whose files are made once more.

    With a width its proof comes in the same answer, so that a change costs one request. The workers are told last: they
    would take the cores that the answer needs.
    """
    fits = fits_of_piece(fit.piece)
    newest = next((entry for entry in fits if entry.pk == fit.pk), fit)
    try:
        return _view(space, newest, fits, proof_width)
    finally:
        make_later(entry.pk for entry in fits)


def _view(space: Any, fit: Any, beside: list[Any], proof_width: int | None = None) -> FitOut:
    opened = looked_fit(space, fit)
    view = fit_view(space, opened, beside, last_delivered_keys(space))
    if proof_width:
        data, media_type = _proof(space, opened, width_allowed(proof_width), Shown())
        view.proof = f"data:{media_type};base64,{b64encode(data).decode()}"
    return view
