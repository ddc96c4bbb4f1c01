"""What was learnt of a place, and what has to be asked."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field

from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen

Share = Annotated[float, Field(ge=0, le=1)]
Asked = Literal["relative", "veil", "cut", "small", "strip", "repeats", "crop"]


class PixelBox(Frozen):
    """A rectangle in px."""

    x: float
    y: float
    width: float
    height: float


class CoveredBox(PixelBox):
    """Something drawn over the picture, in px of the screenshot; `share` is the same as fractions of what is seen."""

    share: PixelBox


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
    `covered` are boxes of what is drawn over it. `seen_width` is in px of the page: those of the screenshot over its
    density. `grounds` are the colours beside it. `ask` names what cannot be told.
    """

    box: PixelBox
    window: PixelBox | None
    veil: LearntVeil | None
    cut: LearntCut
    covered: tuple[CoveredBox, ...]
    seen_width: float
    grounds: tuple[HexColour, ...]
    sure: Share
    ask: tuple[Asked, ...] = ()


class Learning(Frozen):
    """All places where a picture stands, the surest first; `relatives` look like it and are not it."""

    found: tuple[Learnt, ...] = ()
    relatives: tuple[Learnt, ...] = ()

    def in_picture_of(self, reduced: float) -> Self:
        """The same with windows in px of the file, each px that was looked at standing for `reduced` of its px."""
        return self.model_copy(
            update={name: tuple(_enlarged(one, reduced) for one in getattr(self, name)) for name in _BOTH}
        )

    @property
    def message(self) -> str:
        """What to tell the person where it was not found."""
        if self.relatives:
            return "The picture itself is not in this screenshot, but one that looks like it with other words is."
        return "The picture is not in this screenshot. Take one that shows it whole, at least 40 px high."


_BOTH = ("found", "relatives")


def _enlarged(one: Learnt, by: float) -> Learnt:
    if one.window is None or by == 1:
        return one
    window = {name: round(value * by, 3) for name, value in one.window.model_dump().items()}
    return one.model_copy(update={"window": PixelBox(**window)})
