"""Preparation: read, saved, undone, proposed for, and shown after each of its steps."""

from __future__ import annotations

import hashlib
from typing import TYPE_CHECKING, Literal
from uuid import UUID

from django.http import Http404, HttpRequest, HttpResponse
from ninja import Path, Router

from fitzle.apps.accounts.access import access_to, workspace_to_see
from fitzle.apps.api.pictures import immutable_picture, width_allowed
from fitzle.apps.api.preparation_schemas import (
    BoxOffer,
    PreparationOut,
    ProposalIn,
    SizeOut,
    StaleSteps,
    StepOut,
    StepsIn,
)
from fitzle.apps.api.schemas import Message
from fitzle.apps.artwork.actions import move_in_history, save_steps
from fitzle.apps.artwork.preparing import (
    before_steps,
    document_of,
    preparable,
    preparation_of,
    shown_stages,
    undo_and_redo,
)
from fitzle.core.artwork.own_colours import own_colours
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.adding import FIRST_STEPS
from fitzle.core.artwork.steps.costly import failure_of, offered_box, unpacked_cut
from fitzle.core.artwork.steps.document import AnyStep, CutOut, Preparation, Recolour, Trace, Window
from fitzle.core.artwork.steps.drawing import fills_of
from fitzle.core.artwork.steps.material import Drawing, Material, as_bitmap, natural_size
from fitzle.core.artwork.steps.preparing import Stage
from fitzle.core.artwork.steps.proposing import Proposal, proposed
from fitzle.core.fit.proofs import preview_bytes
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.apps.artwork.models import Artwork

router = Router(tags=["preparation"])
ADDRESS = "/artwork/{uuid:artwork}/preparation"


@router.get(ADDRESS, response=PreparationOut)
def read_preparation(request: HttpRequest, workspace: Path[str], artwork: UUID) -> PreparationOut:
    """The steps, and the picture before and after each."""
    return preparation_view(preparable(workspace_to_see(request.user, workspace), artwork))


@router.put(ADDRESS, response={200: PreparationOut, 409: StaleSteps, 422: Message})
def save_preparation(request: HttpRequest, workspace: Path[str], artwork: UUID, given: StepsIn) -> PreparationOut:
    """Saves all steps; on an older revision it is answered with 409 and the newest ones."""
    access = access_to(request.user, workspace)
    return preparation_view(save_steps(access, artwork, given.revision, given.document, given.step))


@router.post(ADDRESS + "/history/{way}", response=PreparationOut)
def undo_or_redo(
    request: HttpRequest, workspace: Path[str], artwork: UUID, way: Path[Literal["undo", "redo"]]
) -> PreparationOut:
    """Takes the last change of the steps back (undo), or makes it again (redo)."""
    access = access_to(request.user, workspace)
    return preparation_view(move_in_history(access, artwork, -1 if way == "undo" else 1))


@router.post(ADDRESS + "/proposals/{kind}", response={200: AnyStep, 422: Message})
def propose(
    request: HttpRequest, workspace: Path[str], artwork: UUID, kind: Path[Proposal], given: ProposalIn
) -> AnyStep:
    """A step that a calculation proposes for the picture as it is after all steps but the one named."""
    found = preparable(workspace_to_see(request.user, workspace), artwork)
    document = document_of(preparation_of(found))
    others = Preparation(steps=tuple(step for step in document.steps if step.id != given.step))
    shown = shown_stages(found, others)
    return proposed(kind, shown[-1].material if shown else before_steps(found), given.step, given.ratio)


@router.get(ADDRESS + "/picture")
def prepared_picture(
    request: HttpRequest, workspace: Path[str], artwork: UUID, upto: int = 0, width: int = 900, key: str = ""
) -> HttpResponse:
    """The picture after the first `upto` steps that are on; `key` makes the address change with it."""
    found = preparable(workspace_to_see(request.user, workspace), artwork)
    shown = shown_stages(found, document_of(preparation_of(found)))
    if not 0 <= upto <= len(shown):
        raise Http404("There is no such step.")
    material = shown[upto - 1].material if upto else before_steps(found)
    answer = immutable_picture(*preview_bytes(_drawn(material, width_allowed(width))))
    if key != _key(found, shown[:upto]):
        answer["Cache-Control"] = "no-store"
    return answer


def _drawn(material: Material, width: int) -> Pixels:
    """Pixels at a width of the screen, never enlarged beyond what the preview has."""
    import cv2

    across, down = natural_size(material)
    bitmap = as_bitmap(material, round(width * max(1.0, down / across)))
    if bitmap.size.width <= width:
        return bitmap.pixels
    size = Size(width, max(1, round(width * bitmap.size.height / bitmap.size.width)))
    shrunk: Pixels = cv2.resize(bitmap.pixels, size, interpolation=cv2.INTER_AREA)
    return shrunk


def preparation_view(artwork: Artwork) -> PreparationOut:
    """Everything that the preparation screen shows."""
    preparation = preparation_of(artwork)
    document = document_of(preparation)
    shown = shown_stages(artwork, document)
    undo, redo = undo_and_redo(preparation)
    return PreparationOut(
        revision=preparation.revision,
        document=document,
        undo=undo,
        redo=redo,
        working=preparation.made < preparation.revision,
        progress=preparation.progress,
        message=preparation.message,
        before=_size(before_steps(artwork)),
        steps=[_step(artwork, shown[: index + 1]) for index in range(len(shown))],
        first_steps=list(FIRST_STEPS),
        key=_key(artwork, []),
    )


def _step(artwork: Artwork, shown: list[Stage]) -> StepOut:
    last = shown[-1]
    cut = unpacked_cut(last.kept) if isinstance(last.step, CutOut) and last.kept and not failure_of(last.kept) else None
    return StepOut(
        id=last.step.id,
        problem=last.problem[:1].upper() + last.problem[1:],  # it stands by itself here, without a name before it
        waiting=last.waiting,
        engine=cut.method if cut else None,
        confidence=cut.confidence if cut else None,
        size=_size(last.material),
        key=_key(artwork, shown),
        colours=_colours(artwork, shown),
        offer=_offer(last),
    )


def _offer(stage: Stage) -> BoxOffer | None:
    box = offered_box(stage.kept) if isinstance(stage.step, CutOut) and stage.kept else None
    if box is None:
        return None
    x, y, width, height = box
    window = Window(x=x, y=y, width=width, height=height)
    if stage.problem:
        return BoxOffer(words="The subject may be in this box.", accept="Use this box", box=window)
    words = "The cut runs along a side of the box: part of the subject may lie beyond it."
    return BoxOffer(words=words, accept="Use a wider box", box=window)


def _colours(artwork: Artwork, shown: list[Stage]) -> list[str]:
    last = shown[-1]
    if isinstance(last.step, Trace) and isinstance(last.material, Drawing):
        return fills_of(last.material)
    if not isinstance(last.step, Recolour):
        return []
    material = shown[-2].material if len(shown) > 1 else before_steps(artwork)
    return [entry.hex for entry in own_colours(as_bitmap(material).pixels)]


def _size(material: Material) -> SizeOut:
    width, height = natural_size(material)
    return SizeOut(width=round(width, 1), height=round(height, 1))


def _key(artwork: Artwork, shown: list[Stage]) -> str:
    """Changes with the picture after these stages."""
    said = "".join(f"{stage.step.model_dump_json()}{stage.waiting}{bool(stage.problem)}" for stage in shown)
    return hashlib.sha256(f"{artwork.sha256}{said}".encode()).hexdigest()[:20]
