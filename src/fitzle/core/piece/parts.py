"""The parts of a piece and their roles."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen
from fitzle.core.geometry.anchor import Anchor
from fitzle.core.lengths import Fraction, Length
from fitzle.core.piece.effects import Blend, Border, Die, Edge, Glow, Outline, Plate, Shadow, ShapeName
from fitzle.core.piece.fills import ArtworkId, Degrees, Fill, FocalPoint, PaintFill, Pattern, PictureFill, Zoom
from fitzle.core.piece.line_breaks import joined_lines
from fitzle.core.piece.motion import GroundMotion, PartMotion
from fitzle.core.type.library import USUAL_FAMILY
from fitzle.core.type.setting import Align, Case, VerticalAlign

LONGEST_TEXT = 1000  # letters; a headline has about 30, and more is a page, not a picture
MOST_RECOLOURED = 16

PartId = Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,39}$")]
Share = Annotated[float, Field(ge=-20, le=20)]  # of the short side
Mode = Literal["fill", "whole"]
Centring = Literal["box", "weight"]
Follow = Literal["nothing", "faces", "subject"]
WordsRole = Literal["headline", "second line", "byline", "badge"]


class Box(Frozen):
    """Where a part stands: its own anchor point on the picture's, offset and size in fractions of the short side."""

    anchor: Anchor = "centre"
    dx: Share = 0
    dy: Share = 0
    width: Annotated[float, Field(gt=0, le=40)]
    height: Annotated[float, Field(gt=0, le=40)]


class _Part(Frozen):
    """What every part has. `name` is what people call it; empty: named by what is in it."""

    id: PartId
    name: Annotated[str, Field(max_length=80)] = ""
    hidden: bool = False
    locked: bool = False
    edge: Edge | None = None


class _StandingPart(_Part):
    """A part that stands somewhere. `rotation` in degrees clockwise about its middle.

    A part is kept inside the picture unless `beyond` says that it may reach over the edge.
    """

    stands: Literal["fill"] | Box = "fill"
    beyond: bool = False
    rotation: Degrees = 0
    opacity: Fraction = 1
    blend: Blend = "normal"
    motion: PartMotion | None = None


class GroundPart(_Part):
    """What lies behind everything: a fill, or nothing (transparent). Its edge follows the outline of all parts."""

    role: Literal["ground"]
    fill: Fill | None = None
    motion: GroundMotion | None = None


class ArtworkPart(_StandingPart):
    """A picture or a mark and how it is fitted into the box where it stands.

    `mode` null lets the kind decide (a mark is shown whole, a picture fills), `padding` null lets the plan choose; the
    focal point of a picture that plays may `follow` its faces, or the subject that lies under it at first;
    `grid` null fits small flat marks to the pixel grid.
    """

    role: Literal["picture", "mark"]
    artwork: ArtworkId
    mode: Mode | None = None
    focal_point: FocalPoint | None = None
    follow: Follow = "nothing"
    zoom: Zoom = 1
    padding: Length | None = None
    centring: Centring = "box"
    tint: HexColour | None = None
    recolour: Annotated[dict[HexColour, HexColour], Field(max_length=MOST_RECOLOURED)] = {}
    die: Die | None = None
    grid: bool | None = None


LineBreaks = Literal["flexible", "kept", "dropped"]


class WordsPart(_StandingPart):
    """Words; the largest size at which they fit the box, or at most `size` (em, in fractions of the short side).

    `letter_spacing` is letters is in letter heights, `line_height` in em. The colour `auto` is the one of the house
    colours, black and white with the best contrast against what is really behind the words. Where `text` itself breaks
    lines, `line_breaks` says whether that holds everywhere (`kept`), but where it is arranged for a flatter picture
    (`flexible`), or nowhere (`dropped`).
    """

    role: WordsRole
    text: Annotated[str, Field(max_length=LONGEST_TEXT)]
    family: Annotated[str, Field(min_length=1, max_length=80)] = USUAL_FAMILY
    weight: Annotated[int, Field(ge=100, le=900)] = 800
    italic: bool = False
    size: Annotated[float, Field(gt=0, le=10)] | None = None
    colour: Literal["auto"] | HexColour = "auto"
    align: Align = "left"
    vertical_align: VerticalAlign = "middle"
    case: Case = "as typed"
    letter_spacing: Annotated[float, Field(ge=-0.3, le=2)] = 0
    line_height: Annotated[float, Field(ge=0.6, le=3)] = 1.1
    line_breaks: LineBreaks = "flexible"
    outline_only: bool = False
    outline: Outline | None = None
    glow: Glow | None = None
    shadow: Shadow | None = None
    plate: Plate | None = None

    @property
    def as_set(self) -> str:
        """The words as they are set: with their own line breaks, or without."""
        return self.text if self.line_breaks != "dropped" else joined_lines(self.text)

    @field_validator("text")
    @classmethod
    def _without_control(cls, text: str) -> str:
        return "".join(letter for letter in text.replace("\r\n", "\n") if letter == "\n" or ord(letter) >= 32)


class ShapePart(_StandingPart):
    """A shape of the registry."""

    role: Literal["shape"]
    shape: ShapeName
    fill: PaintFill | None = None
    border: Border | None = None


AnyPart = GroundPart | ArtworkPart | WordsPart | ShapePart
Part = Annotated[AnyPart, Field(discriminator="role")]
StandingPart = ArtworkPart | WordsPart | ShapePart
_FIXED = frozenset({"id", "role"})


WHERE_IT_STANDS = frozenset({"stands", "beyond", "align", "vertical_align", "size", "focal_point", "zoom"})


def adjustable(part: AnyPart) -> frozenset[str]:
    """What may be changed, everywhere or in one placement; identity and role stay the same."""
    return frozenset(type(part).model_fields) - _FIXED


def artwork_of_part(part: AnyPart) -> str | None:
    """The artwork that a part shows."""
    if isinstance(part, ArtworkPart):
        return part.artwork
    if isinstance(part, GroundPart) and isinstance(part.fill, PictureFill | Pattern):
        return part.fill.artwork
    return None


def adjusted_part(part: AnyPart, fields: dict[str, object]) -> AnyPart:
    """The part with some fields replaced; raises ValidationError where a value cannot be used."""
    return type(part).model_validate({**part.model_dump(), **fields})
