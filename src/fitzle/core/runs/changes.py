"""Changes of the rows of a run. Each says what it found there (`had`), so that two people who change one table get
both their changes, or are shown both where they wanted the same cell; and so that a step can be taken back.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Annotated, Any, Literal, NamedTuple

from pydantic import Field

from fitzle.core.findings import Frozen
from fitzle.core.piece.document import MOST_SLUG, Differences, FieldName
from fitzle.core.piece.parts import PartId
from fitzle.core.runs.document import Cell, Entry, RowId, Rows, without_empty


class Differing(Frozen):
    """A value that a field of a part has in one row alone; none there where `value` is not given."""

    given: bool = False
    value: Any = None


class SetCell(Frozen):
    """Another text in a cell. `had` is what stood there; null where whoever changes it does not mind."""

    act: Literal["cell"] = "cell"
    row: RowId
    field: FieldName
    text: Cell
    had: Cell | None = None


class AddRow(Frozen):
    """A new row above another one (null: at the end)."""

    act: Literal["add"] = "add"
    entry: Entry
    before: RowId | None = None


class RemoveRow(Frozen):
    """A row taken away; `had` is the row as it was."""

    act: Literal["remove"] = "remove"
    row: RowId
    had: Entry | None = None


class MoveRow(Frozen):
    """A row put above another one (null: at the end)."""

    act: Literal["move"] = "move"
    row: RowId
    before: RowId | None = None


class PutAway(Frozen):
    """A row put away, or brought back."""

    act: Literal["put away"] = "put away"
    row: RowId
    on: bool


class Differ(Frozen):
    """A field of a part that differs in one row by hand, or follows the piece again; in one placement (its slug) alone
    where that is given.
    """

    act: Literal["differ"] = "differ"
    row: RowId
    placement: Annotated[str, Field(max_length=MOST_SLUG)] = ""
    part: PartId
    field: Annotated[str, Field(min_length=1, max_length=40)]
    now: Differing = Differing()
    had: Differing | None = None


AnyRowChange = SetCell | AddRow | RemoveRow | MoveRow | PutAway | Differ
RowChange = Annotated[AnyRowChange, Field(discriminator="act")]


class RowClash(NamedTuple):
    """A change that found something else than it expected: what somebody else put there meanwhile."""

    change: AnyRowChange
    newest: Any


class Applied(NamedTuple):
    """What takes changes back, the last one first; and the changes that were not made."""

    inverse: list[AnyRowChange]
    clashes: list[RowClash]


def apply_row_changes(rows: Rows, changes: Iterable[AnyRowChange]) -> Applied:
    """Makes changes in place, except those that clash. Raises DocumentError for rows that are not there."""
    inverse: list[AnyRowChange] = []
    clashes: list[RowClash] = []
    for change in changes:
        newest = _clash(rows, change)
        if newest is not None:
            clashes.append(RowClash(change, newest.value))
        else:
            inverse.append(_made(rows, change))
    return Applied(inverse[::-1], clashes)


class _Newest(NamedTuple):
    value: Any


def _clash(rows: Rows, change: AnyRowChange) -> _Newest | None:
    """What is there, where a change expected something else and wants something else; None where it may be made."""
    if isinstance(change, SetCell):
        now = rows[change.row].cells.get(change.field, "")
        return _Newest(now) if change.had is not None and now not in (change.had, change.text) else None
    if isinstance(change, RemoveRow):
        entry = rows[change.row]
        return _Newest(entry) if change.had is not None and entry != change.had else None
    if isinstance(change, Differ):
        there = differing(rows[change.row], change.part, change.field, change.placement)
        return _Newest(there) if change.had is not None and there not in (change.had, change.now) else None
    return None


def _made(rows: Rows, change: AnyRowChange) -> AnyRowChange:
    """Makes a change, and gives the one that takes it back."""
    if isinstance(change, AddRow):
        rows.add(change.entry, change.before)
        return RemoveRow(row=change.entry.id, had=change.entry)
    if isinstance(change, RemoveRow):
        below = rows.next_after(change.row)
        return AddRow(entry=rows.remove(change.row), before=below)
    if isinstance(change, MoveRow):
        below = rows.next_after(change.row)
        rows.move(change.row, change.before)
        return MoveRow(row=change.row, before=below)
    entry = rows[change.row]
    if isinstance(change, PutAway):
        rows.replace(entry.model_copy(update={"put_away": change.on}))
        return PutAway(row=change.row, on=entry.put_away)
    if isinstance(change, SetCell):
        had = entry.cells.get(change.field, "")
        rows.replace(entry.model_copy(update={"cells": without_empty({**entry.cells, change.field: change.text})}))
        return change.model_copy(update={"text": had, "had": change.text})
    before = differing(entry, change.part, change.field, change.placement)
    rows.replace(_differing_so(entry, change))
    return change.model_copy(update={"now": before, "had": change.now})


def differing(entry: Entry, part: str, field: str, placement: str = "") -> Differing:
    """What a row has by hand in a field of a part, everywhere or in one placement alone."""
    fields = _layer(entry, placement).get(part, {})
    return Differing(given=True, value=fields[field]) if field in fields else Differing()


def _layer(entry: Entry, placement: str) -> Differences:
    return entry.adjustments.get(placement, {}) if placement else entry.differences


def _differing_so(entry: Entry, change: Differ) -> Entry:
    layer = _layer(entry, change.placement)
    fields = {name: value for name, value in layer.get(change.part, {}).items() if name != change.field}
    if change.now.given:
        fields[change.field] = change.now.value
    layer = {part: own for part, own in layer.items() if part != change.part}
    if fields:
        layer[change.part] = fields
    if not change.placement:
        return entry.model_copy(update={"differences": layer})
    others = {name: own for name, own in entry.adjustments.items() if name != change.placement}
    return entry.model_copy(update={"adjustments": {**others, change.placement: layer} if layer else others})


def pasted_changes(
    rows: Rows, order: Sequence[str], fields: Sequence[str], cells: Sequence[Sequence[str]], new_ids: Iterable[str]
) -> list[AnyRowChange]:
    """What pasting cells does: they fill rows (`order`, from the first on) and fields from the first on, and rows that
    there are none of yet are added at the end. Cells beyond the last field are left out.
    """
    ids = iter(new_ids)
    changes: list[AnyRowChange] = []
    for number, line in enumerate(cells):
        own = dict(zip(fields, line, strict=False))
        if number < len(order):
            there = rows[order[number]].cells
            changes += [
                SetCell(row=order[number], field=field, text=text, had=there.get(field, ""))
                for field, text in own.items()
                if there.get(field, "") != text
            ]
        elif without_empty(own):
            changes.append(AddRow(entry=Entry(id=next(ids), cells=without_empty(own))))
    return changes
