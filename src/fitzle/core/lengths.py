"""Numbers of documents with their ranges: lengths in px or percent, fractions, counts of px."""

from __future__ import annotations

import re
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from fitzle.core.errors import ValueOutOfRange

Fraction = Annotated[float, Field(ge=0.0, le=1.0)]
PositivePx = Annotated[int, Field(ge=1, le=20_000)]

_LENGTH = re.compile(r"^\s*(\d+(?:\.\d+)?)\s*(px|%)?\s*$")


class Length(BaseModel):
    """A length either in px of the delivered file or in percent of its short side."""

    model_config = ConfigDict(frozen=True, extra="forbid", defer_build=True)

    value: Annotated[float, Field(ge=0, le=10_000)]
    unit: Literal["px", "%"]

    def px(self, short_side_px: float) -> float:
        """The length in px for a picture with this short side."""
        return self.value if self.unit == "px" else self.value * short_side_px / 100

    def __str__(self) -> str:
        return f"{self.value:g} {self.unit}"


def parse_length(text: str) -> Length:
    """`2px`, `6%` or `6` (px) as a Length; raises ValueOutOfRange for anything else."""
    found = _LENGTH.match(text)
    if not found:
        raise ValueOutOfRange("this is not a length", expected="for example 2px or 6%", actual=repr(text))
    return Length(value=float(found[1]), unit="%" if found[2] == "%" else "px")
