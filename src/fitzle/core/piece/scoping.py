"""What "everywhere" and "only here" mean for a change."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from fitzle.core.findings import Frozen
from fitzle.core.piece.changes import AnyChange, ResetField, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.piece.parts import PartId


class FieldValue(Frozen):
    """A value that a field of a part is to have."""

    part: PartId
    field: str
    value: Any = None


def scoped(piece: Piece, placement: str, values: Iterable[FieldValue], *, everywhere: bool) -> list[AnyChange]:
    """The changes that give fields their values everywhere, or only in one placement (its slug).

    What is changed everywhere must not stay different in the placement where somebody changes it.
    """
    values = list(values)
    own = piece.adjustments.get(placement, {})
    taken_back: list[AnyChange] = [
        ResetField(part=value.part, field=value.field, placement=placement)
        for value in values
        if everywhere and value.field in own.get(value.part, {})
    ]
    here = None if everywhere else placement
    return taken_back + [
        SetField(part=value.part, field=value.field, value=value.value, placement=here) for value in values
    ]


def adjusted_fields(piece: Piece, placement: str) -> list[str]:
    """What differs in a placement, as `part.field`, in order."""
    own = piece.adjustments.get(placement, {})
    return sorted(f"{part}.{field}" for part, fields in own.items() for field in fields)


def taking_back(adjusted: Iterable[str], placement: str) -> list[AnyChange]:
    """The changes that let `part.field` follow the piece again in a placement."""
    pairs = (entry.partition(".") for entry in adjusted)
    return [ResetField(part=part, field=field, placement=placement) for part, _, field in pairs]
