"""The steps of one picture that mean the same for any other one: what makes a series of pictures look alike."""

from __future__ import annotations

from fitzle.core.artwork.steps.document import Adjust, AnyStep, CleanEdge, CutOut, Preparation, Recolour, Trim

SHARED = (Adjust, CleanEdge, CutOut, Recolour, Trim)


def shared_steps(preparation: Preparation) -> tuple[AnyStep, ...]:
    """Those of its steps that hold for other pictures too, without what was painted or drawn on this one."""
    return tuple(_for_any(step) for step in preparation.made if isinstance(step, SHARED))


def prepared_like(own: Preparation, steps: tuple[AnyStep, ...]) -> Preparation:
    """A preparation with these steps in the place of its own of those kinds; what stands only here (turned, cropped,
    straightened) stays, and comes first.
    """
    kept = [step for step in own.steps if not isinstance(step, SHARED)]
    taken = {step.id for step in kept}
    added = []
    for step in steps:
        name = next(name for name in _names(step.id) if name not in taken)
        taken.add(name)
        added.append(step.model_copy(update={"id": name}))
    return Preparation(steps=(*kept, *added))


def _for_any(step: AnyStep) -> AnyStep:
    return step.model_copy(update={"box": None, "strokes": ()}) if isinstance(step, CutOut) else step


def _names(wanted: str) -> list[str]:
    return [wanted, *(f"{wanted}-{number}" for number in range(2, 200))]
