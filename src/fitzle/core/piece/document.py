"""The piece, version 1: a frozen document of parts, back to front, with differences for single placements."""

from __future__ import annotations

from collections import Counter
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from fitzle.core.colour.srgb import HexColour
from fitzle.core.findings import Frozen
from fitzle.core.geometry.anchor import Anchor
from fitzle.core.units import Fraction, Length

VERSION = 1
MOST_PARTS = 500

PartId = Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,39}$")]
ArtworkId = Annotated[str, Field(min_length=1, max_length=80)]
Share = Annotated[float, Field(ge=-20, le=20)]  # of the short side
Mode = Literal["fill", "whole"]
Centring = Literal["box", "weight"]


class Focus(Frozen):
    """The point of an artwork that must show, in fractions of its width and height."""

    x: Fraction
    y: Fraction


class Box(Frozen):
    """Where a part stands: its own anchor point on the picture's, offset and size in fractions of the short side."""

    anchor: Anchor = "centre"
    dx: Share = 0
    dy: Share = 0
    width: Annotated[float, Field(gt=0, le=40)]
    height: Annotated[float, Field(gt=0, le=40)]


class GroundPart(Frozen):
    """What lies behind everything: a colour, or nothing (transparent)."""

    id: PartId
    role: Literal["ground"]
    colour: HexColour | None = None


class ArtworkPart(Frozen):
    """A picture or a mark and how it is fitted into the box where it stands.

    `mode` null lets the kind decide (a mark is shown whole, a picture fills), `padding` null lets the plan choose.
    """

    id: PartId
    role: Literal["picture", "mark"]
    artwork: ArtworkId
    stands: Literal["fill"] | Box = "fill"
    mode: Mode | None = None
    focus: Focus | None = None
    padding: Length | None = None
    centring: Centring = "box"
    tint: HexColour | None = None


Part = Annotated[GroundPart | ArtworkPart, Field(discriminator="role")]

# What may differ in one placement; identity and role stay the same everywhere.
ADJUSTABLE = {
    "ground": frozenset({"colour"}),
    "picture": frozenset({"artwork", "stands", "mode", "focus", "padding", "centring", "tint"}),
    "mark": frozenset({"artwork", "stands", "mode", "focus", "padding", "centring", "tint"}),
}


class Piece(Frozen):
    """Something made to fill placements. `adjustments` is placement → part → the fields that differ there."""

    fitzle_piece: Literal[1] = 1
    subject: Annotated[str, Field(min_length=1, max_length=120)]
    parts: Annotated[tuple[Part, ...], Field(max_length=MOST_PARTS)]
    adjustments: dict[str, dict[PartId, dict[str, Any]]] = {}

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        twice = [part for part, count in Counter(part.id for part in self.parts).items() if count > 1]
        if twice:
            raise ValueError(f"two parts have the id {twice[0]!r}")
        for placement, parts in self.adjustments.items():
            for part_id, fields in parts.items():
                self._check_adjustment(placement, part_id, fields)
        return self

    def _check_adjustment(self, placement: str, part_id: str, fields: dict[str, Any]) -> None:
        part = next((part for part in self.parts if part.id == part_id), None)
        if part is None:
            raise ValueError(f"the adjustment for {placement} names a part {part_id!r} that is not there")
        unknown = set(fields) - ADJUSTABLE[part.role]
        if unknown:
            raise ValueError(f"{sorted(unknown)[0]!r} cannot be adjusted on a {part.role}")
        adjusted_part(part, fields)


def adjusted_part(part: GroundPart | ArtworkPart, fields: dict[str, Any]) -> GroundPart | ArtworkPart:
    """The part with some fields replaced; raises ValidationError where a value cannot be used."""
    return type(part).model_validate({**part.model_dump(), **fields})
