"""Outlines: move, line, cubic and close, in any unit; the one form for shapes, letters and what is written as SVG."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator
from functools import lru_cache
from typing import NamedTuple

from fitzle.core.geometry.rect import Point, Rect

QUARTER_CIRCLE = 0.5522847498  # length of a cubic's handles for a quarter circle, in radii (error below 0.03 %)


class Step(NamedTuple):
    """One command: `M` and `L` with one point, `C` with three, `Z` with none."""

    command: str
    points: tuple[Point, ...]


class Path(NamedTuple):
    """An outline of closed contours."""

    steps: tuple[Step, ...]

    def transformed(self, a: float, b: float, c: float, d: float, e: float, f: float) -> Path:
        """Every point (x, y) becomes (a x + c y + e, b x + d y + f), as in SVG's matrix()."""
        return Path(
            tuple(
                Step(command, tuple(Point(a * x + c * y + e, b * x + d * y + f) for x, y in points))
                for command, points in self.steps
            )
        )

    def moved(self, dx: float, dy: float) -> Path:
        """The outline moved."""
        return self.transformed(1, 0, 0, 1, dx, dy)

    def scaled(self, factor: float) -> Path:
        """The outline about the origin, `factor` times as large."""
        return self.transformed(factor, 0, 0, factor, 0, 0)

    def bounds(self) -> Rect:
        """The box of all points, handles included."""
        points = [point for step in self.steps for point in step.points]
        if not points:
            return Rect(0, 0, 0, 0)
        left, top = min(point.x for point in points), min(point.y for point in points)
        return Rect(left, top, max(point.x for point in points) - left, max(point.y for point in points) - top)

    def svg(self, digits: int = 3) -> str:
        """As the `d` of an SVG path."""
        words = []
        for command, points in self.steps:
            words.append(command + " ".join(f"{_plain(x, digits)} {_plain(y, digits)}" for x, y in points))
        return "".join(words)


def _plain(value: float, digits: int) -> str:
    return f"{value:.{digits}f}".rstrip("0").rstrip(".") or "0"


class Pen:
    """Draws a Path command by command."""

    def __init__(self) -> None:
        self._steps: list[Step] = []
        self._at = Point(0, 0)

    def move(self, x: float, y: float) -> Pen:
        """Begins a contour."""
        return self._add("M", (x, y))

    def line(self, *points: tuple[float, float]) -> Pen:
        """Straight lines through all points."""
        for point in points:
            self._add("L", point)
        return self

    def cubic(self, one: tuple[float, float], two: tuple[float, float], end: tuple[float, float]) -> Pen:
        """A cubic Bézier curve."""
        return self._add("C", one, two, end)

    def quadratic(self, control: tuple[float, float], end: tuple[float, float]) -> Pen:
        """A quadratic curve, raised to a cubic (exact)."""
        start, (cx, cy) = self._at, control
        one = (start.x + 2 / 3 * (cx - start.x), start.y + 2 / 3 * (cy - start.y))
        two = (end[0] + 2 / 3 * (cx - end[0]), end[1] + 2 / 3 * (cy - end[1]))
        return self.cubic(one, two, end)

    def arc(self, cx: float, cy: float, rx: float, ry: float, start: float, sweep: float) -> Pen:
        """An arc of an ellipse by angles in radians, clockwise on the screen; begins where the pen stands."""
        parts = max(1, math.ceil(abs(sweep) / (math.pi / 2) - 1e-9))
        step = sweep / parts
        reach = 4 / 3 * math.tan(step / 4)
        for index in range(parts):
            one, two = start + index * step, start + (index + 1) * step
            x1, y1, x2, y2 = math.cos(one), math.sin(one), math.cos(two), math.sin(two)
            self.cubic(
                (cx + rx * (x1 - reach * y1), cy + ry * (y1 + reach * x1)),
                (cx + rx * (x2 + reach * y2), cy + ry * (y2 - reach * x2)),
                (cx + rx * x2, cy + ry * y2),
            )
        return self

    def close(self) -> Pen:
        """Ends a contour."""
        self._steps.append(Step("Z", ()))
        return self

    def path(self) -> Path:
        """What was drawn."""
        return Path(tuple(self._steps))

    def _add(self, command: str, *points: tuple[float, float]) -> Pen:
        self._steps.append(Step(command, tuple(Point(*point) for point in points)))
        self._at = self._steps[-1].points[-1]
        return self


def joined(paths: Iterable[Path]) -> Path:
    """Several outlines as one."""
    return Path(tuple(step for path in paths for step in path.steps))


def polygon(points: Iterable[tuple[float, float]]) -> Path:
    """Straight lines through the points, closed."""
    first, *others = list(points)
    return Pen().move(*first).line(*others).close().path()


def ellipse(cx: float, cy: float, rx: float, ry: float) -> Path:
    """A whole ellipse."""
    return Pen().move(cx + rx, cy).arc(cx, cy, rx, ry, 0, 2 * math.pi).close().path()


def rounded_rectangle(box: Rect, radius: float) -> Path:
    """A rectangle with round corners; the radius is at most half the short side."""
    r = min(max(radius, 0.0), box.width / 2, box.height / 2)
    left, top, right, bottom = box.x, box.y, box.right, box.bottom
    if r == 0:
        return polygon([(left, top), (right, top), (right, bottom), (left, bottom)])
    quarter = math.pi / 2
    return (
        Pen()
        .move(left + r, top)
        .line((right - r, top))
        .arc(right - r, top + r, r, r, -quarter, quarter)
        .line((right, bottom - r))
        .arc(right - r, bottom - r, r, r, 0, quarter)
        .line((left + r, bottom))
        .arc(left + r, bottom - r, r, r, quarter, quarter)
        .line((left, top + r))
        .arc(left + r, top + r, r, r, 2 * quarter, quarter)
        .close()
        .path()
    )


def flattened(path: Path, parts: int = 12) -> Iterator[list[Point]]:
    """The contours as polygons; each cubic as `parts` straight lines."""
    contour: list[Point] = []
    for command, points in path.steps:
        if command == "M" and contour:
            yield contour
            contour = []
        if command in "ML":
            contour.append(points[0])
        elif command == "C":
            contour += _cubic_points(contour[-1], points, parts)
        elif contour:
            yield contour
            contour = []
    if contour:
        yield contour


def _cubic_points(start: Point, points: tuple[Point, ...], parts: int) -> list[Point]:
    one, two, end = points
    return [
        Point(a * start.x + b * one.x + c * two.x + d * end.x, a * start.y + b * one.y + c * two.y + d * end.y)
        for a, b, c, d in _bernstein(parts)
    ]


@lru_cache(maxsize=16)
def _bernstein(parts: int) -> list[tuple[float, float, float, float]]:
    """The weights of a cubic's four points at the ends of `parts` equal parts (Bernstein polynomials)."""
    shares = [index / parts for index in range(1, parts + 1)]
    return [((1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t * t, t**3) for t in shares]
