"""Nine anchors: corners, middles of the sides, centre."""

from __future__ import annotations

from typing import Literal

from fitzle.core.geometry.rect import Rect

Anchor = Literal["top-left", "top", "top-right", "left", "centre", "right", "bottom-left", "bottom", "bottom-right"]

_COLUMN = {"left": 0.0, "right": 1.0}
_ROW = {"top": 0.0, "bottom": 1.0}


def anchor_fractions(anchor: Anchor) -> tuple[float, float]:
    """The anchor's place as fractions of width and height: `top-left` is (0, 0), `centre` (0.5, 0.5)."""
    words = anchor.split("-")
    across = next((_COLUMN[word] for word in words if word in _COLUMN), 0.5)
    down = next((_ROW[word] for word in words if word in _ROW), 0.5)
    return across, down


def anchored(frame: Rect, anchor: Anchor, width: float, height: float, dx: float, dy: float) -> Rect:
    """A rectangle whose own anchor point stands on the frame's, moved by (dx, dy); all in the frame's unit."""
    across, down = anchor_fractions(anchor)
    x = frame.x + across * (frame.width - width) + dx
    y = frame.y + down * (frame.height - height) + dy
    return Rect(x, y, width, height)
