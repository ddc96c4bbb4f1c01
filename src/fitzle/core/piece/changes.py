"""Changes to a piece: a field of a part set or taken back, a part added, removed or moved. Each makes a new piece."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from fitzle.core.documents import plain_problems
from fitzle.core.errors import DocumentError
from fitzle.core.findings import Frozen
from fitzle.core.piece.document import Composed, FieldName, FieldTarget, Piece
from fitzle.core.piece.editing import part_named
from fitzle.core.piece.parts import PartId, adjustable


class SetField(Frozen):
    """Gives a field of a part a value; with `placement` (its slug) only there, with `take` in that take everywhere."""

    act: Literal["set"] = "set"
    part: PartId
    field: str
    value: Any = None
    placement: str | None = None
    take: str | None = None


class ResetField(Frozen):
    """Takes back what differs in one placement."""

    act: Literal["reset"] = "reset"
    part: PartId
    field: str
    placement: str


class AddPart(Frozen):
    """Brings in a part at the place `at` counted from the back, in front where that is null."""

    act: Literal["add"] = "add"
    part: PartId
    value: dict[str, Any]
    at: int | None = None


class RemovePart(Frozen):
    """Takes a part away."""

    act: Literal["remove"] = "remove"
    part: PartId


class MovePart(Frozen):
    """Brings a part to the place `at` counted from the back."""

    act: Literal["move"] = "move"
    part: PartId
    at: int


class Compose(Frozen):
    """Says in which shape the parts are where they stand, so that other places follow by calculation; null: none."""

    act: Literal["compose"] = "compose"
    composed: Composed | None


class NameField(Frozen):
    """Names a field of a part, so that rows of a run may give it values; null takes the name away."""

    act: Literal["name"] = "name"
    name: FieldName
    target: FieldTarget | None


PartChange = SetField | ResetField | AddPart | RemovePart | MovePart
AnyChange = PartChange | Compose | NameField
Change = Annotated[AnyChange, Field(discriminator="act")]


def value_of(piece: Piece, change: AnyChange) -> Any:
    """The present value that a change would replace, as plain data; None where the part is not there."""
    if isinstance(change, Compose):
        return piece.composed.model_dump(mode="json") if piece.composed else None
    if isinstance(change, NameField):
        target = piece.fields.get(change.name)
        return target.model_dump(mode="json") if target else None
    return _value_of_part(piece, change)


def _value_of_part(piece: Piece, change: PartChange) -> Any:
    own = next((part for part in piece.parts if part.id == change.part), None)
    if own is None or isinstance(change, AddPart):
        return None
    if isinstance(change, MovePart):
        return [part.id for part in piece.parts]
    if isinstance(change, RemovePart):
        return own.model_dump(mode="json")
    if change.placement:
        adjusted = piece.adjustments.get(change.placement, {}).get(change.part, {})
        if change.field in adjusted:
            return adjusted[change.field]
    elif isinstance(change, SetField) and change.take:
        taken = piece.takes.get(change.take, {}).get(change.part, {})
        if change.field in taken:
            return taken[change.field]
    return own.model_dump(mode="json").get(change.field)


def clashes(base: Piece, newest: Piece, changes: Iterable[AnyChange]) -> list[AnyChange]:
    """The changes that touch what somebody else has changed since `base`, to another value than is wanted now."""
    return [change for change in changes if _clashes(base, newest, change)]


def _clashes(base: Piece, newest: Piece, change: AnyChange) -> bool:
    if isinstance(change, RemovePart) and not _has(newest, change.part):
        return False  # both took it away
    now = value_of(newest, change)
    if isinstance(change, Compose | NameField):
        meant = change.composed if isinstance(change, Compose) else change.target
        return now not in (value_of(base, change), meant.model_dump(mode="json") if meant else None)
    return bool(now != value_of(base, change) and not (isinstance(change, SetField) and now == change.value))


def apply_changes(piece: Piece, changes: Iterable[AnyChange]) -> Piece:
    """The piece after all changes; raises DocumentError when one of them cannot be made."""
    for change in changes:
        piece = _validated(_applied(piece, change))
    return piece


def _validated(data: dict[str, Any]) -> Piece:
    try:
        return Piece.model_validate(data)
    except ValidationError as error:
        raise DocumentError(f"this change cannot be made: {plain_problems(error)}") from error


def _applied(piece: Piece, change: AnyChange) -> dict[str, Any]:
    data = piece.model_dump(mode="json")
    if isinstance(change, AddPart):
        _add(data, change)
        return data
    if isinstance(change, Compose):
        data["composed"] = change.composed.model_dump(mode="json") if change.composed else None
        return data
    if isinstance(change, NameField):
        data["fields"].pop(change.name, None)
        if change.target:
            data["fields"][change.name] = change.target.model_dump(mode="json")
        return data
    part = part_named(piece, change.part)
    if isinstance(change, RemovePart):
        _remove(data, change.part)
    elif isinstance(change, MovePart):
        _move(data, change)
    elif change.field not in adjustable(part):
        raise DocumentError(f"a {part.role} has no {change.field!r} to change")
    elif isinstance(change, SetField) and change.take and not change.placement:
        data["takes"].setdefault(change.take, {}).setdefault(change.part, {})[change.field] = change.value
    elif isinstance(change, SetField) and not change.placement:
        next(entry for entry in data["parts"] if entry["id"] == change.part)[change.field] = change.value
    else:
        _adjust(data["adjustments"], change)
    return data


def _add(data: dict[str, Any], change: AddPart) -> None:
    taken = {entry["id"] for entry in data["parts"]}
    entry = {**change.value, "id": free_id(change.part, taken)}
    data["parts"].insert(_place(data, change.at), entry)


def _remove(data: dict[str, Any], part: str) -> None:
    data["parts"] = [entry for entry in data["parts"] if entry["id"] != part]
    for layers in ("adjustments", "takes"):
        for own in data[layers].values():
            own.pop(part, None)
    data["adjustments"] = {placement: own for placement, own in data["adjustments"].items() if own}
    data["fields"] = {name: target for name, target in data["fields"].items() if target["part"] != part}


def _move(data: dict[str, Any], change: MovePart) -> None:
    entry = next(entry for entry in data["parts"] if entry["id"] == change.part)
    if entry["role"] == "ground":
        raise DocumentError("the ground lies behind all other parts")
    data["parts"].remove(entry)
    data["parts"].insert(_place(data, change.at), entry)


def _place(data: dict[str, Any], at: int | None) -> int:
    """A place among the parts that leaves the ground at the back."""
    least = sum(entry["role"] == "ground" for entry in data["parts"])
    return len(data["parts"]) if at is None else min(max(at, least), len(data["parts"]))


def _adjust(adjustments: dict[str, Any], change: SetField | ResetField) -> None:
    placement = str(change.placement)
    own = adjustments.setdefault(placement, {}).setdefault(change.part, {})
    if isinstance(change, SetField):
        own[change.field] = change.value
    else:
        own.pop(change.field, None)
    if not own:
        del adjustments[placement][change.part]
    if not adjustments[placement]:
        del adjustments[placement]


def free_id(wanted: str, taken: set[str]) -> str:
    """The id, or with -2, -3 … where it is in use."""
    number, candidate = 1, wanted
    while candidate in taken:
        number += 1
        candidate = f"{wanted[:36]}-{number}"
    return candidate


def _has(piece: Piece, part: str) -> bool:
    return any(entry.id == part for entry in piece.parts)
