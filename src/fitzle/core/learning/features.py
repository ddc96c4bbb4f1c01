"""Where a picture may stand, by features: SIFT (Lowe, IJCV 60, 2004) as RootSIFT (Arandjelović and Zisserman, 2012).

The screenshot asks and the picture answers, so that two placements of one picture are both found.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.learning.placement import Candidate, Pixels, Placement, Region
from fitzle.core.learning.pyramid import Pyramid, grey

WIDEST_PX, MOST_PX = 1700, 12_000_000  # at which the screenshot is looked at
PICTURE_SIDES = (900, 260)
MOST_IN_SHOT, MOST_IN_PICTURE, FAINTEST = 9000, 3000, 0.02
RATIO, SAME_SPOT, TURNED = 0.82, 0.02, 20.0  # Lowe's ratio; share of the picture; degrees
MOST_SCALE = 3.5
TRIES, LEAST_INLIERS, MOST_PLACES = 6000, 5, 16
NEIGHBOURS, AT_A_TIME = 6, 1500
GROWN = 0.08  # of the picture, around the features

Points = NDArray[np.float64]  # (n, 2), px
Floats = NDArray[np.float32]


class _Features(NamedTuple):
    points: NDArray[np.float64]  # (n, 3): x, y in px, angle in degrees
    looks: Floats  # (n, 128), unit length


def by_features(pyramid: Pyramid, shot: Pixels) -> list[Candidate]:
    """Candidates, the surest first."""
    asked, known = _of_screenshot(shot), _of_picture(pyramid)
    if asked is None or known is None:
        return []
    picture, there = _matched(asked, known, pyramid.long)
    found: list[Candidate] = []
    chance = np.random.default_rng(1)
    while len(picture) >= LEAST_INLIERS and len(found) < MOST_PLACES:
        agreed = _agreed(picture, there, pyramid, chance)
        if agreed is None:
            break
        candidate, left = agreed
        found.append(candidate._replace(region=_grown(candidate.region, pyramid)))
        picture, there = picture[left], there[left]
    return found


def _of_screenshot(shot: Pixels) -> _Features | None:
    scale = min(1.0, WIDEST_PX / shot.shape[1], math.sqrt(MOST_PX / (shot.shape[0] * shot.shape[1])))
    small = cv2.resize(shot, None, fx=scale, fy=scale, interpolation=cv2.INTER_AREA) if scale < 1 else shot
    return _features(small, scale, MOST_IN_SHOT)


def _of_picture(pyramid: Pyramid) -> _Features | None:
    found: list[_Features] = []
    for side in PICTURE_SIDES:
        scale = min(1.0, side / pyramid.long)
        drawn = pyramid.at(scale)
        features = _features(drawn.clip(0, 255).astype(np.uint8), drawn.shape[1] / pyramid.width, MOST_IN_PICTURE)
        if features:
            found.append(features)
        if scale == 1.0:
            break
    if not found:
        return None
    return _Features(np.concatenate([one.points for one in found]), np.concatenate([one.looks for one in found]))


def _features(rgb: Pixels, scale: float, most: int) -> _Features | None:
    detector = cv2.SIFT.create(most, contrastThreshold=FAINTEST)
    keys, looks = detector.detectAndCompute(grey(rgb).astype(np.uint8), None)
    if looks is None or len(keys) < 2:
        return None
    points = np.array([(key.pt[0] / scale, key.pt[1] / scale, key.angle) for key in keys])
    return _Features(points, np.sqrt(looks / (looks.sum(1, keepdims=True) + 1e-6)).astype(np.float32))


def _matched(asked: _Features, known: _Features, long: int) -> tuple[Points, Points]:
    """Pairs of points that look alike, in the picture and in the screenshot.

    A rival that lies at the same spot (found at the other size of the picture) is none.
    """
    nearest, distance = _nearest(asked.looks, known.looks)
    spots = known.points[nearest, :2]
    apart = np.hypot(*np.moveaxis(spots - spots[:, :1], -1, 0)) > SAME_SPOT * long
    rival = np.where(apart, distance, np.inf).min(1)
    turned = np.abs((asked.points[:, 2] - known.points[nearest[:, 0], 2] + 180) % 360 - 180) < TURNED
    good = (distance[:, 0] < RATIO * rival) & turned
    return known.points[nearest[good, 0], :2], asked.points[good, :2]


def _nearest(asked: Floats, known: Floats) -> tuple[NDArray[np.intp], Floats]:
    """The nearest looks of each, by their numbers, and how far they are, the nearest first."""
    count = min(NEIGHBOURS, len(known))
    numbers, distances = [], []
    for start in range(0, len(asked), AT_A_TIME):
        alike = asked[start : start + AT_A_TIME] @ known.T  # of unit length: the greater, the nearer
        best = np.argpartition(-alike, count - 1, axis=1)[:, :count]
        order = np.argsort(-np.take_along_axis(alike, best, 1), axis=1)
        best = np.take_along_axis(best, order, 1)
        numbers.append(best)
        distances.append(np.sqrt(np.maximum(0, 2 - 2 * np.take_along_axis(alike, best, 1))))
    return np.concatenate(numbers), np.concatenate(distances)


def _agreed(
    picture: Points, there: Points, pyramid: Pyramid, chance: np.random.Generator
) -> tuple[Candidate, NDArray[np.bool_]] | None:
    """The placement on which most pairs agree, and which pairs are left for the next one."""
    scale, offset = _guesses(picture, there, pyramid, chance)
    if not len(scale):
        return None
    votes = np.zeros(len(scale), dtype=int)
    for start in range(0, len(scale), 500):
        part = slice(start, start + 500)
        seen = scale[part, None, None] * picture + offset[part, None]
        votes[part] = (np.abs(seen - there).max(2) < 3).sum(1)
    best = int(votes.argmax())
    agree = np.abs(scale[best] * picture + offset[best] - there).max(1) < 4
    different = len(np.unique(picture[agree].round(-1), axis=0))
    if different < LEAST_INLIERS:
        return None
    at, low, high = _least_squares(picture[agree], there[agree])
    region = Region(*np.percentile(picture[agree], 2, 0), *np.percentile(picture[agree], 98, 0))
    left = ~((there > low).all(1) & (there < high).all(1))
    return Candidate(at, region, "features", different), np.asarray(left)


def _guesses(
    picture: Points, there: Points, pyramid: Pyramid, chance: np.random.Generator
) -> tuple[NDArray[np.float64], Points]:
    one, other = chance.integers(0, len(picture), (2, TRIES))
    apart, moved = picture[one] - picture[other], there[one] - there[other]
    length, moved_length = np.hypot(*apart.T), np.hypot(*moved.T)
    cross = apart[:, 0] * moved[:, 1] - apart[:, 1] * moved[:, 0]
    along = (apart * moved).sum(1)
    straight = (along > 0) & (np.abs(cross) < 0.05 * along)
    scale = moved_length / np.maximum(length, 1e-6)
    sized = (scale > pyramid.least_scale) & (scale < MOST_SCALE)
    usable = (length > 0.04 * pyramid.long) & (moved_length > 8) & straight & sized
    return scale[usable], there[one[usable]] - scale[usable, None] * picture[one[usable]]


def _least_squares(picture: Points, there: Points) -> tuple[Placement, Points, Points]:
    middle, middle_there = picture.mean(0), there.mean(0)
    apart = picture - middle
    scale = float((apart * (there - middle_there)).sum() / max(1e-6, float((apart**2).sum())))
    x, y = middle_there - scale * middle
    return Placement(scale, float(x), float(y)), there.min(0) - 6, there.max(0) + 6


def _grown(region: Region, pyramid: Pyramid) -> Region:
    across, down = GROWN * pyramid.width, GROWN * pyramid.height
    whole = Region(0, 0, pyramid.width, pyramid.height)
    grown = Region(region.left - across, region.top - down, region.right + across, region.bottom + down)
    return grown.within(whole)
