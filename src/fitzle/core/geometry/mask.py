"""What shows of a picture that is cut at its destination: one outline for planning, judging, drawing and the browser.

A circle stands on the short side and in the middle, whatever the picture's shape; the radius of rounded corners is a
fraction of the short side. Lengths are in px of the picture.
"""

from __future__ import annotations

import math
from typing import Literal, NamedTuple

from fitzle.core.geometry.path import Path, ellipse, rounded_rectangle
from fitzle.core.geometry.rect import Point, Rect


class Mask(NamedTuple):
    """A circle, or a rectangle with rounded corners; `radius` in fractions of the short side."""

    shape: Literal["circle", "rounded"]
    radius: float = 0.5

    def shown(self, width: float, height: float) -> Rect:
        """The box of what shows: of a circle the square in the middle, else the whole picture."""
        if self.shape == "rounded":
            return Rect(0, 0, width, height)
        side = min(width, height)
        return Rect((width - side) / 2, (height - side) / 2, side, side)

    def radius_px(self, width: float, height: float) -> float:
        """The radius of the circle or of the corners."""
        return self.radius * min(width, height)

    def path(self, width: float, height: float) -> Path:
        """The outline of what shows."""
        box = self.shown(width, height)
        if self.shape == "circle":
            return ellipse(box.centre.x, box.centre.y, box.width / 2, box.height / 2)
        return rounded_rectangle(box, self.radius_px(width, height))

    def depth(self, point: Point, width: float, height: float) -> float:
        """How far a point lies inside the outline; negative outside (signed distance to a rounded rectangle)."""
        box, radius = self.shown(width, height), self.radius_px(width, height)
        across = abs(point.x - box.centre.x) - (box.width / 2 - radius)
        down = abs(point.y - box.centre.y) - (box.height / 2 - radius)
        outside = math.hypot(max(across, 0.0), max(down, 0.0)) + min(max(across, down), 0.0)
        return radius - outside
