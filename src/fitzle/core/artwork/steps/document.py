"""The steps of a preparation, version 1. Lengths are fractions of the picture that the step meets.

Angles are degrees clockwise. A step that is not `on` is kept but not made.
"""

from __future__ import annotations

from collections import Counter
from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from fitzle.core.artwork.cutout.flat import Holes
from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen
from fitzle.core.lengths import Fraction

VERSION = 1
MOST_STEPS = 40
MOST_STROKES = 400
MOST_POINTS = 2000  # of one stroke; a long one has about 300
MOST_EYES = 20
MOST_RECOLOURED = 16
MOST_TRACED = 32  # colours

Signed = Annotated[float, Field(ge=-1, le=1)]
StepId = Annotated[str, Field(pattern=r"^[a-z0-9][a-z0-9-]{0,39}$")]
Method = Literal["auto", "flat", "person", "object"]
Spot = tuple[Annotated[float, Field(ge=-1, le=2)], Annotated[float, Field(ge=-1, le=2)]]


class _Step(Frozen):
    """What every step has."""

    id: StepId
    on: bool = True


class Turn(_Step):
    """Quarter turns."""

    kind: Literal["turn"] = "turn"
    quarters: Annotated[int, Field(ge=1, le=3)] = 1


class Mirror(_Step):
    """Left and right exchanged, or top and bottom."""

    kind: Literal["mirror"] = "mirror"
    across: Literal["left and right", "top and bottom"] = "left and right"


class Straighten(_Step):
    """A small turn; a photo is cut to the largest upright window without empty corners, a clear picture grows."""

    kind: Literal["straighten"] = "straighten"
    degrees: Annotated[float, Field(ge=-45, le=45)]


class Window(Frozen):
    """A rectangle in fractions of the picture's width and height."""

    x: Fraction
    y: Fraction
    width: Annotated[float, Field(gt=0, le=1)]
    height: Annotated[float, Field(gt=0, le=1)]

    @model_validator(mode="after")
    def _inside(self) -> Self:
        if self.x + self.width > 1 + 1e-6 or self.y + self.height > 1 + 1e-6:
            raise ValueError("the window reaches beyond the picture")
        return self


class Crop(_Step):
    """All but a window taken away. `ratio` notes the shape it was held to: the name of a placement, or empty."""

    kind: Literal["crop"] = "crop"
    window: Window
    ratio: Annotated[str, Field(max_length=120)] = ""


class Trim(_Step):
    """Clear or single-coloured margins taken away; `tolerance` is how unlike the margin may be, 1 for all of 255."""

    kind: Literal["trim"] = "trim"
    tolerance: Annotated[float, Field(ge=0, le=0.5)] = 0.05


class Adjust(_Step):
    """Light and colour, each -1 to 1, 0 for as it is."""

    kind: Literal["adjust"] = "adjust"
    brightness: Signed = 0
    contrast: Signed = 0
    saturation: Signed = 0
    warmth: Signed = 0
    shadows: Signed = 0
    highlights: Signed = 0
    sharpen: Fraction = 0


class Eye(Frozen):
    """An eye: its middle in fractions of width and height, its radius in fractions of the short side."""

    x: Fraction
    y: Fraction
    radius: Annotated[float, Field(gt=0, le=0.25)]


class RedEyes(_Step):
    """Red pupils made dark; glints are kept."""

    kind: Literal["red eyes"] = "red eyes"
    eyes: Annotated[tuple[Eye, ...], Field(max_length=MOST_EYES)] = ()


class Stroke(Frozen):
    """A brush stroke. `size` is its width in fractions of the short side, `softness` how much of it fades.

    `keep` and `drop` tell an engine what is subject; `erase` and `restore` are painted on what it has cut.
    """

    act: Literal["keep", "drop", "erase", "restore"]
    points: Annotated[tuple[Spot, ...], Field(min_length=1, max_length=MOST_POINTS)]
    size: Annotated[float, Field(gt=0, le=1)]
    softness: Fraction = 0.3


class CutOut(_Step):
    """The background made clear. `softness` of the edge is in px of a picture 1280 px long; `fill` lies behind."""

    kind: Literal["cut out"] = "cut out"
    method: Method = "auto"
    tolerance: Annotated[float, Field(ge=0.1, le=10)] = 1
    softness: Annotated[float, Field(ge=0.5, le=16)] = 1
    holes: Holes = "auto"
    box: Window | None = None
    strokes: Annotated[tuple[Stroke, ...], Field(max_length=MOST_STROKES)] = ()
    fill: HexColour | None = None


class CleanEdge(_Step):
    """The fringe of an earlier background taken off the edge; `width` is in px of a picture 1280 px long."""

    kind: Literal["clean edge"] = "clean edge"
    width: Annotated[float, Field(ge=1, le=32)] = 8


class Recolour(_Step):
    """All in one colour, or colours replaced by others (from, to)."""

    kind: Literal["recolour"] = "recolour"
    one: HexColour | None = None
    colours: Annotated[tuple[tuple[HexColour, HexColour], ...], Field(max_length=MOST_RECOLOURED)] = ()


class Trace(_Step):
    """Outlines drawn from pixels; `colours` of 0 for as many as measuring finds needful."""

    kind: Literal["trace"] = "trace"
    colours: Annotated[int, Field(ge=0, le=MOST_TRACED)] = 0


AnyStep = Turn | Mirror | Straighten | Crop | Trim | Adjust | RedEyes | CutOut | CleanEdge | Recolour | Trace
Step = Annotated[AnyStep, Field(discriminator="kind")]


class Preparation(Frozen):
    """The steps of one artwork, made from first to last."""

    fitzle_preparation: Literal[1] = 1
    steps: Annotated[tuple[Step, ...], Field(max_length=MOST_STEPS)] = ()

    @model_validator(mode="after")
    def _ids_differ(self) -> Self:
        twice = [step for step, count in Counter(step.id for step in self.steps).items() if count > 1]
        if twice:
            raise ValueError(f"two steps have the id {twice[0]!r}")
        return self

    @property
    def made(self) -> tuple[AnyStep, ...]:
        """The steps that are on."""
        return tuple(step for step in self.steps if step.on)


NOT_PREPARED = Preparation()
