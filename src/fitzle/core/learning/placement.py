"""Where a picture stands in a screenshot."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Pixels = NDArray[np.uint8]  # (height, width, 3), sRGB
Planes = NDArray[np.float32]  # the same, 0 to 255, with fractions


class Placement(NamedTuple):
    """screenshot = scale * picture + (x, y), in px."""

    scale: float
    x: float
    y: float


class Region(NamedTuple):
    """A rectangle by its edges, in px of the picture or of the screenshot as said where it is used."""

    left: float
    top: float
    right: float
    bottom: float

    @property
    def width(self) -> float:
        """Its width."""
        return self.right - self.left

    @property
    def height(self) -> float:
        """Its height."""
        return self.bottom - self.top

    @property
    def short(self) -> float:
        """Its short side."""
        return min(self.width, self.height)

    def placed(self, at: Placement) -> Region:
        """A region of the picture in px of the screenshot."""
        return Region(
            at.scale * self.left + at.x,
            at.scale * self.top + at.y,
            at.scale * self.right + at.x,
            at.scale * self.bottom + at.y,
        )

    def in_picture(self, at: Placement) -> Region:
        """A region of the screenshot in px of the picture."""
        return Region(
            (self.left - at.x) / at.scale,
            (self.top - at.y) / at.scale,
            (self.right - at.x) / at.scale,
            (self.bottom - at.y) / at.scale,
        )

    def within(self, other: Region) -> Region:
        """The part of it that lies in another one."""
        return Region(
            max(self.left, other.left),
            max(self.top, other.top),
            min(self.right, other.right),
            min(self.bottom, other.bottom),
        )

    def inset(self, share: float) -> Region:
        """Smaller by a share of its size on each side."""
        across, down = share * self.width, share * self.height
        return Region(self.left + across, self.top + down, self.right - across, self.bottom - down)

    def moved(self, x: float, y: float) -> Region:
        """Elsewhere."""
        return Region(self.left + x, self.top + y, self.right + x, self.bottom + y)


class Candidate(NamedTuple):
    """Where a picture may stand; `region` is the part of it, in px of the picture, that was seen there."""

    placement: Placement
    region: Region
    how: str  # "features" or "correlation"
    score: float


def overlap(one: Region, other: Region) -> float:
    """The share of the smaller of two regions that lies in the other, 0 to 1."""
    common = one.within(other)
    area = max(0.0, common.width) * max(0.0, common.height)
    return area / max(1.0, min(one.width * one.height, other.width * other.height))
