"""Other places for a piece: how it would look in each, and standing there."""

from __future__ import annotations

from typing import TYPE_CHECKING, Annotated
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router, Schema, Status
from pydantic import Field

from fitzle.apps.accounts.access import access_to, workspace_numbered, workspace_to_see
from fitzle.apps.api.pictures import keyed_picture, width_allowed
from fitzle.apps.api.schemas import FitBrief, Message
from fitzle.apps.api.views import rail_view
from fitzle.apps.deliveries.record import last_delivered
from fitzle.apps.destinations.shelves import placements_of
from fitzle.apps.drawing.calls import Picture, drawable
from fitzle.apps.pieces import actions
from fitzle.apps.pieces.fits import fit_of, fits_on_wall
from fitzle.apps.pieces.opening import decided, open_elsewhere, open_fit, open_fits
from fitzle.core.fit.proofs import proof_of
from fitzle.core.plan.screen import screen_width
from fitzle.core.preflight.demand_words import size_words

if TYPE_CHECKING:
    from fitzle.apps.accounts.models import Workspace
    from fitzle.apps.pieces.models import Fit

router = Router(tags=["pieces"])
MOST_PLACES = 500


class PlaceElsewhere(Schema):
    """A place of the workspace. `stands`: the piece is there already; `holds` names the piece that is there instead.
    `key` belongs to the picture of how this piece would look there.
    """

    id: UUID
    name: str
    destination: str
    size: str
    stands: bool
    holds: str
    key: str


class Elsewhere(Schema):
    """Where a piece is to stand too."""

    placements: Annotated[list[UUID], Field(min_length=1, max_length=MOST_PLACES)]


@router.get("/fits/{uuid:fit}/elsewhere", response=list[PlaceElsewhere])
def list_elsewhere(request: HttpRequest, workspace: Path[str], fit: UUID) -> list[PlaceElsewhere]:
    """All places, in the order of the shelves."""
    space = workspace_to_see(request.user, workspace)
    own = fit_of(space, fit)
    state = _state(space, own)
    standing = {one.placement_id: one.piece for one in fits_on_wall(space)}
    found = []
    for place in placements_of(space):
        there = standing.get(place.pk)
        found.append(
            PlaceElsewhere(
                id=place.pk,
                name=place.spec.name,
                destination=place.destination.name,
                size=size_words(place.spec),
                stands=there is not None and there.pk == own.piece_id,
                holds="" if there is None or there.pk == own.piece_id else there.document["subject"],
                key=f"{state}-{place.revision}",
            )
        )
    return found


@router.get("/fits/{uuid:fit}/elsewhere/{uuid:placement}/proof", response={422: Message})
def proof_elsewhere(
    request: HttpRequest, workspace: Path[str], fit: UUID, placement: UUID, width: int = 240, key: str = ""
) -> HttpResponse:
    """How the piece of a fit would look in a place; `key` makes the address change with it."""
    space = workspace_to_see(request.user, workspace)
    state = _state(space, fit_of(space, fit))
    [place] = placements_of(space, [placement])
    drawn = draw_elsewhere.ask(f"{state}/{place.revision}", space.pk, fit, placement, width_allowed(width))
    return keyed_picture(drawn, key)


@router.post("/fits/{uuid:fit}/elsewhere", response={201: list[FitBrief], 422: Message})
def stand_elsewhere(request: HttpRequest, workspace: Path[str], fit: UUID, given: Elsewhere) -> Status[list[FitBrief]]:
    """Puts the piece of a fit into other places too; what stood there is kept beside it."""
    access = access_to(request.user, workspace)
    fits = actions.stand_elsewhere(access, fit, given.placements)
    return Status(201, rail_view(open_fits(access.workspace, fits), last_delivered(access.workspace)))


def _state(space: Workspace, fit: Fit) -> str:
    """What differs as soon as the piece may look otherwise anywhere: itself, its artwork, or the house's colours."""
    return f"{fit.piece.revision}-{open_fit(space, fit).proof_key}"


@drawable
def draw_elsewhere(workspace: int, fit: UUID, placement: UUID, width: int) -> Picture:
    """A piece in a place, as if it stood there."""
    space = workspace_numbered(workspace)
    own = fit_of(space, fit)
    [place] = placements_of(space, [placement])
    opened = open_elsewhere(space, own, place)
    looked = decided(space, opened)
    size = looked.plan.size
    return Picture(*proof_of(looked, opened.sources(preview=True), screen_width(*size, width)))
