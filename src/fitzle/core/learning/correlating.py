"""Where a picture may stand, by correlation of colours over all scales: finds what is too small for features.

Each scale is worked at the reduction at which the template's short side is about SIDE px.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

import cv2
import numpy as np

from fitzle.core.learning.placement import Candidate, Pixels, Placement, Planes, Region
from fitzle.core.learning.pyramid import Pyramid

MOST_SCALE, STEP = 3.1, 1.07
SIDE, WIDEST_PX, MOST_PX = 24, 1000, 2_500_000
LEAST_SIDE, LEAST_PART_SIDE, LEAST_WORKED = 14, 20, 11
LEAST_SCORE, FLAT = 0.42, 4.0
PEAKS, OF_AN_OCTAVE, MOST_PLACES = 3, 3, 20
LESS_FOR_PARTS = 0.97


def by_correlation(pyramid: Pyramid, shot: Pixels, *, thorough: bool = True) -> list[Candidate]:
    """Candidates, the best first: three of each octave at the most, none twice.

    Where the picture was found already, only the whole of it and its middle are looked for, for a second place.
    """
    regions = _templates(pyramid)[: None if thorough else 2]
    found = sorted(_peaks(pyramid, shot, regions), key=lambda one: -one.score * _worth(one, pyramid))
    kept: list[Candidate] = []
    octaves: dict[int, int] = {}
    for one in found:
        octave = round(math.log2(one.placement.scale) / 0.7)
        if one.score > 1.001 or octaves.get(octave, 0) >= OF_AN_OCTAVE or _is_known(one, kept):
            continue
        kept.append(one)
        octaves[octave] = octaves.get(octave, 0) + 1
        if len(kept) >= MOST_PLACES:
            break
    return kept


def _worth(one: Candidate, pyramid: Pyramid) -> float:
    whole = one.region == Region(0, 0, pyramid.width, pyramid.height)
    return 1.0 if whole else LESS_FOR_PARTS


def _is_known(one: Candidate, kept: list[Candidate]) -> bool:
    x, y = _middle(one)
    for other in kept:
        there = _middle(other)
        near = 0.3 * one.placement.scale * other.region.short
        alike = abs(math.log(one.placement.scale / other.placement.scale)) <= 0.25
        if alike and max(abs(x - there[0]), abs(y - there[1])) <= near:
            return True
    return False


def _middle(one: Candidate) -> tuple[float, float]:
    seen = one.region.placed(one.placement)
    return (seen.left + seen.right) / 2, (seen.top + seen.bottom) / 2


def _peaks(pyramid: Pyramid, shot: Pixels, regions: list[Region]) -> Iterator[Candidate]:
    cap = min(1.0, WIDEST_PX / shot.shape[1], math.sqrt(MOST_PX / (shot.shape[0] * shot.shape[1])))
    reduced: dict[float, Planes] = {}
    for region in regions:
        scale = pyramid.least_scale
        while scale < MOST_SCALE:
            reduction = _reduction(region, scale, cap, shot, pyramid)
            if reduction:
                if reduction not in reduced:
                    reduced[reduction] = _reduced(shot, reduction)
                yield from _peaks_at(pyramid, reduced[reduction], region, scale, reduction)
            scale *= STEP


def _templates(pyramid: Pyramid) -> list[Region]:
    """The whole picture, its middle square, its middle, bands across and down, and the ends of a long one."""
    width, height = float(pyramid.width), float(pyramid.height)
    short = min(width, height)
    found = [
        Region(0, 0, width, height),
        Region((width - short) / 2, (height - short) / 2, (width + short) / 2, (height + short) / 2),
        Region(0.2 * width, 0.2 * height, 0.8 * width, 0.8 * height),
        Region(0, 0.25 * height, width, 0.75 * height),
        Region(0.25 * width, 0, 0.75 * width, height),
    ]
    if pyramid.long > 1.3 * short:
        found += [Region(0, 0, short, short), Region(width - short, height - short, width, height)]
    return list(dict.fromkeys(found))


def _reduction(region: Region, scale: float, cap: float, shot: Pixels, pyramid: Pyramid) -> float | None:
    """By how much the screenshot is reduced for a template of this scale; None where it is too small or too large."""
    width, height = scale * region.width, scale * region.height
    short = min(width, height)
    is_part = region != Region(0, 0, pyramid.width, pyramid.height)
    if short * cap < LEAST_WORKED or short < LEAST_SIDE or (is_part and short * cap < LEAST_PART_SIDE):
        return None
    if width > shot.shape[1] + 2 or height > shot.shape[0] + 2:
        return None
    return float(min(cap, 2.0 ** (round(math.log2(min(1.0, SIDE / short)) * 4) / 4)))


def _reduced(shot: Pixels, reduction: float) -> Planes:
    if reduction >= 1:
        return shot.astype(np.float32)
    small = cv2.resize(shot, None, fx=reduction, fy=reduction, interpolation=cv2.INTER_AREA)
    return np.asarray(small, dtype=np.float32)


def _peaks_at(pyramid: Pyramid, shot: Planes, region: Region, scale: float, reduction: float) -> Iterator[Candidate]:
    drawn = pyramid.at(scale * reduction)
    across, down = drawn.shape[1] / pyramid.width, drawn.shape[0] / pyramid.height
    left, top = round(region.left * across), round(region.top * down)
    template = drawn[
        top : max(top + 4, round(region.bottom * down)), left : max(left + 4, round(region.right * across))
    ]
    if template.shape[0] > shot.shape[0] or template.shape[1] > shot.shape[1] or template.std() <= FLAT:
        return
    alike = cv2.matchTemplate(shot, np.ascontiguousarray(template), cv2.TM_CCOEFF_NORMED)
    alike[~np.isfinite(alike)] = -1
    around = max(3, min(template.shape[:2]) // 3)
    for _ in range(PEAKS):
        _, score, _, (x, y) = cv2.minMaxLoc(alike)
        if score < LEAST_SCORE:
            return
        at = Placement(scale, x / reduction - scale * left / across, y / reduction - scale * top / down)
        yield Candidate(at, region, "correlation", float(score))
        alike[max(0, y - around) : y + around, max(0, x - around) : x + around] = -1
