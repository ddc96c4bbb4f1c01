"""The place that a piece is arranged for: its size, its margin, and the free boxes beside what is covered there."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import NamedTuple

from fitzle.core.arrange.boxes import clipped, free_boxes
from fitzle.core.geometry.rect import Rect
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.type.setting import Align
from fitzle.core.units import Size

LEAST_CAPITAL_SEEN = 9.0  # px: words with lower capitals are not read
CORNER_SHARE = 0.35  # of a rounded corner's radius: what stands further in is clear of it
INSCRIBED = (1 - math.sqrt(0.5)) / 2  # of a circle's diameter: the square inside stands so far from the box around it
AROUND_ZONE, AROUND_PIN = 0.5, 0.9  # margins
MOST_FREE = 3
LEAST_WIDE, LEAST_ROOM = 3.0, 1.3  # lines of least capitals: narrower boxes hold no words
ICON_SEEN_PX, ICON_RATIO = 72.0, 1.6


class Pin(NamedTuple):
    """A part that stays where somebody put it: its box in px, and for words the height of their capitals and how their
    lines are aligned. One that is `implied` stays because another one does.
    """

    box: Rect
    capital: float = 0.0
    align: Align = "left"
    implied: bool = False


class Place(NamedTuple):
    """A placement at its size in px. `shown` is what every window and cut leaves, `free` where parts may stand, the
    largest first; `covered` are zones that the destination draws over; `seen` is how many px of the screen one px of
    the file has where it is seen smallest; `pins` are parts that stay, by their ids.
    """

    size: Size
    unit: float
    margin: float
    shown: Rect
    free: tuple[Rect, ...]
    covered: tuple[Rect, ...]
    seen: float
    pins: Mapping[str, Pin] = {}

    @property
    def least_capital(self) -> float:
        """The height of the lowest capitals that are read, in px of the file."""
        return LEAST_CAPITAL_SEEN / self.seen

    @property
    def icon(self) -> bool:
        """Whether it is seen so small that one thing alone can be told."""
        ratio = max(self.shown.ratio, 1 / self.shown.ratio)
        return min(self.shown.width, self.shown.height) * self.seen <= ICON_SEEN_PX and ratio <= ICON_RATIO


def place_of(sheet: SpecSheet, size: Size, margin_share: float, pins: Mapping[str, Pin] | None = None) -> Place:
    """The place of a sheet at a size; `margin_share` is that of the piece (of the short side).

    What was put somewhere by hand (`pins`) is taken out of the free boxes.
    """
    pins = pins or {}
    whole = Rect(0, 0, size.width, size.height)
    shown = _shown(sheet, whole)
    margin = margin_share * min(shown.width, shown.height)
    if sheet.mask and sheet.mask.shape == "rounded":
        margin = max(margin, CORNER_SHARE * sheet.mask.outline.radius_px(*size))
    covered = tuple(
        Rect(zone.x * size.width, zone.y * size.height, zone.width * size.width, zone.height * size.height)
        for zone in sheet.covered
    )
    seen = min((one.width for one in sheet.seen), default=size.width) / size.width
    zones = [
        *(_grown(zone, AROUND_ZONE * margin) for zone in covered),
        *(_grown(pin.box, AROUND_PIN * margin) for pin in pins.values()),
    ]
    free = free_boxes(shown.inset(margin), zones) or [shown.inset(margin)]
    least = LEAST_ROOM * LEAST_CAPITAL_SEEN / seen
    roomy = [box for box in free if box.width > LEAST_WIDE * least and box.height > least]
    kept = tuple((roomy or free)[:MOST_FREE])
    return Place(size, math.sqrt(size.width * size.height), margin, shown, kept, covered, seen, pins)


def _shown(sheet: SpecSheet, whole: Rect) -> Rect:
    """What every screen shows: the common part of all windows, and of a circle the square inside it."""
    shown = whole
    for window in sheet.windows:
        part = Rect(
            window.x * whole.width, window.y * whole.height, window.width * whole.width, window.height * whole.height
        )
        common = clipped(shown, part)
        shown = common if common.width > 0 and common.height > 0 else shown
    if sheet.mask and sheet.mask.shape == "circle":
        box = sheet.mask.outline.shown(whole.width, whole.height)
        inside = clipped(shown, box.inset(INSCRIBED * box.width))
        shown = inside if inside.width > 0 and inside.height > 0 else shown
    return shown


def _grown(box: Rect, by: float) -> Rect:
    return Rect(box.x - by, box.y - by, box.width + 2 * by, box.height + 2 * by)
