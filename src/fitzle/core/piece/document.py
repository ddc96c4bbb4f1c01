"""The piece, version 1: a frozen document of parts, back to front, with differences for single placements."""

from __future__ import annotations

from collections import Counter
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from fitzle.core.findings import Frozen
from fitzle.core.piece.parts import AnyPart, Part, PartId, adjustable, adjusted_part, artwork_of_part

VERSION = 1
MOST_PARTS = 100
MOST_ADJUSTED = 500  # placements


class Piece(Frozen):
    """Something made to fill placements. `adjustments` is placement → part → the fields that differ there."""

    fitzle_piece: Literal[1] = 1
    subject: Annotated[str, Field(min_length=1, max_length=120)]
    parts: Annotated[tuple[Part, ...], Field(max_length=MOST_PARTS)]
    adjustments: Annotated[dict[str, dict[PartId, dict[str, Any]]], Field(max_length=MOST_ADJUSTED)] = {}

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        twice = [part for part, count in Counter(part.id for part in self.parts).items() if count > 1]
        if twice:
            raise ValueError(f"two parts have the id {twice[0]!r}")
        if sum(part.role == "ground" for part in self.parts) > 1:
            raise ValueError("a piece has one ground")
        if any(part.role == "ground" for part in self.parts[1:]):
            raise ValueError("the ground is the first of the parts: it lies behind all others")
        for placement, parts in self.adjustments.items():
            for part_id, fields in parts.items():
                self._check_adjustment(placement, part_id, fields)
        return self

    def _check_adjustment(self, placement: str, part_id: str, fields: dict[str, Any]) -> None:
        part = next((part for part in self.parts if part.id == part_id), None)
        if part is None:
            raise ValueError(f"the adjustment for {placement} names a part {part_id!r} that is not there")
        unknown = set(fields) - adjustable(part)
        if unknown:
            raise ValueError(f"{sorted(unknown)[0]!r} cannot be adjusted on a {part.role}")
        adjusted_part(part, fields)


def parts_in(piece: Piece, placement: str | None) -> tuple[AnyPart, ...]:
    """The parts as they are in one placement, adjustments applied."""
    differences = piece.adjustments.get(placement, {}) if placement else {}
    return tuple(adjusted_part(part, differences[part.id]) if part.id in differences else part for part in piece.parts)


def artworks_in(piece: Piece, placement: str | None = None) -> set[str]:
    """The artwork that a piece shows in a placement."""
    return {artwork for part in parts_in(piece, placement) if (artwork := artwork_of_part(part))}
