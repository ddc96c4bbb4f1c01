"""An SVG drawing as shapes of a Lottie animation: outlines with plain colours and gradients, front to back.

picosvg makes plain filled outlines of everything: lines become outlines, clips are cut, turns and nested drawings are
applied.
"""

from __future__ import annotations

import math
from typing import Any

from fitzle.core.colour.srgb import parse_hex

BEYOND = ("filter=", "<mask", "<image", "<pattern", "mix-blend-mode", "<text")  # what outlines cannot say
DIGITS = 3
OPAQUE = 100
LINE = {"x1": 0.0, "y1": 0.0, "x2": 1.0, "y2": 0.0}  # of a linear gradient that says nothing else
Shape = dict[str, Any]
Point = tuple[float, float]


class Unsaid(Exception):
    """The drawing holds something that shapes cannot say."""


def shapes_of(svg: bytes, tint: str | None = None) -> list[Shape]:
    """The shapes of a drawing, the frontmost first; `tint` is the one colour of all. Raises Unsaid."""
    from picosvg.svg import SVG

    text = svg.decode()
    if any(word in text for word in BEYOND):
        raise Unsaid
    try:
        drawing = SVG.fromstring(text).topicosvg(inplace=True)
        found = drawing.xpath("//svg:linearGradient|//svg:radialGradient")
        gradients = {element.get("id"): element for element in found}
        shapes = [_group(path, gradients, tint) for path in drawing.shapes()]
    except Unsaid:
        raise
    except Exception as error:  # picosvg asserts and raises what it likes about drawings that it does not know
        raise Unsaid from error
    return shapes[::-1]


def still(value: Any) -> dict[str, Any]:
    """A property that does not change."""
    return {"a": 0, "k": value}


def colour_of(hex_code: str) -> list[float]:
    """Red, green and blue of 0 to 1."""
    return [round(band / 255, 4) for band in parse_hex(hex_code)]


def group(shapes: list[Shape], opacity: float = 1.0) -> Shape:
    """Shapes that are drawn together; an outline comes before what fills it."""
    plain = {
        "ty": "tr", "p": still([0, 0]), "a": still([0, 0]), "s": still([OPAQUE, OPAQUE]), "r": still(0),
        "o": still(round(OPAQUE * opacity, 2)),
    }  # fmt: skip
    return {"ty": "gr", "it": [*shapes, plain]}


def fill(colour: list[float], opacity: Any = OPAQUE, *, even_odd: bool = False) -> Shape:
    """A plain filling."""
    return {"ty": "fl", "c": still(colour), "o": still(opacity), "r": 2 if even_odd else 1}


def _group(path: Any, gradients: dict[str, Any], tint: str | None) -> Shape:
    outlines = [{"ty": "sh", "ks": still(contour)} for contour in _contours(path)]
    return group([*outlines, _filling(path, gradients, tint)])


def _filling(path: Any, gradients: dict[str, Any], tint: str | None) -> Shape:
    opacity = round(OPAQUE * float(path.opacity) * float(path.fill_opacity), 2)
    even_odd = path.fill_rule == "evenodd"
    if tint:
        return fill(colour_of(tint), opacity, even_odd=even_odd)
    if path.fill.startswith("url("):
        return _gradient(gradients[path.fill[5:-1]], path, opacity)
    return fill(_plain_colour(path.fill), opacity, even_odd=even_odd)


def _plain_colour(value: str) -> list[float]:
    from PIL import ImageColor

    try:
        return [round(band / 255, 4) for band in ImageColor.getrgb(value)[:3]]
    except ValueError as error:
        raise Unsaid from error


def _contours(path: Any) -> list[dict[str, Any]]:
    """Each contour: its points, and their handles from each of them."""
    found: list[_Contour] = []
    plain = path.absolute().explicit_lines().expand_shorthand().arcs_to_cubics()
    for command, values in plain.as_cmd_seq():
        points = [(values[index], values[index + 1]) for index in range(0, len(values), 2)]
        if command == "M":
            found.append(_Contour(points[0]))
        elif command == "Z":
            found[-1].close()
        else:
            found[-1].draw(command, points)
    return [one.value() for one in found if len(one.points) > 1]


class _Contour:
    """Points with the handles that come into them and go out of them, relative to them."""

    def __init__(self, start: Point) -> None:
        self.points, self.incoming, self.outgoing = [start], [(0.0, 0.0)], [(0.0, 0.0)]
        self._closed = False

    def draw(self, command: str, points: list[Point]) -> None:
        """A line, or a quadratic (raised to a cubic, exact) or cubic curve."""
        start, end = self.points[-1], points[-1]
        if command == "L":
            one, two = start, end
        elif command == "Q":
            one, two = _between(start, points[0], 2 / 3), _between(end, points[0], 2 / 3)
        elif command == "C":
            one, two = points[0], points[1]
        else:
            raise Unsaid
        self.outgoing[-1] = _from(start, one)
        self.points.append(end)
        self.incoming.append(_from(end, two))
        self.outgoing.append((0.0, 0.0))

    def close(self) -> None:
        """Ends it; a last point on the first one is that one."""
        self._closed = True
        if len(self.points) > 2 and math.dist(self.points[0], self.points[-1]) < 10**-DIGITS:
            self.points.pop()
            self.incoming[0] = self.incoming.pop()
            self.outgoing.pop()

    def value(self) -> dict[str, Any]:
        """As an animation has it."""
        names = (("i", self.incoming), ("o", self.outgoing), ("v", self.points))
        return {"c": self._closed, **{name: [_rounded(point) for point in points] for name, points in names}}


def _gradient(element: Any, path: Any, opacity: float) -> Shape:
    from picosvg.svg_transform import Affine2D

    turned = Affine2D.fromstring(element.get("gradientTransform", ""))
    if element.get("gradientUnits", "objectBoundingBox") == "objectBoundingBox":
        box = path.bounding_box()
        turned = Affine2D.compose_ltr((turned, Affine2D(box.w, 0, 0, box.h, box.x, box.y)))
    linear = element.tag.endswith("linearGradient")
    start, end = _ends(element, turned) if linear else _circle(element, turned)
    stops = [_stop(stop) for stop in element if stop.tag.endswith("}stop")]
    if not stops or element.get("spreadMethod", "pad") != "pad":
        raise Unsaid
    colours = [entry for at, colour, _ in stops for entry in (at, *colour)]
    clear = [entry for at, _, alpha in stops for entry in (at, alpha)]
    values = colours + (clear if any(alpha < 1 for _, _, alpha in stops) else [])
    return {
        "ty": "gf", "o": still(opacity), "r": 2 if path.fill_rule == "evenodd" else 1, "t": 1 if linear else 2,
        "g": {"p": len(stops), "k": still(values)}, "s": still(_rounded(start)), "e": still(_rounded(end)),
    }  # fmt: skip


def _ends(element: Any, turned: Any) -> tuple[Point, Point]:
    """Start and end; where the drawing leans, the line across which the colours stand is not square to it any more."""
    if abs(turned.a * turned.c + turned.b * turned.d) > 1e-6 * abs(turned.determinant()):
        raise Unsaid
    x1, y1, x2, y2 = (_figure(element.get(name), usual) for name, usual in LINE.items())
    if x1 != x2 and y1 != y2 and not _even(turned):
        raise Unsaid
    return _mapped(turned, (x1, y1)), _mapped(turned, (x2, y2))


def _circle(element: Any, turned: Any) -> tuple[Point, Point]:
    """The middle, and a point at the reach."""
    cx, cy, r = (_figure(element.get(name), 0.5) for name in ("cx", "cy", "r"))
    if not _even(turned) or _figure(element.get("fx"), cx) != cx or _figure(element.get("fy"), cy) != cy:
        raise Unsaid
    return _mapped(turned, (cx, cy)), _mapped(turned, (cx + r, cy))


def _even(turned: Any) -> bool:
    """Whether it makes circles of circles."""
    one, other = math.hypot(turned.a, turned.b), math.hypot(turned.c, turned.d)
    return abs(one - other) <= 1e-3 * max(one, other)


def _stop(element: Any) -> tuple[float, list[float], float]:
    colour, alpha = element.get("stop-color", "#000000"), _figure(element.get("stop-opacity"), 1)
    return round(_figure(element.get("offset"), 0), 4), _plain_colour(colour), round(alpha, 4)


def _figure(value: str | None, usual: float) -> float:
    if value is None:
        return float(usual)
    return float(value[:-1]) / 100 if value.endswith("%") else float(value)


def _mapped(turned: Any, point: Point) -> Point:
    x, y = turned.map_point(point)
    return float(x), float(y)


def _between(one: Point, other: Point, share: float) -> Point:
    return one[0] + share * (other[0] - one[0]), one[1] + share * (other[1] - one[1])


def _from(origin: Point, point: Point) -> Point:
    return point[0] - origin[0], point[1] - origin[1]


def _rounded(point: Point) -> list[float]:
    return [round(point[0], DIGITS), round(point[1], DIGITS)]
