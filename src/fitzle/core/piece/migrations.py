"""Pieces of older versions brought up to the present one, a version at a time."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import Any

Document = dict[str, Any]
# From a version to the next: plain data in, plain data out. Version 1 is the first, so there is nothing to do yet.
MIGRATIONS: dict[int, Callable[[Document], Document]] = {}


def brought_up_to_date(
    data: Document, stated: int, wanted: int, steps: Mapping[int, Callable[[Document], Document]] | None = None
) -> Document:
    """The document in the wanted version; a version without a step is left as it is, for validation to refuse."""
    known = MIGRATIONS if steps is None else steps
    for version in range(stated, wanted):
        if version in known:
            data = {**known[version](data), "fitzle_piece": version + 1}
    return data
