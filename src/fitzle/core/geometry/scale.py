"""The scale of a shelf: one for all that stand on it, so that a banner is visibly long and an icon visibly tiny."""

from __future__ import annotations

from collections.abc import Iterable

SCALES = (1, 2, 3, 4, 5, 6, 8, 10, 12, 16, 20, 25, 32, 40, 50, 64, 80, 100)  # 1 to so many
TALLEST_PX = 64  # on a screen of the usual size
LEAST_SLOT_PX = 148  # a proof's column is never narrower than its words
SLOT_GAP_PX = 24
TINY_PX = 12  # drawn smaller than this a proof gets a magnified twin
TWIN_PX = 48


def shelf_scale(sizes: Iterable[tuple[int, int]], room_px: float, tallest_px: float = TALLEST_PX) -> int:
    """The largest scale 1:n at which all sizes (px) stand side by side in a room of the screen, no higher than that."""
    sizes = list(sizes)
    for scale in SCALES:
        widths = [max(LEAST_SLOT_PX, width / scale) + SLOT_GAP_PX for width, _ in sizes]
        tallest = max((height / scale for _, height in sizes), default=0)
        widest = max((width / scale for width, _ in sizes), default=0)
        if tallest <= tallest_px and (sum(widths) <= room_px or widest <= LEAST_SLOT_PX):
            return scale
    return SCALES[-1]


def twin_px(width: int, height: int, scale: int) -> int | None:
    """How wide the magnified twin of a tiny proof is on the screen; None where it needs none."""
    if max(width, height) / scale >= TINY_PX:
        return None
    return round(TWIN_PX * min(1.0, width / height))
