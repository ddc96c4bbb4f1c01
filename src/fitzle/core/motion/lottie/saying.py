"""What an animation has no words for, and the motion without it."""

from __future__ import annotations

from fitzle.core.motion.document import Motion
from fitzle.core.piece.fills import Gradient, Pattern
from fitzle.core.piece.motion import PartMotion
from fitzle.core.plan.placed import PlacedArtwork, Plan

INSIDE = ("pan", "zoom")  # what moves inside of a picture's box


def unsaid_of(plan: Plan, motion: Motion) -> list[str]:
    """What is left out or done otherwise, each in a few words."""
    found = ["the edge around everything"] if plan.edge else []
    if motion.ground and isinstance(plan.fill, Gradient):
        found.append("the turning of the ground's gradient")
    if motion.ground and isinstance(plan.fill, Pattern):
        found.append("the drifting of the ground's pattern")
    for part in plan.parts:
        own = motion.parts.get(part.part)
        if own and own.keep and own.keep.how in INSIDE and isinstance(part, PlacedArtwork):
            found.append(f"the slow {own.keep.how} of “{part.part}”")
        if own and any(step and step.how == "drawn" for step in (own.come, own.go)):
            found.append(f"the drawing of the outline of “{part.part}”, which fades instead")
        if part.look.blend != "normal":
            found.append(f"the blending of “{part.part}” in some players")
    return found


def sayable(motion: Motion) -> Motion:
    """The motion without what cannot be said; what is drawn along its outline fades."""
    return motion.model_copy(
        update={"ground": None, "parts": {name: _sayable_part(part) for name, part in motion.parts.items()}}
    )


def _sayable_part(part: PartMotion) -> PartMotion:
    changes = {
        name: step.model_copy(update={"how": "fade"})
        for name in ("come", "go")
        if (step := getattr(part, name)) and step.how == "drawn"
    }
    if part.keep and part.keep.how in INSIDE:
        changes["keep"] = None
    return part.model_copy(update=changes)
