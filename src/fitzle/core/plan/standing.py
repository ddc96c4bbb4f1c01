"""Where a part stands in a picture of any size."""

from __future__ import annotations

import math

from fitzle.core.geometry.anchor import Anchor, anchored
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.parts import Box, StandingPart, WordsPart
from fitzle.core.plan.padding import AUTO_PADDING
from fitzle.core.units import Size

LEAST_SIDE = 0.002  # of the short side
BEYOND_FROM_PX = 0.5  # a part that is over the edge by less was meant to touch it
_ANCHORS: tuple[tuple[Anchor, ...], ...] = (
    ("top-left", "top", "top-right"),
    ("left", "centre", "right"),
    ("bottom-left", "bottom", "bottom-right"),
)


def standing_box(part: StandingPart, size: Size, margin_px: float = 0.0) -> Rect:
    """The room of a part, in px; `margin_px` is left free for die-cut edges around it.

    A part that may not reach beyond the edge is made smaller, its shape kept, and moved until it lies inside, its
    turned corners included. Words that fill the picture keep a distance from its edge.
    """
    whole = Rect(0, 0, size.width, size.height)
    inner = whole.inset(margin_px + (part.edge.width * size.short_side if part.edge else 0.0))
    if not isinstance(part.stands, Box):
        return inner.inset(AUTO_PADDING * size.short_side) if isinstance(part, WordsPart) else inner
    own, unit = part.stands, size.short_side
    box = anchored(whole, own.anchor, own.width * unit, own.height * unit, own.dx * unit, own.dy * unit)
    return box if part.beyond else kept_inside(box, part.rotation, inner)


def kept_inside(box: Rect, rotation: float, whole: Rect) -> Rect:
    """The box made smaller and moved so that it lies inside the whole even when turned."""
    reach = rotated_size(box, rotation)
    factor = min(1.0, whole.width / reach[0], whole.height / reach[1])
    width, height = box.width * factor, box.height * factor
    half_x, half_y = reach[0] * factor / 2, reach[1] * factor / 2
    x = min(max(box.centre.x, whole.x + half_x), whole.right - half_x)
    y = min(max(box.centre.y, whole.y + half_y), whole.bottom - half_y)
    return Rect(x - width / 2, y - height / 2, width, height)


def rotated_size(box: Rect, rotation: float) -> tuple[float, float]:
    """Width and height of the upright box around a turned one."""
    across, down = abs(math.cos(math.radians(rotation))), abs(math.sin(math.radians(rotation)))
    return box.width * across + box.height * down, box.width * down + box.height * across


def standing_at(rect: Rect, size: Size) -> tuple[Box, bool]:
    """Where a part stands that was put at a rectangle (px), and whether it reaches beyond the edge.

    It is anchored to the side or corner it is nearest to, so that it stays there in pictures of other shapes.
    """
    unit, middle = size.short_side, rect.centre
    across = _third(middle.x / size.width)
    down = _third(middle.y / size.height)
    fx, fy = across / 2, down / 2
    stands = Box(
        anchor=_ANCHORS[down][across],
        dx=round((rect.x - fx * (size.width - rect.width)) / unit, 5),
        dy=round((rect.y - fy * (size.height - rect.height)) / unit, 5),
        width=max(rect.width / unit, LEAST_SIDE),
        height=max(rect.height / unit, LEAST_SIDE),
    )
    slack = BEYOND_FROM_PX
    beyond = rect.x < -slack or rect.y < -slack or rect.right > size.width + slack or rect.bottom > size.height + slack
    return stands, beyond


def _third(share: float) -> int:
    return 0 if share < 1 / 3 else 2 if share > 2 / 3 else 1
