"""Preparation: read, saved, undone, proposed for, and shown after each of its steps."""

from __future__ import annotations

from typing import TYPE_CHECKING, Literal
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import Path, Router

from fitzle.apps.accounts.access import Capability, access_to, workspace_to_see
from fitzle.apps.api.drawn import draw_prepared, propose_step, view_preparation
from fitzle.apps.api.pictures import immutable_picture, width_allowed
from fitzle.apps.api.preparation_schemas import PreparationOut, ProposalIn, StaleSteps, StepsIn
from fitzle.apps.api.schemas import Message
from fitzle.apps.artwork.actions import move_in_history, save_steps
from fitzle.apps.artwork.preparing import preparable, preparation_of
from fitzle.apps.history import Kind
from fitzle.core.artwork.steps.document import AnyStep
from fitzle.core.artwork.steps.proposing import Proposal

if TYPE_CHECKING:
    from fitzle.apps.artwork.models import Artwork

router = Router(tags=["preparation"])
ADDRESS = "/artwork/{uuid:artwork}/preparation"


@router.get(ADDRESS, response=PreparationOut)
def read_preparation(request: HttpRequest, workspace: Path[str], artwork: UUID) -> PreparationOut:
    """The steps, and the picture before and after each."""
    access = access_to(request.user, workspace)
    access.require(Capability.SEE)
    return view_of(preparable(access.workspace, artwork), access.actor.pk)


@router.put(ADDRESS, response={200: PreparationOut, 409: StaleSteps, 422: Message})
def save_preparation(request: HttpRequest, workspace: Path[str], artwork: UUID, given: StepsIn) -> PreparationOut:
    """Saves all steps; on an older revision it is answered with 409 and the newest ones."""
    access = access_to(request.user, workspace)
    saved = save_steps(access, artwork, given.revision, given.document, given.step, given.key)
    return view_of(saved, access.actor.pk)


@router.post(ADDRESS + "/history/{way}", response={200: PreparationOut, 422: Message})
def undo_or_redo(
    request: HttpRequest, workspace: Path[str], artwork: UUID, way: Path[Literal["undo", "redo"]]
) -> PreparationOut:
    """Takes the last change of the steps back (undo), or makes it again (redo)."""
    access = access_to(request.user, workspace)
    return view_of(move_in_history(access, artwork, Kind(way)), access.actor.pk)


@router.post(ADDRESS + "/proposals/{kind}", response={200: AnyStep, 422: Message})
def propose(
    request: HttpRequest, workspace: Path[str], artwork: UUID, kind: Path[Proposal], given: ProposalIn
) -> AnyStep:
    """A step that a calculation proposes for the picture as it is after all steps but the one named."""
    space = workspace_to_see(request.user, workspace)
    found = preparable(space, artwork)
    return propose_step.ask(_state(found), space.pk, artwork, kind, given.step, given.ratio)


@router.get(ADDRESS + "/picture")
def prepared_picture(
    request: HttpRequest, workspace: Path[str], artwork: UUID, upto: int = 0, width: int = 900, key: str = ""
) -> HttpResponse:
    """The picture after the first `upto` steps that are on; `key` makes the address change with it."""
    space = workspace_to_see(request.user, workspace)
    found = preparable(space, artwork)
    drawn = draw_prepared.ask(_state(found), space.pk, artwork, upto, width_allowed(width))
    answer = immutable_picture(*drawn)
    if key != drawn.key:
        answer["Cache-Control"] = "no-store"
    return answer


def view_of(artwork: Artwork, person: int) -> PreparationOut:
    """Everything that the preparation screen shows a person."""
    return view_preparation.ask(_state(artwork), artwork.workspace_id, artwork.pk, person)


def _state(artwork: Artwork) -> str:
    return f"{artwork.changed_at}/{preparation_of(artwork).revision}"
