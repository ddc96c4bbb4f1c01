"""A take that is proposed."""

from __future__ import annotations

from typing import NamedTuple

from fitzle.core.piece.scoping import FieldValue


class Proposal(NamedTuple):
    """A take: what it is called by, a line that explains it, and the values that make it (`here`: there alone)."""

    id: str
    words: str
    values: tuple[FieldValue, ...]
    here: bool = False
