"""What stands around letters, pictures and shapes.

Lengths around letters are in fractions of the letter height (that of a capital), so that an effect looks the same at
any size.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen
from fitzle.core.geometry.shapes import SHAPES
from fitzle.core.lengths import Fraction


def _known_shape(name: str) -> str:
    if name not in SHAPES:
        raise ValueError(f"there is no shape {name!r}; there are {', '.join(SHAPES)}")
    return name


ShapeName = Annotated[str, AfterValidator(_known_shape)]


class Outline(Frozen):
    """A line around the letters; with `offset` it stands off from them by that much."""

    width: Annotated[float, Field(gt=0, le=1)]
    colour: HexColour
    offset: Annotated[float, Field(ge=0, le=1)] = 0


class Glow(Frozen):
    """A soft light all around; `radius` is where it has all but vanished."""

    radius: Annotated[float, Field(gt=0, le=3)]
    colour: HexColour
    strength: Fraction = 0.8


class Shadow(Frozen):
    """A shadow moved by (dx, dy); `softness` 0 has a hard edge."""

    dx: Annotated[float, Field(ge=-3, le=3)] = 0.06
    dy: Annotated[float, Field(ge=-3, le=3)] = 0.06
    softness: Annotated[float, Field(ge=0, le=3)] = 0.12
    colour: HexColour = "#000000"
    opacity: Fraction = 0.6


class Plate(Frozen):
    """A surface behind the words; `corner` 1 rounds its ends wholly. With `shape` it has that outline instead."""

    colour: HexColour
    padding: Annotated[float, Field(ge=0, le=3)] = 0.4
    corner: Fraction = 0.2
    opacity: Fraction = 1
    shape: ShapeName | None = None


class Border(Frozen):
    """A line inside the outline of a shape or a die; `width` in fractions of the part's short side."""

    width: Annotated[float, Field(gt=0, le=0.5)]
    colour: HexColour


class Die(Frozen):
    """A shape that a picture is cut to. `fill` lies behind a subject without background; outside all is clear."""

    shape: ShapeName
    border: Border | None = None
    fill: HexColour | None = None


class Edge(Frozen):
    """A border of even width that follows the outline; `width` in fractions of the picture's short side."""

    width: Annotated[float, Field(gt=0, le=0.25)]
    colour: HexColour


Blend = Literal["normal", "multiply", "screen", "overlay", "soft light"]
