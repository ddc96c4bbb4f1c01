"""The motion of a whole piece: its period, and what each part does."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Annotated, Self

from pydantic import Field, model_validator

from fitzle.core.findings import Frozen
from fitzle.core.piece.changes import SetField
from fitzle.core.piece.motion import GroundMotion, Keep, PartMotion, Period
from fitzle.core.piece.parts import AnyPart, GroundPart

USUAL_PERIOD_S = 3.0


class Motion(Frozen):
    """A loop: its period in seconds, what each part does by its id, and how the ground keeps moving."""

    period: Period = USUAL_PERIOD_S
    parts: Annotated[Mapping[str, PartMotion], Field(max_length=200)] = {}
    ground: Keep | None = None

    @model_validator(mode="after")
    def _within_the_period(self) -> Self:
        for name, part in self.parts.items():
            if part.end > self.period + 1e-9:
                raise ValueError(f"{name!r} still moves when the loop of {self.period:g} s ends")
        return self

    def lasting(self, period: float) -> Motion:
        """The same in another time."""
        factor = period / self.period
        parts = {name: part.scaled(factor) for name, part in self.parts.items()}
        ground = self.ground.model_copy(update={"every": self.ground.every * factor}) if self.ground else None
        return Motion(period=period, parts=parts, ground=ground)


def motion_of(parts: Iterable[AnyPart]) -> Motion | None:
    """The motion of the parts as they are in one place; None where nothing moves.

    A part whose own times reach beyond the period does all of it faster, so that the loop closes.
    """
    shown = [part for part in parts if not part.hidden]
    whole = next((part.motion for part in shown if isinstance(part, GroundPart) and part.motion), None)
    period, ground = (whole.period, whole.keep) if whole else (USUAL_PERIOD_S, None)
    moving = {
        part.id: part.motion.scaled(min(1.0, period / (part.motion.end or period)))
        for part in shown
        if not isinstance(part, GroundPart) and part.motion and not part.motion.still
    }
    return Motion(period=period, parts=moving, ground=ground) if moving or ground else None


def motion_changes(parts: Iterable[AnyPart], motion: Motion | None) -> list[SetField]:
    """What makes parts move as a motion says, everywhere; None lets all of them stand still."""
    wanted = [(part, _motion_for(part, motion)) for part in parts]
    return [
        SetField(part=part.id, field="motion", value=own.model_dump(mode="json") if own else None)
        for part, own in wanted
        if own != part.motion
    ]


def _motion_for(part: AnyPart, motion: Motion | None) -> PartMotion | GroundMotion | None:
    if motion is None:
        return None
    if isinstance(part, GroundPart):
        return GroundMotion(period=motion.period, keep=motion.ground)
    return motion.parts.get(part.id)
