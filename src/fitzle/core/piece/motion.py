"""How a part moves: how it comes in, keeps moving and goes out again, in seconds of the loop."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fitzle.core.findings import Frozen
from fitzle.core.piece.easing import Easing

LONGEST_S = 60.0
Seconds = Annotated[float, Field(ge=0, le=LONGEST_S)]
Period = Annotated[float, Field(ge=0.1, le=LONGEST_S)]
Strength = Annotated[float, Field(ge=0, le=1)]
Entrance = Literal[
    "at once", "fade", "from left", "from right", "from top", "from bottom", "grow", "wiped", "drawn",
    "letter by letter", "word by word", "line by line",
]  # fmt: skip
Keeping = Literal["sway", "bob", "pulse", "spin", "drift", "flicker", "wave", "pan", "zoom", "turn"]


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
    """How a part keeps moving: about `every` so many seconds once, as far as `strength` says.

    `wave` goes through the letters of words, `pan` and `zoom` through a picture in its box, `turn` turns a gradient.
    """

    how: Keeping
    every: Annotated[float, Field(gt=0.05, le=LONGEST_S)] = 2
    strength: Strength = 0.5


class GroundMotion(Frozen):
    """The loop of the whole piece, and how what lies behind it keeps moving (a gradient may `turn`)."""

    period: Period = 3.0
    keep: Keep | None = None


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

    @property
    def still(self) -> bool:
        """Whether the part does nothing at all."""
        return self.come is None and self.keep is None and self.go is None

    @property
    def end(self) -> float:
        """When it has done all that has an end."""
        last = self.go or self.come
        return last.start + last.length if last else 0.0

    def scaled(self, factor: float) -> PartMotion:
        """All of it so many times as long."""
        changes: dict[str, Come | Go | Keep] = {}
        for name in ("come", "go"):
            if step := getattr(self, name):
                changes[name] = step.model_copy(update={"start": step.start * factor, "length": step.length * factor})
        if self.keep:
            changes["keep"] = self.keep.model_copy(update={"every": max(0.06, self.keep.every * factor)})
        return self.model_copy(update=changes)
