"""What drawing an SVG costs, estimated before it is drawn: its time, and how many pictures are held at once.

librsvg draws masks, filters, see-through or blended groups and patterns each in a picture of its own, as large as the
whole (at 6 megapixels 24 MB). Nested in each other they are all held at once; used again, they are drawn again. Costs
are in steps of 5 ms at 2400 x 1200 px, by measurement (docs/decisions/0027).
"""

from __future__ import annotations

import re
from typing import Any, NamedTuple

from lxml import etree

from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.svg_styles import Styles
from fitzle.core.artwork.svg_use import not_too_deep, references_of
from fitzle.core.errors import HostileFileError, LimitError

LAYER = 0.4  # a picture begun and laid over what is below
MASK = 18.0
PATTERN = 1.0
STEP = 5.0  # of a filter
BLUR = 60.0
SPREAD = 300.0  # feMorphology
_COMMAND = re.compile(r"[A-DF-Za-df-z]")
_FIGURE = re.compile(r"[\d.]+(?:[eE][+-]?\d+)?")
_LENGTH = re.compile(r"\d+\.?\d*$")
_LOCAL = re.compile(r"url\(\s*['\"]?#([^'\")\s]+)")
_DRAWN_WHERE_NAMED = ("mask", "pattern", "marker", "clipPath", "symbol")
_MARKERS = ("marker", "marker-start", "marker-mid", "marker-end")
_SHAPES = frozenset("path rect circle ellipse line polyline polygon text tspan textPath use".split())


class DrawingCost(NamedTuple):
    """Time in steps of 5 ms, and the most pictures that are held at once beside the whole."""

    steps: float = 0.0
    held: int = 0


def check_cost(root: Any, view_width: float, limits: Limits) -> None:
    """Raises HostileFileError where drawing would take too long or too much memory, and says of what."""
    _check_count("points in its paths", sum(_points(node) for node in root.iter()), limits.max_svg_points)
    _check_count("letters that are no outlines", sum(map(len, _texts(root))), limits.max_svg_letters)
    with not_too_deep():
        found = drawing_cost(root, view_width)
    if found.steps <= limits.max_svg_drawing and found.held <= limits.max_svg_held:
        return
    how = "deep inside each other" if found.held > limits.max_svg_held else "again and again"
    raise HostileFileError(
        f"this SVG has masks, filters, patterns or see-through groups {how}: it cannot be drawn in a few seconds",
        advice="Flatten them in the drawing program, or export it as PNG.",
    )


def _check_count(what: str, count: int, most: int) -> None:
    if count > most:
        raise LimitError(
            f"this SVG has too many {what}", expected=f"at most {most}", actual=str(count),
            advice="Simplify it in the drawing program, or export it as PNG.",
        )  # fmt: skip


def _texts(root: Any) -> list[str]:
    return ["".join(node.itertext()) for node in root.iter("{*}text")]


def drawing_cost(root: Any, view_width: float) -> DrawingCost:
    """The cost of a sanitised SVG whose references form no circle; `view_width` is that of its viewBox."""
    return _Counting(root, view_width).of(root)


class _Counting:
    def __init__(self, root: Any, view_width: float) -> None:
        self._by_id = {node.get("id"): node for node in root.iter() if node.get("id")}
        self._styles = Styles(root)
        self._view_width = view_width
        self._known: dict[Any, DrawingCost] = {}
        self._open: set[Any] = set()

    def of(self, node: Any) -> DrawingCost:
        """Of a node with everything in it and everything that it refers to."""
        if node not in self._known:
            if node in self._open:
                raise HostileFileError("parts of this SVG refer to themselves", advice="Save it again as plain SVG.")
            self._open.add(node)
            self._known[node] = self._counted(node)
            self._open.discard(node)
        return self._known[node]

    def _counted(self, node: Any) -> DrawingCost:
        if not isinstance(node.tag, str) or _tag(node) in ("defs", "style", "filter"):
            return DrawingCost()
        inner = [
            self.of(child) for child in node if _tag(child) not in ("mask", "pattern", "marker", "clipPath", "symbol")
        ]
        inner += [
            self.of(self._by_id[name]) for name in references_of(node) if _tag(node) == "use" and name in self._by_id
        ]
        steps, held = sum(one.steps for one in inner), max((one.held for one in inner), default=0)
        for own in self._own(node):
            steps, held = steps + own.steps, max(held + (own.held > 0), own.held)
        return DrawingCost(steps, held)

    def _own(self, node: Any) -> list[DrawingCost]:
        """What the node adds, from the inside out: patterns and markers, filter, clip, mask, opacity and blending."""
        style = self._styles.of(node)
        found = self._painted(node) if _tag(node) in _SHAPES else []
        for target in self._targets(style.get("filter")):
            found.append(DrawingCost(LAYER + sum(self._step(step) for step in target), 3))
        for target in self._targets(style.get("clip-path")):
            inside = self.of(target)
            found.append(DrawingCost(inside.steps, inside.held))
        for target in self._targets(style.get("mask")):
            inside = self.of(target)
            found.append(DrawingCost(MASK + inside.steps, inside.held + 2))
        blended = style.get("mix-blend-mode", "normal") != "normal" or "isolation" in style
        if blended or _figure(style.get("opacity")) < 1:
            found.append(DrawingCost(LAYER, 1))
        return found

    def _painted(self, node: Any) -> list[DrawingCost]:
        inherited = self._styles.inherited(node)
        found = []
        for paint in ("fill", "stroke"):
            for target in self._targets(inherited.get(paint)):
                if _tag(target) == "pattern":
                    inside = self.of(target)
                    found.append(DrawingCost(PATTERN + inside.steps * self._share(target), inside.held + 1))
        for name in _MARKERS:
            for target in self._targets(inherited.get(name)):
                inside = self.of(target)
                count = 1 if name in ("marker-start", "marker-end") else _points(node) + 1
                found.append(DrawingCost(inside.steps * count, inside.held))
        return found

    def _step(self, step: Any) -> float:
        name = _tag(step)
        if name in ("feGaussianBlur", "feDropShadow"):
            return BLUR
        return SPREAD if name == "feMorphology" else STEP

    def _share(self, pattern: Any) -> float:
        """How much of the width a tile takes: its picture is only as large as that."""
        if pattern.get("patternUnits") != "userSpaceOnUse" or not _LENGTH.match(pattern.get("width") or ""):
            return 1.0
        return min(1.0, float(pattern.get("width")) / self._view_width)

    def _targets(self, value: str | None) -> list[Any]:
        return [self._by_id[name] for name in _LOCAL.findall(value or "") if name in self._by_id]


def _tag(node: Any) -> str:
    return str(etree.QName(node).localname) if isinstance(node.tag, str) else ""


def _figure(text: str | None) -> float:
    found = _FIGURE.match(text or "")
    if not found:
        return 1.0
    try:
        return float(found[0]) / (100 if "%" in (text or "") else 1)
    except ValueError:
        return 1.0


def _points(node: Any) -> int:
    path = node.get("d") or node.get("points") or ""
    return max(len(_COMMAND.findall(path)), (len(_FIGURE.findall(path)) + 1) // 2)
