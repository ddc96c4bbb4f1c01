"""Lines that parts snap to while they are moved."""

from __future__ import annotations

from fitzle.core.findings import Frozen
from fitzle.core.plan.padding import AUTO_PADDING
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size


class Guide(Frozen):
    """A line across the picture, `at` px from the left (`x`) or from the top (`y`)."""

    axis: str
    at: float
    name: str


def guides_of(size: Size, sheet: SpecSheet) -> list[Guide]:
    """Edges, centre lines, thirds, the usual padding and the borders of covered zones."""
    padding = AUTO_PADDING * size.short_side
    found = []
    for axis, side in (("x", size.width), ("y", size.height)):
        for share, name in ((0.0, "edge"), (1.0, "edge"), (0.5, "middle"), (1 / 3, "third"), (2 / 3, "third")):
            found.append(Guide(axis=axis, at=round(share * side, 3), name=name))
        found += [Guide(axis=axis, at=round(at, 3), name="padding") for at in (padding, side - padding)]
        for zone in sheet.covered:
            start, length = (zone.x, zone.width) if axis == "x" else (zone.y, zone.height)
            found += [
                Guide(axis=axis, at=round(at * side, 3), name=zone.label or "covered zone")
                for at in (start, start + length)
            ]
    return found
