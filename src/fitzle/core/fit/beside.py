"""A piece from a file with the artwork that lies beside it: what it shows in a place. Loads nothing that draws."""

from __future__ import annotations

from typing import Any

from fitzle.core.documents import validated
from fitzle.core.piece.document import Piece, Row, artworks_in
from fitzle.core.spec.sheet import SpecSheet


def placement_in(piece: Piece, sheet: SpecSheet) -> str:
    """What a piece keeps its adjustments for a place under.

    Pieces that were kept before placements had slugs name them by what the sheet is called.
    """
    return sheet.placement if sheet.placement in piece.adjustments else sheet.name


def artwork_beside(piece: Piece, sheet: SpecSheet, take: str = "", row: Row | None = None) -> list[str]:
    """The names of all artwork that the piece may show there, other versions of its marks included."""
    shown = artworks_in(piece, placement_in(piece, sheet), take, row)
    return sorted(shown | {other for name in shown for other in piece.versions.get(name, ())})


def row_of(values: dict[str, Any], name: str) -> Row:
    """A row of values for the fields of a piece; raises DocumentError for what is none."""
    return validated(Row, {"id": name[:40] or "row", **values}, subject=name, noun="row")
