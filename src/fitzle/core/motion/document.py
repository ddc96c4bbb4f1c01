"""How the parts of a piece move: frozen values in seconds and shares, laid beside the parts by their ids."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fitzle.core.findings import Frozen
from fitzle.core.motion.easing import Easing

Seconds = Annotated[float, Field(ge=0, le=60)]
Strength = Annotated[float, Field(ge=0, le=1)]
Entrance = Literal["at once", "fade", "from left", "from right", "from top", "from bottom", "grow"]
Keeping = Literal["sway", "bob", "pulse", "spin", "drift", "flicker"]
LONGEST_S = 60.0


class Come(Frozen):
    """How a part comes in: what it does, from when, for how long. Before that it is not there."""

    how: Entrance = "fade"
    start: Seconds = 0
    length: Seconds = 0.5
    easing: Easing = "ease-out"


class Go(Frozen):
    """How a part goes out; the same, backwards. After that it is not there until the loop begins again."""

    how: Entrance = "fade"
    start: Seconds
    length: Seconds = 0.5
    easing: Easing = "ease-in"


class Keep(Frozen):
    """How a part keeps moving: about `every` so many seconds once, as far as `strength` says."""

    how: Keeping
    every: Annotated[float, Field(gt=0.05, le=LONGEST_S)] = 2
    strength: Strength = 0.5


class PartMotion(Frozen):
    """All of one part; what is None it does not do."""

    come: Come | None = None
    keep: Keep | None = None
    go: Go | None = None

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.come and self.go and self.go.start < self.come.start + self.come.length:
            raise ValueError("a part goes out before it has come in")
        return self


class Motion(Frozen):
    """A loop: its period in seconds, and what each part does, by its id."""

    period: Annotated[float, Field(gt=0, le=LONGEST_S)] = 3
    parts: Annotated[Mapping[str, PartMotion], Field(max_length=200)] = {}

    @model_validator(mode="after")
    def _within_the_period(self) -> Self:
        for name, part in self.parts.items():
            last = part.go or part.come
            if last and last.start + last.length > self.period + 1e-9:
                raise ValueError(f"{name!r} still moves when the loop of {self.period:g} s ends")
        return self
