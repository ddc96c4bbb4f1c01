"""What a check says of a sheet."""

from __future__ import annotations

from typing import Any, NamedTuple


class WayOut(NamedTuple):
    """Something that would resolve a contradiction: its words, and the keys of the sheet with their new values."""

    label: str
    change: dict[str, Any]


class Contradiction(NamedTuple):
    """Demands that cannot hold together, or one that no file can meet.

    `keys` are the keys of the sheet that it is about, the one at which it is said first.
    """

    keys: tuple[str, ...]
    message: str
    ways_out: tuple[WayOut, ...] = ()
