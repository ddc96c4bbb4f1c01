"""The natural size of an SVG and the user units it covers (SVG 1.1, section 7)."""

from __future__ import annotations

import math
import re
from typing import Any, NamedTuple

from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect

PX_PER_UNIT = {"": 1, "px": 1, "pt": 4 / 3, "pc": 16, "mm": 96 / 25.4, "cm": 96 / 2.54, "in": 96}  # CSS 2.1, 4.3.2
DEFAULT_SIZE = (300.0, 150.0)  # CSS 2.1, 10.3.2: a replaced element without a size
LARGEST_NATURAL_PX = 20_000.0
LEAST_NATURAL_PX = (
    0.5  # of either side; facts are kept to a thousandth of a px, and what rounds to nothing has no shape
)
LEAST_VIEW = 1e-3  # user units; a scale of more than a million leaves drawing without figures to calculate with
MOST_RATIO = 1000.0
_LENGTH = re.compile(r"^\s*([+-]?[\d.]+(?:[eE][+-]?\d+)?)\s*([a-z]*|%)\s*$")


class SvgFrame(NamedTuple):
    """Natural size in px and the viewBox in user units."""

    width: float
    height: float
    view: Rect


def svg_frame(root: Any) -> SvgFrame:
    """Size and viewBox of a root element; raises ArtworkError for sizes that cannot be drawn.

    Where both are stated the viewBox decides the shape; sizes beyond 20,000 px are brought down to that.
    """
    stated = _length(root.get("width")), _length(root.get("height"))
    view = _view_box(root.get("viewBox"))
    if view is None:
        width, height = stated[0] or DEFAULT_SIZE[0], stated[1] or DEFAULT_SIZE[1]
        view = Rect(0, 0, width, height)
    ratio = view.ratio
    if not 1 / MOST_RATIO <= ratio <= MOST_RATIO:
        raise ArtworkError(
            "the shape of this SVG is too long to be drawn",
            actual=f"{view.width:g} x {view.height:g}",
            expected="at most 1000 times as long as wide",
            advice="Crop it in a drawing program.",
        )
    width = stated[0] or (stated[1] * ratio if stated[1] else view.width)
    if min(width, width / ratio) < LEAST_NATURAL_PX:
        raise ArtworkError(
            f"this SVG says that it is {width:g} x {width / ratio:g} px large: nothing of it would be seen",
            advice="Export it at the size at which it is used.",
        )
    shrink = min(1.0, LARGEST_NATURAL_PX / width, LARGEST_NATURAL_PX / (width / ratio))
    return SvgFrame(width * shrink, width / ratio * shrink, view)


def _length(text: str | None) -> float | None:
    found = _LENGTH.match(text or "")
    if not found or found[2] not in PX_PER_UNIT:
        return None
    value = float(found[1]) * PX_PER_UNIT[found[2]]
    return value if 0 < value < math.inf else None


def _view_box(text: str | None) -> Rect | None:
    if not text:
        return None
    try:
        figures = [float(part) for part in re.split(r"[\s,]+", text.strip())]
    except ValueError:
        figures = []
    if (
        len(figures) != 4
        or not all(math.isfinite(f) and abs(f) < 1e9 for f in figures)
        or min(figures[2:]) < LEAST_VIEW
    ):
        raise ArtworkError(
            f"the viewBox of this SVG cannot be used: {text[:60]!r}", advice="It needs a width and height."
        )
    return Rect(*figures)
