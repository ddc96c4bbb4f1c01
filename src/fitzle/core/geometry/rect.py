"""Axis-aligned rectangles; x to the right, y downwards."""

from __future__ import annotations

from typing import NamedTuple


class Point(NamedTuple):
    """A point; the unit is that of the rectangle it belongs to."""

    x: float
    y: float


class Rect(NamedTuple):
    """A rectangle by its left top corner and its size."""

    x: float
    y: float
    width: float
    height: float

    @property
    def right(self) -> float:
        """The x of the right edge."""
        return self.x + self.width

    @property
    def bottom(self) -> float:
        """The y of the bottom edge."""
        return self.y + self.height

    @property
    def centre(self) -> Point:
        """The middle."""
        return Point(self.x + self.width / 2, self.y + self.height / 2)

    @property
    def ratio(self) -> float:
        """Width divided by height."""
        return self.width / self.height

    def contains(self, point: Point) -> bool:
        """Whether a point lies in it or on its border."""
        return self.x <= point.x <= self.right and self.y <= point.y <= self.bottom

    def inset(self, by: float) -> Rect:
        """The rectangle made smaller by `by` on each side; at least a hundredth of its size remains."""
        dx = min(by, self.width * 0.495)
        dy = min(by, self.height * 0.495)
        return Rect(self.x + dx, self.y + dy, self.width - 2 * dx, self.height - 2 * dy)

    def scaled(self, factor: float) -> Rect:
        """All four figures times `factor`."""
        return Rect(self.x * factor, self.y * factor, self.width * factor, self.height * factor)

    def moved(self, dx: float, dy: float) -> Rect:
        """The rectangle moved, its size kept."""
        return Rect(self.x + dx, self.y + dy, self.width, self.height)
