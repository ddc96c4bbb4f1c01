"""The spec sheet, version 1: a frozen document. The format is described in docs/spec-sheet.md."""

from __future__ import annotations

import re
from typing import Annotated, Any, Literal, Self

from pydantic import AfterValidator, ConfigDict, Discriminator, Field, Tag, model_validator

from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen
from fitzle.core.formats import Format
from fitzle.core.geometry.mask import Mask
from fitzle.core.lengths import Fraction, PositivePx
from fitzle.core.spec.stems import safe_stem
from fitzle.core.spec.tokens import USUAL_RULE, checked_rule
from fitzle.core.units import Size, parse_ratio

VERSION = 1
LONGEST_SLUG = 60
MOST_OF_EACH = 50  # zones, windows, sizes seen, grounds, fields: more of them nobody looks through
KIND = r"^[a-z0-9][a-z0-9-]{0,39}$"
SLUG = r"^[\w][\w.-]{0,79}$"
Transparency = Literal["forbidden", "allowed", "required"]

Name = Annotated[str, Field(min_length=1, max_length=120)]
_EDGE_SLACK = 1e-6  # fractions typed with a few decimals may add up to a hair more than 1


class ExactSize(Frozen):
    """One size only, in px."""

    width: PositivePx
    height: PositivePx

    @property
    def size(self) -> Size:
        """As a Size."""
        return Size(self.width, self.height)


def _checked_aspect(text: str) -> str:
    if not re.match(r"^\d+(\.\d+)?:\d+(\.\d+)?$", text):
        raise ValueError("an aspect is written as width:height, for example 16:9")
    parse_ratio(text)
    return text


class RangedSize(Frozen):
    """A size between a least and a most, in px; null means no limit. `aspect` like "16:9" fixes the shape."""

    min_width: PositivePx | None = None
    min_height: PositivePx | None = None
    max_width: PositivePx | None = None
    max_height: PositivePx | None = None
    aspect: Annotated[str, AfterValidator(_checked_aspect)] | None = None
    recommended: ExactSize | None = None

    @property
    def ratio(self) -> float | None:
        """Width divided by height where the shape is fixed."""
        return parse_ratio(self.aspect) if self.aspect else None

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        for side in ("width", "height"):
            least, most = getattr(self, f"min_{side}"), getattr(self, f"max_{side}")
            if least and most and least > most:
                raise ValueError(f"min_{side} ({least}) is more than max_{side} ({most})")
            advised = getattr(self.recommended, side) if self.recommended else None
            if advised and ((least and advised < least) or (most and advised > most)):
                raise ValueError(f"the recommended {side} ({advised}) is outside its own limits")
        return self


def _size_kind(value: Any) -> str:
    keys = value.keys() if isinstance(value, dict) else getattr(type(value), "model_fields", {}).keys()
    return "exact" if {"width", "height"} & set(keys) else "range"


AnySize = Annotated[Annotated[ExactSize, Tag("exact")] | Annotated[RangedSize, Tag("range")], Discriminator(_size_kind)]


class Motion(Frozen):
    """Whether the picture may or must move."""

    allowed: bool = False
    required: bool = False
    max_seconds: Annotated[float, Field(gt=0)] | None = None
    max_fps: Annotated[float, Field(gt=0)] | None = None
    loop: bool | None = None

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        if self.required and not self.allowed:
            raise ValueError("motion cannot be required and not allowed")
        return self


class _Zone(Frozen):
    x: Fraction
    y: Fraction
    width: Annotated[float, Field(gt=0, le=1)]
    height: Annotated[float, Field(gt=0, le=1)]

    @model_validator(mode="after")
    def _inside(self) -> Self:
        if self.x + self.width > 1 + _EDGE_SLACK or self.y + self.height > 1 + _EDGE_SLACK:
            raise ValueError("the zone reaches beyond the picture; x + width and y + height are at most 1")
        return self


class CoveredZone(_Zone):
    """A part of the picture that the destination draws over, in fractions of width and height."""

    label: Name


class ShownWindow(_Zone):
    """The part of the picture that is shown on one kind of screen."""

    name: Name


class Veil(Frozen):
    """A colour that the destination lays over the whole picture."""

    colour: HexColour
    opacity: Fraction


class CircleMask(Frozen):
    """Shown in a circle on the short side, in the middle of the picture."""

    shape: Literal["circle"]

    @property
    def outline(self) -> Mask:
        """As geometry."""
        return Mask("circle")


class RoundedMask(Frozen):
    """Shown with rounded corners; `radius` in fractions of the short side."""

    shape: Literal["rounded"]
    radius: Annotated[float, Field(gt=0, le=0.5)]

    @property
    def outline(self) -> Mask:
        """As geometry."""
        return Mask("rounded", self.radius)


AnyMask = Annotated[CircleMask | RoundedMask, Field(discriminator="shape")]


class Viewing(Frozen):
    """One size at which people see the picture: width in px of a screen of this density."""

    name: Name
    width: PositivePx
    density: Annotated[float, Field(ge=0.5, le=5)] = 1

    @property
    def device_px(self) -> float:
        """Width in the screen's own pixels."""
        return self.width * self.density


class UploadField(Frozen):
    """Something the upload form asks for beside the file."""

    name: Name
    label: Name
    required: bool = False
    max_length: Annotated[int, Field(ge=1)] | None = None


def _distinct(formats: tuple[Format, ...]) -> tuple[Format, ...]:
    if len(set(formats)) != len(formats):
        raise ValueError("a format is listed twice")
    return formats


def placement_slug(destination: str, name: str) -> str:
    """A placement's readable name for documents, command lines and addresses, for example `web-shop-banner`."""
    return safe_stem(f"{destination} {name}" if destination else name, longest=LONGEST_SLUG)


class SpecSheet(Frozen):
    """What one placement demands and how it is seen there.

    `slug` names the placement in documents for good, whatever it is called later; without one it follows from
    destination and name. `kind` says what sort of place it is (an open list): defaults go by it, never by a name.
    """

    model_config = ConfigDict(validate_by_name=True, validate_by_alias=True, serialize_by_alias=True)

    fitzle_spec: Literal[1]
    name: Name
    destination: Annotated[str, Field(max_length=120)] = ""
    slug: Annotated[str, Field(pattern=SLUG)] | None = None
    kind: Annotated[str, Field(pattern=KIND)] | None = None
    size: AnySize
    formats: Annotated[tuple[Format, ...], Field(min_length=1), AfterValidator(_distinct)]
    max_bytes: Annotated[int, Field(ge=1)] | None = None
    transparency: Transparency = "allowed"
    motion: Motion = Motion()
    covered: Annotated[tuple[CoveredZone, ...], Field(max_length=MOST_OF_EACH)] = ()
    veil: Veil | None = None
    mask: AnyMask | None = Field(default=None, alias="cut")
    windows: Annotated[tuple[ShownWindow, ...], Field(max_length=MOST_OF_EACH)] = ()
    seen: Annotated[tuple[Viewing, ...], Field(max_length=MOST_OF_EACH)] = ()
    grounds: Annotated[tuple[HexColour, ...], Field(max_length=MOST_OF_EACH)] = ("#ffffff",)
    naming: Annotated[str, Field(min_length=1, max_length=200), AfterValidator(checked_rule)] = USUAL_RULE
    fields: Annotated[tuple[UploadField, ...], Field(max_length=MOST_OF_EACH)] = ()
    capacity: Annotated[int, Field(ge=1)] | None = None

    @property
    def placement(self) -> str:
        """The placement's slug: what a piece's adjustments for it are kept under."""
        return self.slug or placement_slug(self.destination, self.name)
