"""What the place draws over the picture, as few boxes as explain it."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.learning.placement import Region

MOST_PIECES, MOST_ZONES = 150, 8
LEAST_SIDE, LEAST_HITS = 4, 20
SOLID = 0.7  # of a box: a disc fills 0.785 of its own
JOINED_AREA, WORD_GAP, LINE_OVERLAP, ALIKE_HIGH = 1.15, 0.7, 0.4, 0.5

Hits = NDArray[np.uint8]


class _Zone(NamedTuple):
    region: Region
    hits: int


def covered_zones(hits: Hits, short: float, area: int) -> list[Region]:
    """Boxes around the px that are not as expected; `short` is the short side of what is seen, `area` its px."""
    pieces = _pieces(hits, short, area)
    joined = _joined(pieces, short)
    kept = [zone for zone in joined if zone.hits > max(LEAST_HITS, 0.0008 * area) and zone.region.short >= LEAST_SIDE]
    return [zone.region for zone in sorted(kept, key=lambda zone: -zone.hits)[:MOST_ZONES]]


def _pieces(hits: Hits, short: float, area: int) -> list[_Zone]:
    gap = max(3, int(short * 0.015)) | 1
    closed = cv2.morphologyEx(without_specks(hits), cv2.MORPH_CLOSE, np.ones((gap, gap), np.uint8))
    _, _, stats, _ = cv2.connectedComponentsWithStats(closed)
    found = []
    for left, top, width, height, count in stats[1:]:
        if count >= max(12, 0.00025 * area):
            inside = int(hits[top : top + height, left : left + width].sum())
            region = Region(float(left), float(top), float(left + width), float(top + height))
            found.append(_Zone(region, inside))
    return sorted(found, key=lambda zone: -zone.hits)[:MOST_PIECES]


def without_solid(hits: Hits, zones: list[Region]) -> Hits:
    """What is not as expected, without zones that are filled: a badge hides what is under it and replaces no words."""
    left = hits.copy()
    for zone in zones:
        part = np.s_[int(zone.top) : int(zone.bottom), int(zone.left) : int(zone.right)]
        if hits[part].size and float(hits[part].mean()) > SOLID:
            left[part] = 0
    return left


def without_specks(hits: Hits) -> Hits:
    """What is at least 2 px wide and high. OpenCV's own opening moves it by a px where a kernel has no middle."""
    kernel = np.ones((2, 2), np.uint8)
    return np.asarray(cv2.dilate(cv2.erode(hits, kernel, anchor=(1, 1)), kernel, anchor=(0, 0)), dtype=np.uint8)


def _joined(zones: list[_Zone], short: float) -> list[_Zone]:
    zones = list(zones)
    pair = _pair(zones, short)
    while pair:
        one, other = pair
        zones[one] = _Zone(_around(zones[one].region, zones[other].region), zones[one].hits + zones[other].hits)
        del zones[other]
        pair = _pair(zones, short)
    return zones


def _pair(zones: list[_Zone], short: float) -> tuple[int, int] | None:
    for one in range(len(zones)):
        for other in range(one + 1, len(zones)):
            if _belong_together(zones[one].region, zones[other].region, short):
                return one, other
    return None


def _belong_together(one: Region, other: Region, short: float) -> bool:
    """Whether two boxes are one thing: they meet, the joined box is well filled, or they are words of one line."""
    across, down = max(one.left, other.left) - min(one.right, other.right), _gap_down(one, other)
    if max(across, down) < 0.012 * short + 2:
        return True
    around = _around(one, other)
    if around.width * around.height <= JOINED_AREA * (one.width * one.height + other.width * other.height):
        return True
    tall = max(one.height, other.height)
    low = min(one.height, other.height)
    in_line = -down > LINE_OVERLAP * low and low > ALIKE_HIGH * tall
    return in_line and across < WORD_GAP * tall and tall < 0.35 * short


def _gap_down(one: Region, other: Region) -> float:
    return max(one.top, other.top) - min(one.bottom, other.bottom)


def _around(one: Region, other: Region) -> Region:
    return Region(
        min(one.left, other.left),
        min(one.top, other.top),
        max(one.right, other.right),
        max(one.bottom, other.bottom),
    )
