"""A vector mark with fewer parts: the largest ones that still tell each other apart at the size at which it is seen."""

from __future__ import annotations

import copy
from collections.abc import Iterator, Sequence
from typing import Any, NamedTuple

import numpy as np

from fitzle.core.artwork.sources import Pixels, VectorSource
from fitzle.core.artwork.straight import straight
from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.smudge import contour_lost, drawn_long_px
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

DRAWN = frozenset({"path", "rect", "circle", "ellipse", "line", "polyline", "polygon", "text", "use"})
LOOKED_AT_PX = 64  # the long side at which each part is weighed
MOST_PARTS = 400
ENOUGH = 0.45  # of the contour may be lost: clearly less than what is told
LEAST_SEEN = 0.004  # of the mark's area: what is smaller is never kept


class Simpler(NamedTuple):
    """The simpler mark as SVG, how many of its parts stay, and the share of its contour that is lost at that size."""

    svg: bytes
    kept: int
    of: int
    lost: float


def simpler_mark(source: VectorSource, grounds: Sequence[Rgb], seen_px: float) -> Simpler | None:
    """The mark with as many of its largest parts as hold at `seen_px` of its long side; None where that is no help.

    A part weighs what it covers when it is drawn alone. None also for marks of one part, or of too many to weigh.
    """
    parts = [index for index, _ in _drawn(source.root)]
    if not 1 < len(parts) <= MOST_PARTS:
        return None
    areas = {index: _area(_only(source, {index}, parts)) for index in parts}
    whole = max(sum(areas.values()), 1e-9)
    ranked = sorted((one for one in parts if areas[one] > LEAST_SEEN * whole), key=lambda one: -areas[one])
    for count in _counts(len(ranked), len(parts)):
        kept = set(ranked[:count])
        lost = max(_lost(_only(source, kept, parts), ground, seen_px) for ground in grounds)
        if lost <= ENOUGH:
            return Simpler(_svg(source, kept, parts), count, len(parts), lost)
    return None


def _counts(ranked: int, parts: int) -> Iterator[int]:
    """Fewer and fewer, all but at the end."""
    count = min(ranked, parts - 1)
    while count > 0:
        yield count
        count = min(count - 1, int(count * 0.7))


def _drawn(root: Any) -> Iterator[tuple[int, Any]]:
    """What is drawn directly, in order, with its place among all elements; what is only referred to is left alone."""
    for index, element in enumerate(root.iter()):
        if not isinstance(element.tag, str) or element.tag.rpartition("}")[2] not in DRAWN:
            continue
        above = {parent.tag.rpartition("}")[2] for parent in element.iterancestors() if isinstance(parent.tag, str)}
        if not above & {"defs", "clipPath", "mask", "pattern", "marker", "symbol"}:
            yield index, element


def _tree(source: VectorSource, kept: set[int], parts: Sequence[int]) -> Any:
    root = copy.deepcopy(source.root)
    gone = set(parts) - kept
    for element in [element for index, element in enumerate(root.iter()) if index in gone]:
        element.getparent().remove(element)
    return root


def _only(source: VectorSource, kept: set[int], parts: Sequence[int]) -> VectorSource:
    return VectorSource(_tree(source, kept, parts), source.frame)


def _svg(source: VectorSource, kept: set[int], parts: Sequence[int]) -> bytes:
    from lxml import etree

    return bytes(etree.tostring(_tree(source, kept, parts)))


def _pixels(source: VectorSource, long_px: float) -> Pixels:
    scale = long_px / max(source.width, source.height)
    size = Size(max(1, round(source.width * scale)), max(1, round(source.height * scale)))
    return source.pixels(Rect(0, 0, source.width, source.height), size)


def _area(source: VectorSource) -> float:
    return float(_pixels(source, LOOKED_AT_PX)[..., 3].mean() / 255)


def _lost(source: VectorSource, ground: Rgb, seen_px: float) -> float:
    pixels = straight(_pixels(source, drawn_long_px(seen_px)))
    return contour_lost(np.ascontiguousarray(pixels), ground, seen_px)
