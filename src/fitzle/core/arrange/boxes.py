"""Boxes in a picture: how much they share, how one stands to another, and what room covered zones leave."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Literal

from fitzle.core.geometry.rect import Rect

Side = Literal["left", "right", "above", "below"]
SLACK = 0.15  # of the smaller box: beside each other though they overlap a little
OPPOSITE: dict[Side, Side] = {"left": "right", "right": "left", "above": "below", "below": "above"}


def area(box: Rect) -> float:
    """In px²; 0 where a side is negative."""
    return max(0.0, box.width) * max(0.0, box.height)


def shared(one: Rect, other: Rect) -> float:
    """The area that both have, in px²."""
    width = min(one.right, other.right) - max(one.x, other.x)
    height = min(one.bottom, other.bottom) - max(one.y, other.y)
    return width * height if width > 0 and height > 0 else 0.0


def around(boxes: Iterable[Rect]) -> Rect:
    """The box around all."""
    known = list(boxes)
    left, top = min(box.x for box in known), min(box.y for box in known)
    return Rect(left, top, max(box.right for box in known) - left, max(box.bottom for box in known) - top)


def clipped(box: Rect, whole: Rect) -> Rect:
    """What of a box lies inside; a side may be negative where nothing does."""
    left, top = max(box.x, whole.x), max(box.y, whole.y)
    return Rect(left, top, min(box.right, whole.right) - left, min(box.bottom, whole.bottom) - top)


def side_of(one: Rect, other: Rect) -> Side | None:
    """On which side of the other one stands; None where they overlap both ways."""
    across = SLACK * min(one.width, other.width)
    down = SLACK * min(one.height, other.height)
    gaps: dict[Side, float] = {
        "left": other.x - one.right + across,
        "right": one.x - other.right + across,
        "above": other.y - one.bottom + down,
        "below": one.y - other.bottom + down,
    }
    side = max(gaps, key=lambda key: gaps[key])
    return side if gaps[side] > 0 else None


def free_boxes(whole: Rect, zones: Sequence[Rect]) -> list[Rect]:
    """The largest boxes inside that touch no zone, none inside another, the largest first; they may overlap."""
    found = [whole]
    for zone in zones:
        split = [part for box in found for part in _beside(box, zone)]
        found = [box for box in split if not any(_inside(box, other) for other in split if other is not box)]
        found = list(dict.fromkeys(found))
    return sorted(found, key=lambda box: (-area(box), box))


def _inside(box: Rect, other: Rect) -> bool:
    return box != other and shared(box, other) >= 0.999 * area(box) and area(other) > area(box)


def _beside(box: Rect, zone: Rect) -> list[Rect]:
    """What is left of a box on each side of a zone; the box itself where they share nothing."""
    if not shared(box, zone):
        return [box]
    parts = [
        Rect(box.x, box.y, zone.x - box.x, box.height),
        Rect(zone.right, box.y, box.right - zone.right, box.height),
        Rect(box.x, box.y, box.width, zone.y - box.y),
        Rect(box.x, zone.bottom, box.width, box.bottom - zone.bottom),
    ]
    return [part for part in parts if part.width > 0 and part.height > 0]
