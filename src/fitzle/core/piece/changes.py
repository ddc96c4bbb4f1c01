"""Changes to a piece: one field of one part, or a part added, removed or moved. Each edit makes a new piece."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, Literal

from pydantic import ValidationError

from fitzle.core.documents import plain_problems
from fitzle.core.errors import DocumentError
from fitzle.core.findings import Frozen
from fitzle.core.piece.document import Piece
from fitzle.core.piece.editing import part_named
from fitzle.core.piece.parts import PartId, adjustable


class Change(Frozen):
    """What is done to one part.

    `set` gives `field` a value; with `placement` only there, and `reset` takes such an adjustment back. `add` brings
    in a part (`value`) at the place `at` counted from the back, in front where that is null. `remove` takes it away,
    `move` brings it to the place `at`.
    """

    part: PartId
    act: Literal["set", "add", "remove", "move"] = "set"
    field: str = ""
    value: Any = None
    placement: str | None = None
    reset: bool = False
    at: int | None = None


def value_of(piece: Piece, change: Change) -> Any:
    """The present value that a change would replace, as plain data; None where the part is not there."""
    own = next((part for part in piece.parts if part.id == change.part), None)
    if own is None or change.act == "add":
        return None
    if change.act == "move":
        return [part.id for part in piece.parts]
    if change.act == "remove":
        return own.model_dump(mode="json")
    if change.placement:
        adjusted = piece.adjustments.get(change.placement, {}).get(change.part, {})
        if change.field in adjusted:
            return adjusted[change.field]
    return own.model_dump(mode="json").get(change.field)


def clashes(base: Piece, newest: Piece, changes: Iterable[Change]) -> list[Change]:
    """The changes that touch what somebody else has changed since `base`, to another value than is wanted now."""
    return [change for change in changes if _clashes(base, newest, change)]


def _clashes(base: Piece, newest: Piece, change: Change) -> bool:
    if change.act == "remove" and not _has(newest, change.part):
        return False  # both took it away
    now = value_of(newest, change)
    return bool(now != value_of(base, change) and (change.act != "set" or now != change.value))


def apply_changes(piece: Piece, changes: Iterable[Change]) -> Piece:
    """The piece after all changes; raises DocumentError when one of them cannot be made."""
    for change in changes:
        piece = _validated(_applied(piece, change))
    return piece


def _validated(data: dict[str, Any]) -> Piece:
    try:
        return Piece.model_validate(data)
    except ValidationError as error:
        raise DocumentError(f"this change cannot be made: {plain_problems(error)}") from error


def _applied(piece: Piece, change: Change) -> dict[str, Any]:
    data = piece.model_dump(mode="json")
    if change.act == "add":
        _add(data, change)
        return data
    part = part_named(piece, change.part)
    if change.act == "remove":
        _remove(data, change.part)
    elif change.act == "move":
        _move(data, change)
    else:
        if change.field not in adjustable(part):
            raise DocumentError(f"a {part.role} has no {change.field!r} to change")
        _set(data, change)
    return data


def _add(data: dict[str, Any], change: Change) -> None:
    if not isinstance(change.value, dict):
        raise DocumentError("a part to add must be an object")
    taken = {entry["id"] for entry in data["parts"]}
    entry = {**change.value, "id": free_id(change.part, taken)}
    data["parts"].insert(_place(data, change.at), entry)


def _remove(data: dict[str, Any], part: str) -> None:
    data["parts"] = [entry for entry in data["parts"] if entry["id"] != part]
    for own in data["adjustments"].values():
        own.pop(part, None)
    data["adjustments"] = {placement: own for placement, own in data["adjustments"].items() if own}


def _move(data: dict[str, Any], change: Change) -> None:
    entry = next(entry for entry in data["parts"] if entry["id"] == change.part)
    if entry["role"] == "ground":
        raise DocumentError("the ground lies behind all other parts")
    data["parts"].remove(entry)
    data["parts"].insert(_place(data, change.at), entry)


def _place(data: dict[str, Any], at: int | None) -> int:
    """A place among the parts that leaves the ground at the back."""
    least = sum(entry["role"] == "ground" for entry in data["parts"])
    return len(data["parts"]) if at is None else min(max(at, least), len(data["parts"]))


def _set(data: dict[str, Any], change: Change) -> None:
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


def free_id(wanted: str, taken: set[str]) -> str:
    """The id, or with -2, -3 … where it is in use."""
    number, candidate = 1, wanted
    while candidate in taken:
        number += 1
        candidate = f"{wanted[:36]}-{number}"
    return candidate


def _has(piece: Piece, part: str) -> bool:
    return any(entry.id == part for entry in piece.parts)
