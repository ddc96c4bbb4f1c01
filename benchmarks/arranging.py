"""A piece in places of other shapes: how long the calculation takes for one, and for two dozen planned and judged."""

from __future__ import annotations

import statistics
import time
from collections.abc import Iterator
from typing import Any

SHAPES = (
    (1280, 720, 360), (1704, 433, 1100), (640, 640, 220), (1080, 1920, 360), (2000, 500, 900), (880, 220, 440),
    (1200, 300, 600), (600, 600, 160), (1500, 500, 750), (820, 312, 640), (1080, 1080, 320), (1200, 628, 500),
    (720, 1280, 360), (1000, 1500, 300), (970, 250, 970), (300, 600, 300), (728, 90, 728), (336, 280, 336),
    (1920, 1080, 640), (2560, 1440, 640), (1024, 512, 506), (1128, 191, 700), (512, 512, 128), (900, 1200, 400),
)  # fmt: skip


def pieces() -> list[Any]:
    """The made pieces that arranging is tested on."""
    from tests.core.arranging_set import composed

    return list(composed())


def _sheets() -> list[Any]:
    from tests.core.arranging_set import place

    return [place(f"place {number}", *shape) for number, shape in enumerate(SHAPES, 1)]


def each_ms() -> list[float]:
    """Every made piece arranged for every shape, in ms each; words are measured before, as they are in a workspace."""
    found = []
    for once in (False, True):
        for request in _requests():
            began = time.perf_counter()
            _arranged(request)
            if once:
                found.append((time.perf_counter() - began) * 1000)
    return sorted(found)


def _requests() -> Iterator[Any]:
    from tests.core.arranging_set import facts
    from tests.fits import request_for

    from fitzle.core.piece.document import Composed

    known, sheets = facts(), _sheets()
    for one in pieces():
        piece = one.piece.model_copy(update={"composed": Composed(width=one.size[0], height=one.size[1])})
        for sheet in sheets:
            yield request_for(piece, sheet, known)


def _arranged(request: Any) -> None:
    from fitzle.core.fit.arrangement import arrangement_of

    arrangement_of(request)


def two_dozen_s() -> float:
    """One piece in 24 places, of which nothing is known: arranged, planned, its colours decided, and judged."""
    from dataclasses import replace

    from tests.core.composed import artworks, read_artworks
    from tests.fits import request_for

    from fitzle.core.fit.deciding import decide, plan_fit
    from fitzle.core.fit.making import look_at
    from fitzle.core.piece.document import Composed, Piece
    from fitzle.core.preflight.registry import judged
    from fitzle.core.starting.house import House
    from fitzle.core.starting.points import starting_point

    facts, sources = artworks()
    house = House("Ottermoor", ("#17443c", "#f4d06f"), "Anton", "Work Sans", ("ding.svg",), ("photo",))
    sheets = _sheets()
    point = starting_point(sheets[0], house, facts, 0)
    assert point
    piece: Piece = point.piece.model_copy(update={"composed": Composed(width=1280, height=720)})
    known = read_artworks()
    began = time.perf_counter()
    for sheet in sheets:
        looked = decide(plan_fit(request_for(piece, sheet, known, house=house.colours)), sources)
        judged(replace(looked.evidence, eye=look_at(looked, sources)), "plan", "pixels", "seen")
    return time.perf_counter() - began


def middle_and_most(found: list[float]) -> tuple[float, float]:
    """Median and most of them."""
    return statistics.median(found), found[-1]
