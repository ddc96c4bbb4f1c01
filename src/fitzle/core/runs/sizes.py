"""Words of different lengths in one run: the size that each row's come to, and the one that all can have."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.fit.deciding import plan_resolved
from fitzle.core.fit.request import FitRequest
from fitzle.core.fit.resolving import resolve
from fitzle.core.plan.placed import Plan

ROUNDED = 4  # digits of a size; always downwards, so that it still fits


class CommonSize(NamedTuple):
    """The largest em (parts of the short side) that the words of every row fit at, and the row that sets it."""

    size: float
    row: str


def sizes_in(requests: Mapping[str, FitRequest], part: str) -> dict[str, float]:
    """The em of a part's words, in parts of the short side, for each row by its id; rows without them are left out."""
    found: dict[str, float] = {}
    for row, request in requests.items():
        sizes = sizes_of(plan_resolved(resolve(request)).plan)
        if part in sizes:
            found[row] = sizes[part]
    return found


def sizes_of(plan: Plan) -> dict[str, float]:
    """The em of all words in a plan that show, by part, in parts of the short side."""
    shown = [words for words in plan.words if words.layout.glyphs]
    return {words.part: words.layout.size_px / plan.size.short_side for words in shown}


def common_size(sizes: Mapping[str, float]) -> CommonSize | None:
    """What all rows can have; None without any."""
    if not sizes:
        return None
    row = min(sizes, key=lambda name: sizes[name])
    return CommonSize(int(sizes[row] * 10**ROUNDED) / 10**ROUNDED, row)
