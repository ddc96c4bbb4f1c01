"""What a ground or a shape is filled with."""

from __future__ import annotations

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen
from fitzle.core.lengths import Fraction

MOST_STOPS = 32
ArtworkId = Annotated[str, Field(min_length=1, max_length=80)]
Degrees = Annotated[float, Field(ge=-360, le=360)]
Zoom = Annotated[float, Field(ge=1, le=20)]


class FocalPoint(Frozen):
    """A point in fractions of a width and a height."""

    x: Fraction
    y: Fraction


CENTRE = FocalPoint(x=0.5, y=0.5)


class Solid(Frozen):
    """One colour."""

    kind: Literal["solid"] = "solid"
    colour: HexColour


class Stop(Frozen):
    """A colour at a place of a gradient, 0 at its start and 1 at its end."""

    at: Fraction
    colour: HexColour
    opacity: Fraction = 1


class Gradient(Frozen):
    """Colours that run into one another, mixed in OKLab or OKLCH.

    `linear` runs across the box in the direction of `angle` (degrees, 0 to the right, 90 downwards), so that its ends
    lie in the corners. `radial` runs from `centre` to the farthest corner, `angled` once around it from `angle` on.
    """

    kind: Literal["gradient"] = "gradient"
    form: Literal["linear", "radial", "angled"] = "linear"
    stops: Annotated[tuple[Stop, ...], Field(min_length=2, max_length=MOST_STOPS)]
    angle: Degrees = 0
    centre: FocalPoint = CENTRE
    mix: Literal["oklab", "oklch"] = "oklab"

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        places = [stop.at for stop in self.stops]
        if places != sorted(places):
            raise ValueError("the stops of a gradient must be in order")
        return self


class Overlay(Frozen):
    """A colour laid over a picture, to darken or tint it."""

    colour: HexColour
    opacity: Fraction


class PictureFill(Frozen):
    """A picture that fills the box; `blur` is in fractions of the short side (standard deviation)."""

    kind: Literal["picture"] = "picture"
    artwork: ArtworkId
    focal_point: FocalPoint = CENTRE
    zoom: Zoom = 1
    blur: Annotated[float, Field(ge=0, le=0.2)] = 0
    overlay: Overlay | None = None


class Pattern(Frozen):
    """A mark repeated; `size` in fractions of the short side, `spacing` in fractions of the size, `offset` along its
    rows in steps from one mark to the next.
    """

    kind: Literal["pattern"] = "pattern"
    artwork: ArtworkId
    size: Annotated[float, Field(ge=0.02, le=1)] = 0.12
    spacing: Annotated[float, Field(ge=0, le=4)] = 0.6
    rotation: Degrees = 0
    tint: HexColour | None = None
    opacity: Fraction = 1
    colour: HexColour | None = None
    staggered: bool = True
    offset: Annotated[float, Field(ge=0, lt=1)] = 0


Fill = Annotated[Solid | Gradient | PictureFill | Pattern, Field(discriminator="kind")]
PaintFill = Annotated[Solid | Gradient, Field(discriminator="kind")]
