"""A picture laid over the screenshot where it stands, and what differs there from what is expected."""

from __future__ import annotations

import math
from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.learning.placement import Pixels, Placement, Planes, Region
from fitzle.core.learning.pyramid import Pyramid, View
from fitzle.core.learning.shape import Worth
from fitzle.core.learning.tint import Tint, tint_between

LEAST_SIDE, LEAST_SEEN = 14, 6
BLUR = 1.0
LEAST_DOUBT, MOST_DOUBT = 7.0, 18.0  # of 255: a residual from which a px is not as expected
MOST_BLAME = 2.5  # how often a px that is quite different counts against one that is as expected


class Laid(NamedTuple):
    """All planes cover `view`: the picture and the screenshot, blurred alike, and how steep what is expected is."""

    at: Placement
    view: View
    picture: Planes
    shot: Planes
    tint: Tint
    steep: Planes

    @property
    def expected(self) -> Planes:
        """The picture under its tint."""
        return self.picture * np.float32(self.tint.keeps) + self.tint.adds.astype(np.float32)

    @property
    def doubt(self) -> float:
        """The residual from which a px is not as expected."""
        return float(np.clip(3 * self.tint.noise, LEAST_DOUBT, MOST_DOUBT))

    def residual(self, slack: float = 0.6) -> Planes:
        """How much each px differs, less what a shift of `slack` px would make of steep places."""
        wide = cv2.dilate(self.steep, np.ones((3, 3), np.uint8))
        return np.asarray(np.abs(self.shot - self.expected).max(2) - slack * wide, dtype=np.float32)

    def worth(self) -> Worth:
        """1 where a px is as expected, down to 1 - MOST_BLAME where it is not."""
        doubt = self.doubt
        residual = np.maximum(0, self.residual())
        return np.asarray((doubt - np.minimum(residual, MOST_BLAME * doubt)) / doubt, dtype=np.float32)

    def inside(self, shot_region: Region) -> Region:
        """A region of the screenshot in px of the planes."""
        return shot_region.moved(-self.view.x, -self.view.y)


def laid(pyramid: Pyramid, shot: Pixels, at: Placement, region: Region) -> Laid | None:
    """The picture where it stands; its tint is read in `region` of the picture. None where hardly anything is seen."""
    view = view_of(pyramid, shot, at)
    if view is None:
        return None
    picture = _blurred(pyramid.seen(at, view))
    there = _blurred(shot[int(view.y) : int(view.y) + view.height, int(view.x) : int(view.x) + view.width])
    seen = region.placed(at).moved(-view.x, -view.y).within(Region(0, 0, view.width, view.height))
    left, top, right, bottom = (int(edge) for edge in seen)
    if right - left < LEAST_SEEN or bottom - top < LEAST_SEEN:
        return None
    part = np.s_[top:bottom, left:right]
    tint = tint_between(picture[part].reshape(-1, 3), there[part].reshape(-1, 3))
    return Laid(at, view, picture, there, tint, _steepness(picture, tint))


def tinted_again(over: Laid, mask: np.ndarray) -> Laid:
    """The same with its tint read where a mask is true."""
    tint = tint_between(over.picture[mask], over.shot[mask])
    return over._replace(tint=tint, steep=_steepness(over.picture, tint))


def view_of(pyramid: Pyramid, shot: Pixels, at: Placement) -> View | None:
    """The part of the screenshot that the whole picture would cover."""
    whole = Region(0, 0, pyramid.width, pyramid.height).placed(at)
    left, top = max(0, math.floor(whole.left)), max(0, math.floor(whole.top))
    right, bottom = min(shot.shape[1], math.ceil(whole.right)), min(shot.shape[0], math.ceil(whole.bottom))
    if right - left < LEAST_SIDE or bottom - top < LEAST_SIDE:
        return None
    return View(left, top, right - left, bottom - top)


def _blurred(planes: Pixels | Planes) -> Planes:
    return np.asarray(cv2.GaussianBlur(planes.astype(np.float32), (0, 0), BLUR), dtype=np.float32)


def _steepness(picture: Planes, tint: Tint) -> Planes:
    across = cv2.Sobel(picture, cv2.CV_32F, 1, 0, scale=1 / 8)
    down = cv2.Sobel(picture, cv2.CV_32F, 0, 1, scale=1 / 8)
    return np.asarray(np.hypot(across, down).max(2) * np.float32(abs(tint.keeps)), dtype=np.float32)
