"""Words of different lengths in one run: the size that each row's come to, and the one that all can have."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.fit.deciding import plan_resolved
from fitzle.core.fit.request import FitRequest
from fitzle.core.fit.resolving import resolve

ROUNDED = 4  # digits of a size; always downwards, so that it still fits


class CommonSize(NamedTuple):
    """The largest em (parts of the short side) that the words of every row fit at, and the row that sets it."""

    size: float
    row: str


def sizes_in(requests: Mapping[str, FitRequest], part: str) -> dict[str, float]:
    """The em of a part's words, in parts of the short side, for each row by its id; rows without them are left out."""
    found: dict[str, float] = {}
    for row, request in requests.items():
        plan = plan_resolved(resolve(request)).plan
        own = next((words for words in plan.words if words.part == part), None)
        if own and own.layout.glyphs:
            found[row] = own.layout.size_px / plan.size.short_side
    return found


def common_size(sizes: Mapping[str, float]) -> CommonSize | None:
    """What all rows can have; None without any."""
    if not sizes:
        return None
    row = min(sizes, key=lambda name: sizes[name])
    return CommonSize(int(sizes[row] * 10**ROUNDED) / 10**ROUNDED, row)
