"""Values that change as key frames: as few as say them within a tolerance, with straight ways between them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

STRAIGHT = {"i": {"x": [1], "y": [1]}, "o": {"x": [0], "y": [0]}}
DIGITS = 3


def keyed(values: Sequence[Sequence[float]], first: int, tolerance: float) -> dict[str, Any]:
    """A property of so many values for each frame from `first` on; still where it does not change."""
    table = np.asarray(values, dtype=np.float64)
    if np.ptp(table, axis=0).max(initial=0.0) <= tolerance:
        return {"a": 0, "k": _plain(table[0])}
    kept = sorted({0, len(table) - 1, *_needed(table, tolerance)})
    return {"a": 1, "k": [{"t": first + at, "s": _listed(table[at]), **_way(at != kept[-1])} for at in kept]}


def jumping(values: Sequence[Any], first: int) -> dict[str, Any]:
    """A property whose values are each held until the next one."""
    kept = [0, *(at for at in range(1, len(values)) if values[at] != values[at - 1])]
    if len(kept) == 1:
        return {"a": 0, "k": values[0]}
    return {"a": 1, "k": [{"t": first + at, "s": [values[at]], "h": 1} for at in kept]}


def _way(on: bool) -> dict[str, Any]:
    return STRAIGHT if on else {}


def _needed(table: NDArray[np.float64], tolerance: float) -> list[int]:
    """Which values straight lines must go through (Ramer 1972, Douglas and Peucker 1973)."""
    found: list[int] = []
    waiting = [(0, len(table) - 1)]
    while waiting:
        begin, end = waiting.pop()
        if end - begin < 2:
            continue
        shares = np.linspace(0, 1, end - begin + 1)[1:-1, None]
        straight = table[begin] + shares * (table[end] - table[begin])
        off = np.abs(table[begin + 1 : end] - straight).max(axis=1)
        worst = int(np.argmax(off))
        if off[worst] > tolerance:
            at = begin + 1 + worst
            found.append(at)
            waiting += [(begin, at), (at, end)]
    return found


def _listed(row: NDArray[np.float64]) -> list[float]:
    return [round(float(one), DIGITS) for one in row]


def _plain(row: NDArray[np.float64]) -> Any:
    values = _listed(row)
    return values[0] if len(values) == 1 else values
