"""What an artwork really is: the facts that fitting and preflight are calculated from."""

from __future__ import annotations

from typing import Literal

from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.findings import Frozen
from fitzle.core.geometry.rect import Point, Rect

Kind = Literal["mark", "picture"]
AlphaKind = Literal["none", "edges", "soft"]


class Trimmed(Frozen):
    """The box of what is not transparent or not backdrop, in px of the upright artwork."""

    x: float
    y: float
    width: float
    height: float

    @property
    def rect(self) -> Rect:
        """As a Rect."""
        return Rect(self.x, self.y, self.width, self.height)


class Weight(Frozen):
    """The visual weight's middle, in fractions of the trimmed box."""

    x: float
    y: float

    @property
    def point(self) -> Point:
        """As a Point."""
        return Point(self.x, self.y)


class ArtworkFacts(Frozen):
    """Facts of one artwork. Sizes are upright (EXIF orientation applied), in px.

    `reach` is how far the contents extend from the middle of the trimmed box in fractions of half its diagonal.
    `edge_colours` are the colours along the outline: those that meet whatever lies behind.
    `flat_backdrop` is the colour of a single-coloured opaque surrounding, or None.
    """

    kind: Kind
    format: str
    bytes: int
    width: float
    height: float
    vector: bool
    trimmed: Trimmed
    transparency: AlphaKind
    colours: tuple[ColourShare, ...]
    edge_colours: tuple[ColourShare, ...]
    flat_backdrop: str | None
    weight: Weight
    reach: float
    frames: int = 1
    warnings: tuple[str, ...] = ()
