"""Pieces are values: each edit makes a new one. A change names one field of one part, everywhere or in one place."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from pydantic import ValidationError

from fitzle.core.documents import plain_problems, read_document
from fitzle.core.errors import DocumentError
from fitzle.core.findings import Frozen
from fitzle.core.piece.document import (
    ADJUSTABLE,
    VERSION,
    ArtworkPart,
    GroundPart,
    PartId,
    Piece,
    adjusted_part,
)


class Change(Frozen):
    """One field of one part gets a value; with `placement` only there. `reset` takes an adjustment back."""

    part: PartId
    field: str
    value: Any = None
    placement: str | None = None
    reset: bool = False


def read_piece(text: str | bytes, subject: str = "") -> Piece:
    """A piece from JSON text; raises DocumentError in plain words."""
    return read_document(Piece, text, key="fitzle_piece", version=VERSION, subject=subject, noun="piece")


def new_piece(subject: str, artwork: str, role: str) -> Piece:
    """The simplest piece: a clear ground and one mark or picture."""
    part = {"id": role, "role": role, "artwork": artwork}
    return Piece.model_validate({"subject": subject, "parts": [{"id": "ground", "role": "ground"}, part]})


def part_named(piece: Piece, part_id: str) -> GroundPart | ArtworkPart:
    """The part with this id; raises DocumentError when there is none."""
    for part in piece.parts:
        if part.id == part_id:
            return part
    raise DocumentError(f"the piece has no part {part_id!r}", advice="It may have been removed in another window.")


def first_artwork_part(piece: Piece) -> ArtworkPart | None:
    """The backmost picture or mark."""
    return next((part for part in piece.parts if isinstance(part, ArtworkPart)), None)


def ground_part(piece: Piece) -> GroundPart | None:
    """The ground, where the piece has one."""
    return next((part for part in piece.parts if isinstance(part, GroundPart)), None)


def parts_in(piece: Piece, placement: str | None) -> tuple[GroundPart | ArtworkPart, ...]:
    """The parts as they are in one placement, adjustments applied."""
    differences = piece.adjustments.get(placement, {}) if placement else {}
    return tuple(adjusted_part(part, differences.get(part.id, {})) for part in piece.parts)


def as_in(piece: Piece, placement: str | None) -> Piece:
    """The piece as it is in one placement, with nothing left to adjust."""
    return piece.model_copy(update={"parts": parts_in(piece, placement), "adjustments": {}})


def value_of(piece: Piece, change: Change) -> Any:
    """The present value that a change would replace, as plain data."""
    if change.placement:
        own = piece.adjustments.get(change.placement, {}).get(change.part, {})
        if change.field in own:
            return own[change.field]
    return part_named(piece, change.part).model_dump(mode="json").get(change.field)


def apply_changes(piece: Piece, changes: Iterable[Change]) -> Piece:
    """The piece after all changes; raises DocumentError when one of them cannot be made."""
    data = piece.model_dump(mode="json")
    for change in changes:
        _apply(piece, data, change)
    try:
        return Piece.model_validate(data)
    except ValidationError as error:
        raise DocumentError(f"this change cannot be made: {plain_problems(error)}") from error


def _apply(piece: Piece, data: dict[str, Any], change: Change) -> None:
    part = part_named(piece, change.part)
    if change.field not in ADJUSTABLE[part.role]:
        raise DocumentError(f"a {part.role} has no {change.field!r} to change")
    if change.placement:
        _adjust(data["adjustments"], change, change.placement)
    else:
        entry = next(entry for entry in data["parts"] if entry["id"] == change.part)
        entry[change.field] = change.value


def _adjust(adjustments: dict[str, Any], change: Change, placement: str) -> None:
    own = adjustments.setdefault(placement, {}).setdefault(change.part, {})
    if change.reset:
        own.pop(change.field, None)
    else:
        own[change.field] = change.value
    if not own:
        del adjustments[placement][change.part]
    if not adjustments[placement]:
        del adjustments[placement]


def clashes(base: Piece, newest: Piece, changes: Iterable[Change]) -> list[Change]:
    """The changes whose field somebody else has changed since `base`, to another value than is wanted now."""
    return [
        change
        for change in changes
        if value_of(newest, change) != value_of(base, change) and value_of(newest, change) != change.value
    ]
