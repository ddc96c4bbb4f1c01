"""What "everywhere" and "only here" mean for a change."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from fitzle.core.findings import Frozen
from fitzle.core.piece.changes import AnyChange, ResetField, SetField
from fitzle.core.piece.document import Piece, layer_of
from fitzle.core.piece.parts import WHERE_IT_STANDS, PartId

_ABSENT = object()


class FieldValue(Frozen):
    """A value that a field of a part is to have."""

    part: PartId
    field: str
    value: Any = None


def scoped(
    piece: Piece,
    placement: str,
    values: Iterable[FieldValue],
    *,
    everywhere: bool,
    take: str = "",
    arranged: bool = False,
) -> list[AnyChange]:
    """The changes that give fields their values everywhere, or only in one placement (its slug).

    What is changed everywhere must not stay different in the placement where somebody changes it. In a take,
    everywhere means wherever that take stands. Where parts are `arranged` by calculation they are moved there alone:
    a place in this shape is none in another one.
    """
    values = list(values)
    if everywhere and arranged:
        moved = [one for one in values if one.field in WHERE_IT_STANDS]
        values = [one for one in values if one.field not in WHERE_IT_STANDS]
        return [
            *scoped(piece, placement, values, everywhere=True, take=take),
            *scoped(piece, placement, moved, everywhere=False, take=take),
        ]
    if take:
        return _scoped_in_take(piece, placement, values, take, everywhere=everywhere)
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


def _scoped_in_take(
    piece: Piece, placement: str, values: list[FieldValue], take: str, *, everywhere: bool
) -> list[AnyChange]:
    """In a take: what differs in the placement anyway would hide it there, so there it is set as well."""
    layer = layer_of(placement, take)
    if not everywhere:
        return [SetField(part=one.part, field=one.field, value=one.value, placement=layer) for one in values]
    hides = piece.adjustments.get(placement, {})
    own = piece.adjustments.get(layer, {})
    changes: list[AnyChange] = []
    for one in values:
        changes.append(SetField(part=one.part, field=one.field, value=one.value, take=take))
        if one.field in hides.get(one.part, {}):
            changes.append(SetField(part=one.part, field=one.field, value=one.value, placement=layer))
        elif one.field in own.get(one.part, {}):
            changes.append(ResetField(part=one.part, field=one.field, placement=layer))
    return changes


def carried_over(piece: Piece, before: str, after: str) -> list[AnyChange]:
    """The changes after which a piece differs in one placement as it does in another one now; both by their slugs."""
    wanted, there = piece.adjustments.get(before, {}), piece.adjustments.get(after, {})
    taken_back: list[AnyChange] = [
        ResetField(part=part, field=field, placement=after)
        for part, fields in there.items()
        for field in fields
        if field not in wanted.get(part, {})
    ]
    return taken_back + [
        SetField(part=part, field=field, value=value, placement=after)
        for part, fields in wanted.items()
        for field, value in fields.items()
        if there.get(part, {}).get(field, _ABSENT) != value
    ]


def adjusted_fields(piece: Piece, placement: str) -> list[str]:
    """What differs in a placement, as `part.field`, in order."""
    own = piece.adjustments.get(placement, {})
    return sorted(f"{part}.{field}" for part, fields in own.items() for field in fields)


def taking_back(adjusted: Iterable[str], placement: str) -> list[AnyChange]:
    """The changes that let `part.field` follow the piece again in a placement."""
    pairs = (entry.partition(".") for entry in adjusted)
    return [ResetField(part=part, field=field, placement=placement) for part, _, field in pairs]
