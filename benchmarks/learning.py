"""Pictures found in made screenshots: how often, how exactly, how fast."""

from __future__ import annotations

import sys
import time
from collections.abc import Iterable
from pathlib import Path
from statistics import median
from typing import Any, NamedTuple

import numpy as np
from tests.learning_cases import Box, Case, Truth, made_case

from fitzle.core.learning.finding import learn
from fitzle.core.learning.result import Learnt

CASES, WITHOUT = 84, 25


class Seen(NamedTuple):
    """What came of one place that is truly there; errors in px, None where it was not found."""

    name: str
    box: float | None
    scale: float = 1.0
    veil: float | None = None
    false_veil: bool = False
    cut: bool | None = None
    zones: tuple[float, ...] = ()
    extra: int = 0


def box_of(one: Learnt) -> Box:
    """Its edges."""
    return one.box.x, one.box.y, one.box.x + one.box.width, one.box.y + one.box.height


def shared(one: Box, other: Box) -> float:
    """Intersection over union."""
    across = max(0.0, min(one[2], other[2]) - max(one[0], other[0]))
    down = max(0.0, min(one[3], other[3]) - max(one[1], other[1]))
    area = (one[2] - one[0]) * (one[3] - one[1]) + (other[2] - other[0]) * (other[3] - other[1]) - across * down
    return across * down / max(area, 1e-9)


def compared(name: str, truth: Truth, found: Iterable[Learnt]) -> Seen:
    """What was learnt of one place against what is true of it."""
    best = max(found, key=lambda one: shared(box_of(one), truth.box), default=None)
    if best is None or shared(box_of(best), truth.box) < 0.5:
        return Seen(name, None, truth.scale)
    error = float(np.abs(np.subtract(box_of(best), truth.box)).max())
    opacity = best.veil.opacity if best.veil else 0.0
    zones = _zones(best)
    return Seen(
        name,
        error,
        truth.scale,
        abs(opacity - truth.veil[1]) if truth.veil else None,
        not truth.veil and opacity > 0,
        best.cut.shape == truth.cut,
        tuple(max((shared(zone, there) for there in zones), default=0.0) for zone in truth.zones),
        sum(max((shared(there, zone) for zone in truth.zones), default=0.0) < 0.2 for there in zones),
    )


def _zones(one: Learnt) -> list[Box]:
    return [(zone.x, zone.y, zone.x + zone.width, zone.y + zone.height) for zone in one.covered]


def measured(cases: Iterable[tuple[Case, bool]], *, loud: bool = False) -> dict[str, Any]:
    """All figures; each case with whether the picture is absent."""
    seen: list[Seen] = []
    false, seconds = [], []
    for case, absent in cases:
        begun = time.perf_counter()
        found = learn(case.picture, case.shot)
        seconds.append(time.perf_counter() - begun)
        if absent:
            false += [case.name] * len(found.found)
        own = [compared(case.name, truth, found.found) for truth in case.truths]
        seen += own
        false += (
            [case.name] * max(0, len(found.found) - len([one for one in own if one.box is not None]) - 0) * (not absent)
        )
        if loud:
            print(
                case.name,
                f"{seconds[-1]:.1f} s",
                case.shot.shape,
                *own,
                [f.ask for f in found.found] or len(found.relatives),
                flush=True,
            )
    return summary(seen, false, seconds)


def seconds_of(cases: Iterable[Case]) -> list[float]:
    """How long each takes."""
    taken = []
    for case in cases:
        begun = time.perf_counter()
        learn(case.picture, case.shot)
        taken.append(time.perf_counter() - begun)
    return taken


def summary(seen: list[Seen], false: list[str], seconds: list[float]) -> dict[str, Any]:
    """The figures that the issue asks for."""
    there = [one for one in seen if one.box is not None]
    veils = [one.veil for one in there if one.veil is not None]
    zones = [share for one in there for share in one.zones]
    within = [one.box <= (1 if one.scale <= 1 else 2) for one in there if one.box is not None]
    return {
        "found": f"{len(there)} of {len(seen)}",
        "missed": [one.name for one in seen if one.box is None],
        "false": false,
        "box within": f"{sum(within)} of {len(within)}",
        "box median": round(median([one.box or 0.0 for one in there]), 3),
        "box off": [
            (one.name, round(one.box or 0, 1)) for one in there if (one.box or 0) > (1 if one.scale <= 1 else 2)
        ],
        "veil within 0.03": f"{sum(error <= 0.03 for error in veils)} of {len(veils)}",
        "veil off": [
            (one.name, round(one.veil, 3)) for one in there if (one.veil or 0) > 0.03 and one.veil is not None
        ],
        "false veils": [one.name for one in there if one.false_veil],
        "cut right": f"{sum(bool(one.cut) for one in there)} of {len(there)}",
        "cut wrong": [one.name for one in there if not one.cut],
        "zones": f"{len(zones)}, median {median(zones or [0]):.2f}, 0.7 or more {sum(z >= 0.7 for z in zones)}",
        "zones off": [(one.name, round(z, 2)) for one in there for z in one.zones if z < 0.7],
        "zones too many": [(one.name, one.extra) for one in there if one.extra],
        "median seconds": round(median(seconds), 2),
        "seconds": f"median {median(seconds):.1f}, most {max(seconds):.1f}",
    }


def main() -> None:
    """`python -m benchmarks.learning [FIRST LAST [FOLDER OF PHOTOS]]`: these cases, one line each, then the figures."""
    first, last = (int(word) for word in sys.argv[1:3]) if len(sys.argv) > 2 else (0, CASES)
    photos = sorted(Path(sys.argv[3]).iterdir()) if len(sys.argv) > 3 else None
    cases = [(made_case(number, photos=photos), False) for number in range(first, last)]
    cases += [
        (made_case(n, absent=True, photos=photos), True)
        for n in range(first * WITHOUT // CASES, last * WITHOUT // CASES)
    ]
    for name, value in measured(cases, loud=True).items():
        print(f"{name:18} {value}")


if __name__ == "__main__":
    main()
