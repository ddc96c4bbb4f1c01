"""What was learnt of a place, and what has to be asked."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen

Share = Annotated[float, Field(ge=0, le=1)]
Asked = Literal["relative", "veil", "cut", "crop", "small", "repeats"]


class Box(Frozen):
    """A rectangle in px."""

    x: float
    y: float
    width: float
    height: float


class LearntVeil(Frozen):
    """A colour over the whole picture."""

    colour: HexColour
    opacity: Share


class LearntCut(Frozen):
    """How it is cut; `radius` in px of the screenshot at density 1."""

    shape: Literal["none", "circle", "rounded"]
    radius: float = 0.0


class Learnt(Frozen):
    """One place where a picture stands in a screenshot.

    `box` is in px of the screenshot; `window` is the part of the picture that is seen, in its px, None for all of it.
    `covered` are boxes of what is drawn over it, as fractions of what is seen. `seen_width` is in px of the page: those
    of the screenshot over its density. `grounds` are the colours beside it. `ask` names what cannot be told.
    """

    box: Box
    window: Box | None
    veil: LearntVeil | None
    cut: LearntCut
    covered: tuple[Box, ...]
    seen_width: float
    grounds: tuple[HexColour, ...]
    sure: Share
    ask: tuple[Asked, ...] = ()


class Learning(Frozen):
    """All places where a picture stands, the surest first; `relatives` look like it and are not it."""

    found: tuple[Learnt, ...] = ()
    relatives: tuple[Learnt, ...] = ()
