"""The shapes: a registry of outlines that fill a box, each usable as a part and as the die of a picture.

Each shape is a function from the box's width and height to an outline from (0, 0) to (width, height); what must not be
stretched (round corners, slants) is measured in short sides.
"""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np

from fitzle.core.geometry.path import Path, Pen, ellipse, joined, polygon, rounded_rectangle
from fitzle.core.geometry.rect import Rect

Draw = Callable[[float, float], Path]
SHAPES: dict[str, Draw] = {}
TORN_SEED = 11  # torn edges and brush strokes are drawn once and stay the same


# Where words stand well in a shape: (x, y, width, height) in fractions of its box. The others take all of it.
ROOM_FOR_WORDS: dict[str, tuple[float, float, float, float]] = {
    "circle": (0.12, 0.12, 0.76, 0.76),
    "triangle": (0.25, 0.48, 0.5, 0.48),
    "diamond": (0.22, 0.22, 0.56, 0.56),
    "hexagon": (0.14, 0.06, 0.72, 0.88),
    "star": (0.27, 0.36, 0.46, 0.36),
    "burst": (0.16, 0.16, 0.68, 0.68),
    "pennant": (0.02, 0.0, 0.8, 1.0),
    "ribbon": (0.1, 0.0, 0.8, 1.0),
    "shield": (0.1, 0.1, 0.8, 0.62),
    "arrow": (0.02, 0.28, 0.8, 0.44),
    "speech bubble": (0.0, 0.0, 1.0, 0.8),
    "torn edge": (0.05, 0.06, 0.9, 0.88),
    "brush stroke": (0.08, 0.1, 0.84, 0.8),
    "arch": (0.08, 0.28, 0.84, 0.7),
    "wave": (0.02, 0.25, 0.96, 0.75),
    "tag": (0.24, 0.0, 0.74, 1.0),
    "ticket": (0.1, 0.0, 0.8, 1.0),
}


def room_for_words(name: str, box: Rect) -> Rect:
    """The part of a shape's box in which words stand well."""
    x, y, width, height = ROOM_FOR_WORDS.get(name, (0.0, 0.0, 1.0, 1.0))
    return Rect(box.x + x * box.width, box.y + y * box.height, width * box.width, height * box.height)


def box_around_words(name: str, words: Rect) -> Rect:
    """The box of a shape that has exactly these words in its room: the inverse of `room_for_words`."""
    x, y, width, height = ROOM_FOR_WORDS.get(name, (0.0, 0.0, 1.0, 1.0))
    across, down = words.width / width, words.height / height
    return Rect(words.x - x * across, words.y - y * down, across, down)


def shape_path(name: str, box: Rect) -> Path:
    """The outline of a shape that fills the box; raises KeyError for an unknown name."""
    return SHAPES[name](box.width, box.height).moved(box.x, box.y)


def _shape(name: str) -> Callable[[Draw], Draw]:
    def add(draw: Draw) -> Draw:
        if name in SHAPES:
            raise ValueError(f"two shapes are called {name!r}")
        SHAPES[name] = draw
        return draw

    return add


def _of_points(*points: tuple[float, float]) -> Draw:
    return lambda w, h: polygon((x * w, y * h) for x, y in points)


def _round_points(w: float, h: float, count: int, inner: float, start: float) -> Path:
    """Points on an ellipse that fills the box, every other one drawn in to `inner`; 1 gives a plain polygon."""
    steps = count if inner == 1 else 2 * count
    raw = []
    for index in range(steps):
        angle = start + 2 * math.pi * index / steps
        out = 1.0 if inner == 1 or index % 2 == 0 else inner
        raw.append((out * math.cos(angle), out * math.sin(angle)))
    return _stretched(raw, w, h)


def _stretched(points: list[tuple[float, float]], w: float, h: float) -> Path:
    """A polygon of any points, made to fill the box exactly."""
    xs, ys = [x for x, _ in points], [y for _, y in points]
    across, down = w / (max(xs) - min(xs)), h / (max(ys) - min(ys))
    return polygon(((x - min(xs)) * across, (y - min(ys)) * down) for x, y in points)


@_shape("rectangle")
def _rectangle(w: float, h: float) -> Path:
    return rounded_rectangle(Rect(0, 0, w, h), 0)


@_shape("rounded")
def _rounded(w: float, h: float) -> Path:
    return rounded_rectangle(Rect(0, 0, w, h), 0.18 * min(w, h))


@_shape("pill")
def _pill(w: float, h: float) -> Path:
    return rounded_rectangle(Rect(0, 0, w, h), min(w, h) / 2)


@_shape("circle")
def _circle(w: float, h: float) -> Path:
    return ellipse(w / 2, h / 2, w / 2, h / 2)


SHAPES["triangle"] = _of_points((0.5, 0), (1, 1), (0, 1))
SHAPES["diamond"] = _of_points((0.5, 0), (1, 0.5), (0.5, 1), (0, 0.5))


@_shape("hexagon")
def _hexagon(w: float, h: float) -> Path:
    return _round_points(w, h, 6, 1, 0)


@_shape("star")
def _star(w: float, h: float) -> Path:
    return _round_points(w, h, 5, 0.45, -math.pi / 2)


@_shape("burst")
def _burst(w: float, h: float) -> Path:
    return _round_points(w, h, 16, 0.82, -math.pi / 2)


@_shape("pennant")
def _pennant(w: float, h: float) -> Path:
    notch = min(0.35 * h, 0.3 * w)
    return polygon([(0, 0), (w, 0), (w - notch, h / 2), (w, h), (0, h)])


@_shape("ribbon")
def _ribbon(w: float, h: float) -> Path:
    notch = min(0.3 * h, 0.2 * w)
    return polygon([(0, 0), (w, 0), (w - notch, h / 2), (w, h), (0, h), (notch, h / 2)])


@_shape("shield")
def _shield(w: float, h: float) -> Path:
    pen = (
        Pen().move(0, 0.1 * h).quadratic((0.28 * w, 0.1 * h), (0.5 * w, 0)).quadratic((0.72 * w, 0.1 * h), (w, 0.1 * h))
    )
    pen.cubic((w, 0.62 * h), (0.84 * w, 0.86 * h), (0.5 * w, h)).cubic(
        (0.16 * w, 0.86 * h), (0, 0.62 * h), (0, 0.1 * h)
    )
    return pen.close().path()


@_shape("arrow")
def _arrow(w: float, h: float) -> Path:
    head = min(0.6 * h, 0.5 * w)
    top, bottom = 0.28 * h, 0.72 * h
    return polygon(
        [(0, top), (w - head, top), (w - head, 0), (w, h / 2), (w - head, h), (w - head, bottom), (0, bottom)]
    )


@_shape("speech bubble")
def _speech_bubble(w: float, h: float) -> Path:
    body, short = 0.8 * h, min(w, h)
    r = min(0.25 * short, body / 2, w / 2)
    foot = min(0.18 * short, (w - 2 * r) / 2)
    quarter = math.pi / 2
    pen = Pen().move(r, 0).line((w - r, 0)).arc(w - r, r, r, r, -quarter, quarter).line((w, body - r))
    pen.arc(w - r, body - r, r, r, 0, quarter).line((r + foot, body), (r, h), (r, body))
    pen.arc(r, body - r, r, r, quarter, quarter).line((0, r)).arc(r, r, r, r, 2 * quarter, quarter)
    return pen.close().path()


def _rough_line(count: int, depth: float, seed: int) -> np.ndarray:
    """How far a torn line lies inside the box at `count` places, 0 to `depth`: coarse waves with fine teeth."""
    rng = np.random.default_rng(seed)
    coarse = np.interp(np.linspace(0, 1, count), np.linspace(0, 1, 7), rng.random(7))
    rough = 0.6 * coarse + 0.4 * rng.random(count)
    return np.asarray((rough - rough.min()) / (rough.max() - rough.min()) * depth)


@_shape("torn edge")
def _torn_edge(w: float, h: float) -> Path:
    count, depth = 36, 0.09 * min(w, h)
    along = np.linspace(0, 1, count)
    sides = [_rough_line(count, depth, TORN_SEED + side) for side in range(4)]
    points = [(x * w, y) for x, y in zip(along[1:-1], sides[0][1:-1], strict=True)]
    points += [(w - x, y * h) for x, y in zip(sides[1][1:-1], along[1:-1], strict=True)]
    points += [(x * w, h - y) for x, y in zip(along[-2:0:-1], sides[2][-2:0:-1], strict=True)]
    points += [(x, y * h) for x, y in zip(sides[3][-2:0:-1], along[-2:0:-1], strict=True)]
    return _stretched([(float(x), float(y)) for x, y in points], w, h)


@_shape("brush stroke")
def _brush_stroke(w: float, h: float) -> Path:
    count = 26
    rng = np.random.default_rng(TORN_SEED)
    along = np.linspace(0, 1, count)
    top = 0.13 * h * rng.random(count) * np.abs(np.cos(along * 9))
    bottom = h - 0.13 * h * rng.random(count) * np.abs(np.sin(along * 8))
    bristles, reach = 9, min(0.5 * h, 0.16 * w)
    down = np.linspace(0.04, 0.96, bristles)
    right = [(w - reach * float(rng.random()) * (index % 2), float(y) * h) for index, y in enumerate(down)]
    left = [(reach * float(rng.random()) * ((index + 1) % 2), float(y) * h) for index, y in enumerate(down[::-1])]
    inside = [(reach + x * (w - 2 * reach)) for x in along]
    points = [(x, float(y)) for x, y in zip(inside, top, strict=True)] + right
    points += [(x, float(y)) for x, y in zip(inside[::-1], bottom[::-1], strict=True)] + left
    return _stretched(points, w, h)


@_shape("arch")
def _arch(w: float, h: float) -> Path:
    rise = min(w / 2, h)
    return Pen().move(0, h).line((0, rise)).arc(w / 2, rise, w / 2, rise, math.pi, math.pi).line((w, h)).close().path()


@_shape("wave")
def _wave(w: float, h: float) -> Path:
    swing = 0.22 * h
    pen = Pen().move(0, swing).cubic((0.25 * w, -0.35 * swing), (0.3 * w, -0.35 * swing), (0.5 * w, 0.5 * swing))
    pen.cubic((0.7 * w, 1.35 * swing), (0.8 * w, 1.2 * swing), (w, 0.35 * swing)).line((w, h), (0, h))
    path = pen.close().path()
    top = min(point.y for contour in _line_of(path) for point in contour)
    # Stretched so that the crest touches the top of the box.
    return path.transformed(1, 0, 0, h / (h - top), 0, -top * h / (h - top))


def _line_of(path: Path) -> list[list]:  # type: ignore[type-arg]
    from fitzle.core.geometry.path import flattened

    return list(flattened(path, 48))


@_shape("tag")
def _tag(w: float, h: float) -> Path:
    slant, hole = min(0.45 * h, 0.35 * w), 0.09 * min(w, h)
    body = polygon([(slant, 0), (w, 0), (w, h), (slant, h), (0, h / 2)])
    # The hole runs the other way round, so that both filling rules leave it open.
    ring = Pen().move(slant + hole, h / 2).arc(slant, h / 2, hole, hole, 0, -2 * math.pi).close().path()
    return joined([body, ring])


@_shape("ticket")
def _ticket(w: float, h: float) -> Path:
    r = 0.16 * min(w, h)
    quarter = math.pi / 2
    pen = Pen().move(0, 0).line((w, 0), (w, h / 2 - r)).arc(w, h / 2, r, r, -quarter, -2 * quarter).line((w, h), (0, h))
    return pen.line((0, h / 2 + r)).arc(0, h / 2, r, r, quarter, -2 * quarter).close().path()
