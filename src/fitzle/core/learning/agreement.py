"""Whether a picture's structure is really there: local normalised correlation of luma where the picture has texture."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.learning.placement import Pixels, Placement, Planes, Region
from fitzle.core.learning.pyramid import Pyramid, View, grey

QUICK_SIDE, QUICK_BOX, QUICK_TEXTURE, QUICK_LIKE = 56, 9, 12.0, 0.6
LEAST_TEXTURED = 30
SIDE, TEXTURE, LIKE = 160, 16.0, 0.7


class Agreement(NamedTuple):
    """`share` of the textured px that agree, 0 to 1; `texture`: how many blocks of them there are; `whole`: correlation
    of all that is not covered, -1 to 1.
    """

    share: float
    texture: float
    whole: float


def quick_share(pyramid: Pyramid, shot: Pixels, at: Placement, region: Region) -> float:
    """The share of textured px that agree, at a small size: a cheap look at a candidate."""
    seen = region.placed(at)
    left, top = max(0, round(seen.left)), max(0, round(seen.top))
    right, bottom = min(shot.shape[1], round(seen.right)), min(shot.shape[0], round(seen.bottom))
    if right - left < 10 or bottom - top < 10:
        return 0.0
    reduction = min(1.0, QUICK_SIDE / min(right - left, bottom - top))
    width, height = max(8, round((right - left) * reduction)), max(8, round((bottom - top) * reduction))
    view = View(left, top, width, height, width / (right - left), height / (bottom - top))
    drawn = grey(pyramid.seen(at, view, smooth=False))
    there = grey(cv2.resize(shot[top:bottom, left:right], (width, height), interpolation=cv2.INTER_AREA))
    alike, variance = _local(drawn, there, QUICK_BOX, 3.0)
    textured = variance > QUICK_TEXTURE
    if int(textured.sum()) <= LEAST_TEXTURED:
        return 0.0
    return float((alike[textured] > QUICK_LIKE).mean())


def agreement(expected: Planes, there: Planes, covered: Planes) -> Agreement:
    """How what is expected agrees with what is there; `covered` is true where something else was drawn."""
    reduction = min(1.0, SIDE / min(expected.shape[:2]))
    one, other = (_small(grey(planes), reduction) for planes in (expected, there))
    box = 9 if min(one.shape) > 60 else 7
    alike, variance = _local(one, other, box, 4.0)
    textured = variance > TEXTURE
    free = cv2.resize(covered, (one.shape[1], one.shape[0]), interpolation=cv2.INTER_AREA) < 0.5
    if int(free.sum()) <= 20:
        free = np.ones_like(free)
    return Agreement(
        float((alike[textured] > LIKE).mean()) if textured.any() else 0.0,
        float(textured.sum()) / box / box,
        _correlation(one[free], other[free]),
    )


def _small(planes: Planes, reduction: float) -> Planes:
    if reduction >= 1:
        return planes
    return np.asarray(cv2.resize(planes, None, fx=reduction, fy=reduction, interpolation=cv2.INTER_AREA), np.float32)


def _local(one: Planes, other: Planes, box: int, least: float) -> tuple[Planes, Planes]:
    """Correlation around each px, and the variance of the first there."""

    def mean(planes: Planes) -> Planes:
        return np.asarray(cv2.boxFilter(planes, cv2.CV_32F, (box, box)), dtype=np.float32)

    mean_one, mean_other = mean(one), mean(other)
    variance, variance_other = mean(one * one) - mean_one**2, mean(other * other) - mean_other**2
    common = mean(one * other) - mean_one * mean_other
    alike = common / np.sqrt(np.maximum(variance, least) * np.maximum(variance_other, least))
    return np.asarray(alike, np.float32), variance


def _correlation(one: Planes, other: Planes) -> float:
    one, other = one - one.mean(), other - other.mean()
    return float((one * other).sum() / max(1e-6, float(np.sqrt((one * one).sum() * (other * other).sum()))))
