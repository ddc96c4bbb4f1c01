"""What the pages show of a preparation."""

from __future__ import annotations

import hashlib
from typing import TYPE_CHECKING

from fitzle.apps.api.preparation_schemas import BoxOffer, PreparationOut, SizeOut, StepOut
from fitzle.apps.artwork.preparing import before_steps, document_of, preparation_of, shown_stages, undo_and_redo
from fitzle.core.artwork.own_colours import own_colours
from fitzle.core.artwork.steps.adding import FIRST_STEPS
from fitzle.core.artwork.steps.costly import failure_of, offered_box, unpacked_cut
from fitzle.core.artwork.steps.document import CutOut, Recolour, Trace, Window
from fitzle.core.artwork.steps.drawing import fills_of
from fitzle.core.artwork.steps.material import Drawing, Material, as_bitmap, natural_size
from fitzle.core.artwork.steps.preparing import Stage

if TYPE_CHECKING:
    from fitzle.apps.artwork.models import Artwork


def preparation_view(artwork: Artwork, person: int) -> PreparationOut:
    """Everything that the preparation screen shows a person, by their number."""
    preparation = preparation_of(artwork)
    document = document_of(preparation)
    shown = shown_stages(artwork, document)
    undo, redo = undo_and_redo(preparation, person)
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
        key=picture_key(artwork, []),
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
        key=picture_key(artwork, shown),
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


def picture_key(artwork: Artwork, shown: list[Stage]) -> str:
    """Changes with the picture after these stages."""
    said = "".join(f"{stage.step.model_dump_json()}{stage.waiting}{bool(stage.problem)}" for stage in shown)
    return hashlib.sha256(f"{artwork.sha256}{said}".encode()).hexdigest()[:20]
