"""What an artwork really is: the facts that fitting and preflight are calculated from."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AliasChoices, ConfigDict, Field

from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.findings import Frozen
from fitzle.core.formats import PLAYED
from fitzle.core.geometry.rect import Point, Rect

Kind = Literal["mark", "picture", "clip", "document"]
AlphaKind = Literal["none", "edges", "soft"]
FLAT_COLOURS_SHARE = 0.9  # a bitmap whose few main colours make up this much is drawn, not photographed
FEW_COLOURS = 4
ONE_COLOUR_SHARE = 0.97
ENLARGED_FROM = 0.85  # detail below that share of the size; a smaller difference is within the measurement's error


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


class Face(Frozen):
    """A face: its box in px of the upright artwork and how sure the detector is, 0 to 1."""

    x: float
    y: float
    width: float
    height: float
    score: float


class ArtworkFacts(Frozen):
    """Facts of one artwork. Sizes are upright (EXIF orientation applied), in px.

    `reach` is how far the contents extend from the middle of the trimmed box in fractions of half its diagonal.
    `edge_colours` are the colours along the outline: those that meet whatever lies behind.
    `backdrop_colour` is the colour of a single-coloured opaque surrounding, or None. `detail_px` is the longest side
    that really carries detail, `crisp_px` the longest side that the artwork fills crisply on a screen of density 1, and
    `crisp_dense_px` on one of density 2; all None for vectors, which have no such limit. `rotation` is the clip's own
    in degrees clockwise, applied already in `width` and `height`. Facts kept by earlier versions called the backdrop's
    colour `flat_backdrop`.
    """

    model_config = ConfigDict(validate_by_name=True, validate_by_alias=True)

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
    backdrop_colour: Annotated[str | None, Field(validation_alias=AliasChoices("backdrop_colour", "flat_backdrop"))]
    weight: Weight
    reach: float
    frames: int = 1
    detail_px: float | None = None
    crisp_px: float | None = None
    crisp_dense_px: float | None = None
    jpeg_quality: int | None = None
    faces: tuple[Face, ...] = ()
    pages: int = 1
    seconds: float | None = None
    fps: float | None = None
    rotation: int | None = None
    has_alpha: bool = False
    warnings: tuple[str, ...] = ()

    @property
    def plays(self) -> bool:
        """Whether it is a moving picture, which plays where it stands; clips give stills and loops instead."""
        return self.frames > 1 and self.format in PLAYED

    @property
    def one_colour(self) -> bool:
        """Whether it is drawn in one colour, so that a tint suits it."""
        return bool(self.colours) and self.colours[0].share >= ONE_COLOUR_SHARE
