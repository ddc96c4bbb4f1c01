"""What somebody changes by hand in one row, at the bench: its cells, and what differs in it alone."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from fitzle.apps.pieces.opening import OpenFit
from fitzle.core.piece.document import FieldTarget
from fitzle.core.piece.parts import WHERE_IT_STANDS
from fitzle.core.piece.scoping import FieldValue
from fitzle.core.runs.changes import AnyRowChange, Differ, Differing, SetCell
from fitzle.core.runs.document import Entry

IN_CELLS = {"words", "picture", "mark"}


def edits_of_row(
    opened: OpenFit, values: Sequence[FieldValue], take_back: Iterable[str], *, everywhere: bool
) -> list[AnyRowChange]:
    """The changes of the rows that give a row's parts these values, in all its places or in this one.

    What a cell says is changed in the cell; anything else differs by hand.
    """
    assert opened.of_row
    entry = opened.of_row.entry
    cells = _cells(opened)
    changes: list[AnyRowChange] = []
    for value in values:
        name = cells.get((value.part, value.field))
        if name is not None:
            changes.append(SetCell(row=entry.id, field=name, text=str(value.value or "")))
            continue
        here = not everywhere or (opened.is_arranged and value.field in WHERE_IT_STANDS)
        place = opened.slug if here else ""
        if not here and value.field in entry.adjustments.get(opened.slug, {}).get(value.part, {}):
            changes.append(_back(entry, value.part, value.field, opened.slug))
        now = Differing(given=True, value=value.value)
        changes.append(Differ(row=entry.id, placement=place, part=value.part, field=value.field, now=now))
    for told in take_back:
        part, _, field = told.partition(".")
        here = field in entry.adjustments.get(opened.slug, {}).get(part, {})
        changes.append(_back(entry, part, field, opened.slug if here else ""))
    return changes


def differing_in_row(entry: Entry, slug: str) -> list[str]:
    """What a row has otherwise by hand in a place, as `part.field`, in order."""
    layers = (entry.differences, entry.adjustments.get(slug, {}))
    return sorted({f"{part}.{field}" for layer in layers for part, fields in layer.items() for field in fields})


def _cells(opened: OpenFit) -> dict[tuple[str, str], str]:
    """The fields whose values stand in cells as they are, by part and field."""
    from fitzle.core.runs.fields import columns_of

    return {
        _key(column.target): name for name, column in columns_of(opened.document).items() if column.kind in IN_CELLS
    }


def _key(target: FieldTarget) -> tuple[str, str]:
    return target.part, target.field


def _back(entry: Entry, part: str, field: str, placement: str) -> Differ:
    return Differ(row=entry.id, placement=placement, part=part, field=field)
