"""The fields of a piece as columns of a table: what a cell may hold, and what it makes of a part."""

from __future__ import annotations

import re
from collections.abc import Mapping
from typing import Any, Literal, NamedTuple

from fitzle.core.colour.srgb import normal_hex
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.piece.document import FieldTarget, Piece, RowCounter
from fitzle.core.piece.parts import ArtworkPart, WordsPart, adjustable
from fitzle.core.runs.table import Table, shortened
from fitzle.core.spec.stems import free_name

Kind = Literal["words", "picture", "mark", "colour", "shown", "number"]
FILL = "fill"  # a cell gives it one colour
COLOURS = frozenset({"colour", "tint", FILL})
OFFERED = ("text", "artwork", "colour", FILL, "hidden")
YES = frozenset({"yes", "y", "true", "1", "x", "shown", "on"})
NO = frozenset({"no", "n", "false", "0", "hidden", "off"})
AUTO = "auto"
_NUMBER = re.compile(r"[+-]?\d+(?:[.,]\d+)?")
_NOT_IN_NAMES = re.compile(r"[^a-z0-9]+")


class Column(NamedTuple):
    """One field: its name, where it goes, and what kind of cell it has."""

    name: str
    target: FieldTarget
    kind: Kind


class Matched(NamedTuple):
    """Which column of a table (counted from 0) belongs to which field, and the headings that belong to none."""

    columns: dict[str, int]
    left_over: list[str]


def columns_of(piece: Piece) -> dict[str, Column]:
    """The columns of a piece's fields by name, in their order."""
    roles = {part.id: part for part in piece.parts}
    return {
        name: Column(name, target, _kind_of(roles[target.part], target.field)) for name, target in piece.fields.items()
    }


def _kind_of(part: Any, field: str) -> Kind:
    if field == "hidden":
        return "shown"
    if field == "artwork" and isinstance(part, ArtworkPart):
        return part.role
    if field in COLOURS:
        return "colour"
    if field == "text" and isinstance(part, WordsPart):
        return "words"
    return "number"


def matched(piece: Piece, table: Table) -> Matched:
    """Headings matched with fields by what they are called, whatever their case, spaces and accents."""
    known = {_folded(heading): number for number, heading in enumerate(table.headings) if heading}
    found = {name: known[_folded(name)] for name in piece.fields if _folded(name) in known}
    taken = set(found.values())
    return Matched(found, [heading for number, heading in enumerate(table.headings) if heading and number not in taken])


def _folded(name: str) -> str:
    return _NOT_IN_NAMES.sub("", name.casefold())


def value_of_cell(column: Column, cell: str, number: int, artworks: Mapping[str, str]) -> Any:
    """What a cell makes of its part's field; None where an empty cell leaves it as the piece has it.

    `number` counts rows from 0; `artworks` are ids by the names that cells call them. Raises ValueOutOfRange for what
    the field cannot take.
    """
    cell = cell.strip()
    if not cell:
        counter = column.target.counter
        return counted(counter, number) if counter else None
    if column.kind == "words":
        return cell
    if column.kind in ("picture", "mark"):
        return _artwork(cell, artworks)
    if column.kind == "colour":
        return _coloured(column, cell)
    if column.kind == "shown":
        return not _shown(cell)
    return _number(cell)


def counted(counter: RowCounter, number: int) -> str:
    """What a counter says in a row, counted from 0."""
    return f"{counter.before}{counter.start + number * counter.step:0{counter.digits}d}{counter.after}"


def _artwork(cell: str, artworks: Mapping[str, str]) -> str:
    found = artworks.get(cell) or artworks.get(cell.casefold())
    if found is None:
        raise ValueOutOfRange(f"there is no picture {shortened(cell)!r}", advice="Bring it in, or correct its name.")
    return found


def _coloured(column: Column, cell: str) -> Any:
    if column.target.field == FILL:
        return {"kind": "solid", "colour": _colour(cell)}
    return AUTO if cell.casefold() == AUTO else _colour(cell)


def _colour(cell: str) -> str:
    try:
        return normal_hex(cell if cell.startswith("#") else f"#{cell}")
    except ValueError as error:
        raise ValueOutOfRange(f"{shortened(cell)!r} is no colour", advice="Write #17443c, for one, or auto.") from error


def _shown(cell: str) -> bool:
    word = cell.casefold()
    if word in YES or word in NO:
        return word in YES
    raise ValueOutOfRange(f"{shortened(cell)!r} does not say whether it shows", advice="Write yes or no.")


def _number(cell: str) -> float:
    if not _NUMBER.fullmatch(cell):
        raise ValueOutOfRange(f"{shortened(cell)!r} is no number", advice="Write 1.5, for one, or 1,5.")
    return float(cell.replace(",", "."))


def possible_fields(piece: Piece) -> dict[str, Column]:
    """Everything that rows may change, by a name that is free: of each part what it says or shows, its colour, and
    whether it shows. What is a field already has the name that it has.
    """
    had = {(target.part, target.field): name for name, target in piece.fields.items()}
    found: dict[str, Column] = {}
    for part in piece.parts:
        for field in OFFERED:
            if field not in adjustable(part) or (field == "hidden" and part.role == "ground"):
                continue
            own = _role_name(part) if field in ("text", "artwork") else f"{_role_name(part)}_{field}"
            name = had.get((part.id, field)) or free_name(own, {*piece.fields, *found}, "_")
            target = piece.fields.get(name) or FieldTarget(part=part.id, field=field)
            found[name] = Column(name, target, _kind_of(part, field))
    return found


def _role_name(part: Any) -> str:
    return str(part.role).replace(" ", "_")


def proposed_fields(piece: Piece) -> dict[str, FieldTarget]:
    """What rows of a series most likely change: all words that show and all pictures that are not behind everything.

    They are called by their roles. Fields that the piece has already are left out.
    """
    had = {(target.part, target.field) for target in piece.fields.values()}
    found: dict[str, FieldTarget] = {}
    for part in piece.parts:
        field = "text" if isinstance(part, WordsPart) else "artwork" if _changes_in_a_series(part) else None
        if field and not part.hidden and (part.id, field) not in had:
            name = free_name(_role_name(part), {*piece.fields, *found}, "_")
            found[name] = FieldTarget(part=part.id, field=field)
    return found


def _changes_in_a_series(part: Any) -> bool:
    return isinstance(part, ArtworkPart) and part.role == "picture" and part.stands != "fill"
