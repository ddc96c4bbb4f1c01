"""The piece, version 2: a frozen document of parts, back to front, with layers of differences over them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, ValidationError, model_validator

from fitzle.core.colour.srgb import HexColour
from fitzle.core.documents import plain_problems
from fitzle.core.errors import DocumentError
from fitzle.core.findings import Frozen
from fitzle.core.lengths import PositivePx
from fitzle.core.piece.fills import ArtworkId
from fitzle.core.piece.parts import AnyPart, Part, PartId, adjustable, adjusted_part, artwork_of_part
from fitzle.core.units import Size

VERSION = 2
MOST_PARTS = 100
MOST_ADJUSTED = 500  # placements
MOST_TAKES = 40
MOST_FIELDS = 60
MOST_SLUG = 80
TAKE_MARK = "~"  # between a placement's slug and a take; no slug has it
MOST_VERSIONS = 20  # of one mark
MOST_HOUSE_COLOURS = 16
SAME_SHAPE = 1.15  # between two ratios

Differences = dict[PartId, dict[str, Any]]  # part → the fields that differ
TakeId = Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,39}$")]
FieldName = Annotated[str, Field(pattern=r"^[a-z][a-z0-9_]{0,39}$")]


class RowCounter(Frozen):
    """Words that count rows where a cell is empty: before, a number of at least so many digits, after."""

    before: Annotated[str, Field(max_length=80)] = ""
    start: Annotated[int, Field(ge=0, le=1_000_000)] = 1
    step: Annotated[int, Field(ge=1, le=1000)] = 1
    digits: Annotated[int, Field(ge=1, le=9)] = 1
    after: Annotated[str, Field(max_length=80)] = ""


class FieldTarget(Frozen):
    """The field of a part that a named field of the piece gives a value to; where a row leaves it empty a `counter`."""

    part: PartId
    field: Annotated[str, Field(min_length=1, max_length=40)]
    counter: RowCounter | None = None


class Row(Frozen):
    """One row of a run: values for named fields of a piece, in the form that the parts' fields take.

    `differences` are what somebody made different in it by hand everywhere, `adjustments` in one placement (its slug).
    """

    id: Annotated[str, Field(min_length=1, max_length=40)]
    values: Annotated[dict[FieldName, Any], Field(max_length=MOST_FIELDS)] = {}
    differences: Differences = {}
    adjustments: Annotated[dict[str, Differences], Field(max_length=MOST_ADJUSTED)] = {}


class Composed(Frozen):
    """The shape in which the parts of a piece were put where they stand, in px, and in which placement (its slug)."""

    width: PositivePx
    height: PositivePx
    placement: Annotated[str, Field(max_length=MOST_SLUG)] | None = None

    def is_here(self, placement: str | None) -> bool:
        """Whether that was in this placement."""
        return placement is not None and self.placement == placement

    def is_shape_of(self, size: Size) -> bool:
        """Whether a size is as good as of this shape."""
        return is_one_shape(self.width / self.height, size.ratio)


class Piece(Frozen):
    """Something made to fill placements.

    Where it says in which shape it was `composed` it is arranged by calculation for all others; else its parts keep to
    their own boxes everywhere.

    `adjustments` is placement (its slug) → part → the fields that differ there, `takes` the same for alternatives; what
    differs in one take in one placement alone is an adjustment of both (`layer_of`).
    `fields` are what a row of a run may give values to. `versions` are for a mark those that may stand in its place
    where they show better, `house` the colours that automatic ones are chosen from; whoever keeps marks and house style
    elsewhere leaves both empty.
    """

    fitzle_piece: Literal[2] = 2
    subject: Annotated[str, Field(min_length=1, max_length=120)]
    parts: Annotated[tuple[Part, ...], Field(max_length=MOST_PARTS)]
    adjustments: Annotated[dict[str, Differences], Field(max_length=MOST_ADJUSTED)] = {}
    takes: Annotated[dict[TakeId, Differences], Field(max_length=MOST_TAKES)] = {}
    fields: Annotated[dict[FieldName, FieldTarget], Field(max_length=MOST_FIELDS)] = {}
    versions: dict[ArtworkId, Annotated[tuple[ArtworkId, ...], Field(max_length=MOST_VERSIONS)]] = {}
    house: Annotated[tuple[HexColour, ...], Field(max_length=MOST_HOUSE_COLOURS)] = ()
    composed: Composed | None = None

    @model_validator(mode="after")
    def _consistent(self) -> Self:
        twice = [part for part, count in Counter(part.id for part in self.parts).items() if count > 1]
        if twice:
            raise ValueError(f"two parts have the id {twice[0]!r}")
        if sum(part.role == "ground" for part in self.parts) > 1:
            raise ValueError("a piece has one ground")
        if any(part.role == "ground" for part in self.parts[1:]):
            raise ValueError("the ground is the first of the parts: it lies behind all others")
        layers = [(f"the adjustment for {name}", own) for name, own in self.adjustments.items()]
        layers += [(f"the take {name}", own) for name, own in self.takes.items()]
        for what, differences in layers:
            for part_id, fields in differences.items():
                self._check_differences(what, part_id, fields)
        for name, target in self.fields.items():
            self._check_field(name, target)
        return self

    def hand_made(self, placement: str | None, take: str = "", row: Row | None = None) -> Differences:
        """What somebody made different in a placement, in a take of it too, and in a row there."""
        own = row.adjustments.get(placement or "", {}) if row else {}
        layers = (self.adjustments.get(layer, {}) for layer in _layers(placement, take))
        return merged_differences([*layers, own])

    def _check_differences(self, what: str, part_id: str, fields: dict[str, Any]) -> None:
        part = next((part for part in self.parts if part.id == part_id), None)
        if part is None:
            raise ValueError(f"{what} names a part {part_id!r} that is not there")
        unknown = set(fields) - adjustable(part)
        if unknown:
            raise ValueError(f"{sorted(unknown)[0]!r} cannot be adjusted on a {part.role}")
        adjusted_part(part, fields)

    def _check_field(self, name: str, target: FieldTarget) -> None:
        part = next((part for part in self.parts if part.id == target.part), None)
        if part is None:
            raise ValueError(f"the field {name!r} names a part {target.part!r} that is not there")
        if target.field not in adjustable(part):
            raise ValueError(f"the field {name!r}: a {part.role} has no {target.field!r}")


def is_one_shape(one: float, other: float) -> bool:
    """Whether two ratios are near enough that one composition serves both."""
    return max(one / other, other / one) <= SAME_SHAPE


def parts_in(
    piece: Piece,
    placement: str | None,
    take: str = "",
    row: Row | None = None,
    arranged: Mapping[str, Mapping[str, Any]] | None = None,
) -> tuple[AnyPart, ...]:
    """The parts as they are in one placement: the piece's own, then what the take, the row and the placement change.

    What is `arranged` there by calculation comes before what somebody changes there; what is changed in a take in this
    placement alone, or in the row there, comes last.
    Each layer wins over the ones before it. Raises DocumentError for a take or a field that the piece does not have,
    and for a value of a row that its part cannot take.
    """
    there = piece.hand_made(placement, take, row)
    differences = merged_differences([_of_take(piece, take), _of_row(piece, row), arranged or {}, there])
    return tuple(_adjusted(part, differences[part.id]) if part.id in differences else part for part in piece.parts)


def layer_of(placement: str, take: str) -> str:
    """What a piece keeps under for a take in one placement (its slug); for no take the placement alone."""
    return f"{placement}{TAKE_MARK}{take}" if take else placement


def _layers(placement: str | None, take: str) -> list[str]:
    if not placement:
        return []
    return [placement, layer_of(placement, take)] if take else [placement]


def with_take(piece: Piece, take: str) -> Piece:
    """The piece with a take that may have no differences of its own yet."""
    if not take or take in piece.takes:
        return piece
    return piece.model_copy(update={"takes": {**piece.takes, take: {}}})


def merged_differences(layers: Iterable[Mapping[str, Mapping[str, Any]]]) -> Differences:
    """Layers of differences as one; of two that change the same field the later one wins."""
    merged: Differences = {}
    for layer in layers:
        for part, fields in layer.items():
            merged.setdefault(part, {}).update(fields)
    return merged


def _of_take(piece: Piece, take: str) -> Differences:
    if take and take not in piece.takes:
        raise DocumentError(f"the piece has no take {take!r}", expected=", ".join(piece.takes) or "none", actual=take)
    return piece.takes[take] if take else {}


def _of_row(piece: Piece, row: Row | None) -> Differences:
    """Values of fields, and what differs by hand; a part that was removed meanwhile differs in nothing."""
    if row is None:
        return {}
    found: Differences = {}
    for name, value in row.values.items():
        if name not in piece.fields:
            raise DocumentError(
                f"the piece has no field {name!r}", expected=", ".join(piece.fields) or "none", actual=name
            )
        target = piece.fields[name]
        found.setdefault(target.part, {})[target.field] = value
    return merged_differences([found, row.differences])


def _adjusted(part: AnyPart, fields: dict[str, Any]) -> AnyPart:
    try:
        return adjusted_part(part, fields)
    except ValidationError as error:
        raise DocumentError(f"the part {part.id!r} cannot be changed so: {plain_problems(error)}") from error


def artworks_in(piece: Piece, placement: str | None = None, take: str = "", row: Row | None = None) -> set[str]:
    """The artwork that a piece shows in a placement."""
    return {artwork for part in parts_in(piece, placement, take, row) if (artwork := artwork_of_part(part))}
