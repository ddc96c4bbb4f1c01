"""Which rows of a run nobody tells apart where they are listed beside each other."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Source
from fitzle.core.colour.contrast import WHITE
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.eye.twins import DIFFERS, MOST_DIFFERENT, cells_of
from fitzle.core.plan.placed import Plan
from fitzle.core.preflight.viewing import smallest_viewing
from fitzle.core.render.painting import paint
from fitzle.core.spec.sheet import SpecSheet

Cells = NDArray[np.uint8]  # (h, w, 3): OKLab, lightness over 1, the others over -0.5 to 0.5
LISTED_PX = 160  # wide, where the sheet does not say how large it is seen
MOST_LISTED_PX = 240  # where it is seen larger nobody compares it in a list
PAINTED = 2  # times the size seen
MOST_TWINS = 200
ALIKE_FROM = 3
_FIRST = 4  # times the cells that may differ are compared first


def cells_in_list(plan: Plan, sources: Mapping[str, Source], sheet: SpecSheet) -> Cells:
    """A picture as it is told from others in a list; `sources` are by the ids in the plan."""
    viewing = smallest_viewing(sheet)
    seen = min(viewing.width if viewing else LISTED_PX, MOST_LISTED_PX)
    pixels = paint(plan, sources, min(plan.size.width, round(PAINTED * seen)))
    ground = parse_hex(sheet.grounds[0] if sheet.grounds else WHITE)
    lab = cells_of(pixels, ground, seen * max(pixels.shape[:2]) / pixels.shape[1])
    return np.asarray(np.rint(np.clip(lab + np.array([0, 0.5, 0.5]), 0, 1) * 255), dtype=np.uint8)


def are_alike(cells: Mapping[str, Cells]) -> bool:
    """Whether at least three rows all look like the first of them: what differs in a run is not seen there."""
    if len(cells) < ALIKE_FROM or len({one.shape for one in cells.values()}) > 1:
        return False
    first, *others = cells.values()
    flat = np.stack([one.reshape(-1, 3) for one in others]).astype(np.int16)
    most = int(MOST_DIFFERENT * flat.shape[1])
    return bool((_differing(flat, first.reshape(-1, 3).astype(np.int16)) <= most).all())


def twins_in(cells: Mapping[str, Cells]) -> list[tuple[str, str]]:
    """Pairs of rows of which hardly anything differs, in the order of the rows; MOST_TWINS at most."""
    found: list[tuple[str, str]] = []
    shapes = {one.shape for one in cells.values()}
    for shape in sorted(shapes):
        names = [name for name, one in cells.items() if one.shape == shape]
        flat = np.stack([cells[name].reshape(-1, 3) for name in names]).astype(np.int16)
        found += [(names[one], names[other]) for one, other in _pairs(flat)]
    return found[:MOST_TWINS]


def _pairs(flat: NDArray[np.int16]) -> list[tuple[int, int]]:
    """Rows (n, cells, 3) that are twins. Some cells are compared first: where more of those differ than may differ in
    all, the others need no look.
    """
    count = flat.shape[1]
    most = int(MOST_DIFFERENT * count)
    first = np.linspace(0, count - 1, min(count, max(16, _FIRST * (most + 1)))).astype(int)
    some = np.ascontiguousarray(flat[:, first])
    pairs: list[tuple[int, int]] = []
    for one in range(len(flat) - 1):
        near = one + 1 + np.flatnonzero(_differing(some[one + 1 :], some[one]) <= most)
        same = near[_differing(flat[near], flat[one]) <= most]
        pairs += [(one, int(other)) for other in same]
        if len(pairs) >= MOST_TWINS:
            break
    return pairs


def _differing(rows: NDArray[np.int16], one: NDArray[np.int16]) -> NDArray[np.intp]:
    """In how many cells rows differ from one."""
    away = rows.astype(np.int32) - one
    return np.asarray(((away * away).sum(axis=-1) > (DIFFERS * 255) ** 2).sum(axis=-1))
