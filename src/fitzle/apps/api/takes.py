"""Takes: side by side in the same scenes, proposed, and chosen."""

from __future__ import annotations

from base64 import b64encode
from uuid import UUID

from django.http import HttpRequest
from ninja import Path, Router, Schema, Status

from fitzle.apps.accounts.access import access_to, workspace_numbered, workspace_to_see
from fitzle.apps.api.scene_views import ScenesOut, scenes_view, shown_key
from fitzle.apps.api.scenes import state_of
from fitzle.apps.api.schemas import Message
from fitzle.apps.deliveries.record import last_delivered
from fitzle.apps.drawing.calls import drawable
from fitzle.apps.pieces import takes
from fitzle.apps.pieces.fits import fit_of
from fitzle.apps.pieces.opening import OpenFit, decided, open_fit, open_fits
from fitzle.core.fit.comparing import differing
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.proofs import proof_of
from fitzle.core.fit.proposing import Ranked, probing
from fitzle.core.fit.state import FitState, fit_state

router = Router(tags=["takes"])
PROPOSAL_PX = 320


class TakeOut(Schema):
    """A take in one place. `differs` names what it has otherwise than the first one, `shown` belongs to its picture."""

    fit: UUID
    name: str
    chosen: bool
    shown: str
    state: FitState
    why: str
    risky: int
    contrast: float | None
    differs: list[str]


class TakesOut(Schema):
    """All takes in one place, and the scenes that they stand in; `full` where there is no room for another one."""

    takes: list[TakeOut]
    full: bool
    scenes: ScenesOut


class ProposalOut(Schema):
    """A take that is proposed, with its picture as a data address and what was judged of it."""

    id: str
    words: str
    risky: int
    contrast: float
    picture: str


class NewTake(Schema):
    """Another take, of a proposal or (empty) a copy."""

    proposal: str = ""


class Chosen(Schema):
    """Where a take is to stand."""

    everywhere: bool = False


@router.get("/fits/{uuid:fit}/takes", response=TakesOut)
def list_takes(request: HttpRequest, workspace: Path[str], fit: UUID) -> TakesOut:
    """The takes of a fit's piece in its place."""
    space = workspace_to_see(request.user, workspace)
    beside = open_fits(space, takes.takes_beside(space, fit_of(space, fit)))
    state = "/".join(f"{state_of(one)}/{one.fit.chosen}" for one in beside)
    return view_takes.ask(state, space.pk, fit)


@router.post("/fits/{uuid:fit}/takes", response={201: TakesOut, 422: Message})
def add_take(request: HttpRequest, workspace: Path[str], fit: UUID, given: NewTake) -> Status[TakesOut]:
    """Another take beside it."""
    takes.add_take(access_to(request.user, workspace), fit, given.proposal)
    return Status(201, list_takes(request, workspace, fit))


@router.post("/fits/{uuid:fit}/choose", response={200: TakesOut, 422: Message})
def choose_take(request: HttpRequest, workspace: Path[str], fit: UUID, given: Chosen) -> TakesOut:
    """Lets this take stand in its place, or everywhere its piece stands."""
    takes.choose_take(access_to(request.user, workspace), fit, given.everywhere)
    return list_takes(request, workspace, fit)


@router.get("/fits/{uuid:fit}/proposals", response=list[ProposalOut])
def list_proposals(request: HttpRequest, workspace: Path[str], fit: UUID) -> list[ProposalOut]:
    """Takes that calculation proposes, the best first."""
    space = workspace_to_see(request.user, workspace)
    beside = open_fits(space, takes.takes_beside(space, fit_of(space, fit)))
    return view_proposals.ask("/".join(one.proof_key for one in beside), space.pk, fit)


@drawable
def view_takes(workspace: int, fit: UUID) -> TakesOut:
    """All takes with what differs, against the first."""
    space = workspace_numbered(workspace)
    own = fit_of(space, fit)
    opened = open_fits(space, takes.takes_beside(space, own))
    delivered = last_delivered(space)
    looked = [decided(space, one) for one in opened]
    found = []
    for one, seen in zip(opened, looked, strict=True):
        shown = fit_state(one.standing(delivered.get(one.fit.placement_id), seen.findings))
        findings = one.findings if one.findings is not None else seen.findings
        found.append(
            TakeOut(
                fit=one.fit.pk,
                name=takes.name_of_take(one.fit.take),
                chosen=bool(one.fit.chosen),
                shown=shown_key(one),
                state=shown.state,
                why=shown.why,
                risky=sum(entry.severity != "note" and not entry.muted for entry in findings),
                contrast=min((reading.ratio for reading in seen.readings), default=None),
                differs=differing(looked[0], seen) if seen is not looked[0] else [],
            )
        )
    first = next(one for one in opened if one.fit.pk == fit)
    return TakesOut(takes=found, full=len(found) >= takes.MOST_SIDE_BY_SIDE, scenes=scenes_view(first))


@drawable
def view_proposals(workspace: int, fit: UUID) -> list[ProposalOut]:
    """The proposals with their pictures."""
    space = workspace_numbered(workspace)
    opened = open_fit(space, fit_of(space, fit))
    return [_proposal(one, opened) for one in takes.proposals_for(space, opened)]


def _proposal(one: Ranked, opened: OpenFit) -> ProposalOut:
    sources = opened.sources(preview=True)
    looked = decide(plan_fit(probing(opened.resolved.request, one.proposal)), sources)
    data, media_type = proof_of(looked, sources, PROPOSAL_PX)
    return ProposalOut(
        id=one.proposal.id,
        words=one.proposal.words,
        risky=one.risky,
        contrast=round(one.contrast, 1),
        picture=f"data:{media_type};base64,{b64encode(data).decode()}",
    )
