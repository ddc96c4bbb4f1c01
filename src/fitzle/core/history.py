"""Steps taken back out of the middle: what one step changed is undone in the newest document, if nobody built on it.

Documents are plain data with one list of entries that have an id (the parts of a piece, the steps of a preparation).
They are compared field by field, so that two people's changes to one entry stand beside each other.
"""

from __future__ import annotations

import copy
from collections.abc import Iterator, Mapping, Sequence
from typing import Any, NamedTuple

Document = dict[str, Any]
Place = tuple[str, ...]
_MISSING = object()
_LAYERED = ("adjustments", "takes")  # of a piece: placement or take, part, field


class Difference(NamedTuple):
    """What one step made of the values at some places: (before, after) for each."""

    values: dict[Place, tuple[Any, Any]]
    order: tuple[list[str], list[str]] | None

    def touches(self, places: set[Place]) -> bool:
        """Whether it changed something at one of these places."""
        return bool(places & (self.values.keys() | ({("order",)} if self.order else set())))


class StoodOn(Exception):
    """A step that cannot be taken back: at these places something else was changed since."""

    def __init__(self, places: set[Place]) -> None:
        super().__init__("something else was changed there since")
        self.places = places


def difference(before: Document, after: Document, entries: str) -> Difference:
    """What changed between two states; `entries` names the list whose entries have an id."""
    old, new = dict(_values(before, entries)), dict(_values(after, entries))
    changed = {
        place: (old.get(place, _MISSING), new.get(place, _MISSING))
        for place in dict.fromkeys((*old, *new))
        if old.get(place, _MISSING) != new.get(place, _MISSING)
    }
    orders = _ids(before, entries), _ids(after, entries)
    moved = sorted(orders[0]) == sorted(orders[1]) and orders[0] != orders[1]
    return Difference(changed, orders if moved else None)


def taken_back(newest: Document, before: Document, after: Document, entries: str) -> Document:
    """The newest document without what changed between `before` and `after`; raises StoodOn."""
    step = difference(before, after, entries)
    now = dict(_values(newest, entries))
    blocked = {place for place, (_, new) in step.values.items() if now.get(place, _MISSING) != new}
    added = {place[1] for place, (old, _) in step.values.items() if _is_id(place, entries) and old is _MISSING}
    blocked |= {place for place in now.keys() - step.values.keys() if _of_entry(place, entries) in added}
    if step.order and _among(_ids(newest, entries), step.order[1]) != step.order[1]:
        blocked.add(("order",))
    if blocked:
        raise StoodOn(blocked)
    return _with(newest, step, before, entries)


def _is_id(place: Place, entries: str) -> bool:
    return place[0] == entries and place[2] == "id"


def _of_entry(place: Place, entries: str) -> str:
    """The entry that a place belongs to; empty for none."""
    if place[0] == entries:
        return place[1]
    return place[2] if place[0] in _LAYERED else ""


def _with(newest: Document, step: Difference, before: Document, entries: str) -> Document:
    document = copy.deepcopy(newest)
    gone = {place[1] for place, (old, _) in step.values.items() if _is_id(place, entries) and old is _MISSING}
    document[entries] = [entry for entry in document[entries] if entry["id"] not in gone]
    for place, (old, _) in step.values.items():
        if _of_entry(place, entries) not in gone:
            _put(document, place, old, entries)
        elif place[0] != entries:
            _put(document, place, _MISSING, entries)
    if step.order:
        document[entries] = _reordered(document[entries], step.order[0])
    else:
        _bring_back_to_places(document, before, newest, entries)
    for layers in _LAYERED:
        if layers in document:
            document[layers] = _without_empty(document[layers])
    return document


def _values(document: Document, entries: str) -> Iterator[tuple[Place, Any]]:
    for entry in document[entries]:
        for field, value in entry.items():
            yield (entries, entry["id"], field), value
    for layers in _LAYERED:
        for layer, parts in document.get(layers, {}).items():
            for part, fields in parts.items():
                for field, value in fields.items():
                    yield (layers, layer, part, field), value
    for key, value in document.items():
        if key != entries and key not in _LAYERED:
            if isinstance(value, dict):
                yield from (((key, name), inner) for name, inner in value.items())
            else:
                yield (key,), value


def _put(document: Document, place: Place, value: Any, entries: str) -> None:
    inner = document
    if place[0] == entries:
        found = next((entry for entry in document[entries] if entry.get("id") == place[1]), None)
        if found is None:
            found = {"id": place[1]}
            document[entries].append(found)
        inner, place = found, place[2:]
    else:
        for step in place[:-1]:
            inner = inner.setdefault(step, {})
    if value is _MISSING:
        inner.pop(place[-1], None)
    else:
        inner[place[-1]] = value


def _bring_back_to_places(document: Document, before: Document, newest: Document, entries: str) -> None:
    """Entries that come back stand again behind the one that they stood behind."""
    there, old = set(_ids(newest, entries)), _ids(before, entries)
    for name in [one for one in _ids(document, entries) if one not in there]:
        entry = next(one for one in document[entries] if one["id"] == name)
        document[entries].remove(entry)
        behind = [one for one in old[: old.index(name)] if one in _ids(document, entries)]
        at = _ids(document, entries).index(behind[-1]) + 1 if behind else 0
        document[entries].insert(at, entry)


def _reordered(found: Sequence[Mapping[str, Any]], order: list[str]) -> list[Any]:
    """The entries of `order` in that order, all others where they are."""
    by_id = {entry["id"]: entry for entry in found}
    turn = iter(name for name in order if name in by_id)
    return [by_id[next(turn)] if entry["id"] in order else entry for entry in found]


def _among(ids: list[str], some: list[str]) -> list[str]:
    return [name for name in ids if name in some]


def _ids(document: Document, entries: str) -> list[str]:
    return [entry["id"] for entry in document[entries]]


def _without_empty(layers: dict[str, Any]) -> dict[str, Any]:
    kept = {name: {part: own for part, own in parts.items() if own} for name, parts in layers.items()}
    return {name: parts for name, parts in kept.items() if parts}
