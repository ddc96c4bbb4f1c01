"""Parts that somebody put somewhere by hand in a place: pins, around which the others are arranged.

What belongs to a pinned part, on its panel or as the panel that holds it, goes with it as it stood to it.
"""

from __future__ import annotations

from collections.abc import Collection, Mapping

from fitzle.core.arrange.boxes import around
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.laying import Laid
from fitzle.core.arrange.place import Pin, Place
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.units import Size


def pins_of(intent: Intent, plan: Plan, parts: Collection[str]) -> dict[str, Pin]:
    """The pins of a plan in which `parts` stand as somebody put them; backdrops stay where they are anyway."""
    found: dict[str, Pin] = {}
    for placed in plan.parts:
        member = intent.members.get(placed.part)
        if placed.part not in parts or member is None or member.backdrop:
            continue
        if isinstance(placed, PlacedWords):
            found[placed.part] = Pin(placed.box, placed.layout.cap_height_px, member.align)
        else:
            found[placed.part] = Pin(placed.box)
    for panel, held in intent.groups.panels.items():
        if panel in found:
            found |= {part: _on(intent, panel, found[panel], part) for part in held if part not in found}
        elif first := next((part for part in held if part in found), None):
            found |= {part: _beside(intent, first, found[first], part, plan.size) for part in held if part not in found}
            found[panel] = _around(intent, panel, held, found, _times(intent, first, found[first]))
    return found


def put_pins(laid: Laid, place: Place, kept: Collection[str]) -> None:
    """Lays pinned parts where they stay."""
    for part, pin in place.pins.items():
        if part in kept:
            laid.boxes[part] = pin.box
            if pin.capital:
                laid.capitals[part], laid.aligned[part] = pin.capital, pin.align


def _times(intent: Intent, part: str, pin: Pin) -> float:
    """How much larger a pinned part is than it was."""
    own = intent.members[part]
    return pin.capital / own.capital_px if own.capital_px and pin.capital else pin.box.height / own.box.height


def _on(intent: Intent, panel: str, pin: Pin, part: str) -> Pin:
    """What lies on a pinned panel, at its place there."""
    own, member = intent.members[panel].box, intent.members[part]
    across, down = pin.box.width / own.width, pin.box.height / own.height
    times = min(across, down)
    x = pin.box.x + (member.box.x - own.x) * across
    middle = pin.box.y + (member.box.centre.y - own.y) * down
    size = member.box.width * times, member.box.height * times
    return Pin(Rect(x, middle - size[1] / 2, *size), member.capital_px * times, member.align, implied=True)


def _beside(intent: Intent, first: str, pin: Pin, part: str, size: Size) -> Pin:
    """What lies on one panel with a pinned part: above or below it as far off as it stood, at the same edge.

    Where there is no room on that side it goes to the other one.
    """
    own, member, times = intent.members[first].box, intent.members[part], _times(intent, first, pin)
    width, height = member.box.width * times, member.box.height * times
    follows = member.box.centre.y >= own.centre.y
    gap = times * max(0.0, member.box.y - own.bottom if follows else own.y - member.box.bottom)
    above, below = pin.box.y - gap - height, pin.box.bottom + gap
    y = below if (follows and below + height <= size.height) or above < 0 else above
    x = min(max(0.0, pin.box.x + (member.box.x - own.x) * times), max(0.0, size.width - width))
    return Pin(Rect(x, y, width, height), member.capital_px * times, member.align, implied=True)


def _around(intent: Intent, panel: str, held: Collection[str], pins: Mapping[str, Pin], times: float) -> Pin:
    """The panel around what it holds, with as much room on each side as it had."""
    own = intent.members[panel].box
    before = around(intent.members[part].box for part in held)
    now = around(pins[part].box for part in held)
    left, top = times * (before.x - own.x), times * (before.y - own.y)
    right, bottom = times * (own.right - before.right), times * (own.bottom - before.bottom)
    return Pin(Rect(now.x - left, now.y - top, now.width + left + right, now.height + top + bottom), implied=True)
