"""What each movement does to a part: tables of entrances and of what keeps moving."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from fitzle.core.piece.motion import Entrance, Keep
from fitzle.core.plan.placed import Placed, PlacedWords
from fitzle.core.units import Size

SWAY_DEGREES, BOB_SHARE, PULSE_SHARE, DRIFT_SHARE, FLICKER_SHARE = 14.0, 0.12, 0.16, 0.08, 0.85
RISE_EM = 0.35  # from how far below a letter comes in


class State(NamedTuple):
    """How a part differs from where it stands: shift in px, factor, turn in degrees, opacity as a factor.

    `shown` is how much of it is uncovered from the left, `drawn` how far its outline is drawn (both 1: all of it).
    """

    dx: float = 0.0
    dy: float = 0.0
    scale: float = 1.0
    turn: float = 0.0
    opacity: float = 1.0
    shown: float = 1.0
    drawn: float = 1.0

    def then(self, other: State) -> State:
        """Both at once."""
        return State(
            self.dx + other.dx, self.dy + other.dy, self.scale * other.scale, self.turn + other.turn,
            self.opacity * other.opacity, self.shown * other.shown, self.drawn * other.drawn,
        )  # fmt: skip


STILL = State()


class _Entering(NamedTuple):
    """A part on its way: how far it is there (curves may swing beyond 1), and the picture's size."""

    part: Placed
    size: Size
    there: float

    @property
    def left(self) -> float:
        return 1 - self.there

    @property
    def share(self) -> float:
        return max(0.0, min(1.0, self.there))


def _rising(one: _Entering) -> State:
    unit = one.part.layout.size_px if isinstance(one.part, PlacedWords) else one.part.box.height
    return State(dy=RISE_EM * unit * one.left, opacity=one.share)


_ENTRANCES: dict[Entrance, Callable[[_Entering], State]] = {
    "at once": lambda one: STILL,
    "fade": lambda one: State(opacity=one.share),
    "from left": lambda one: State(dx=-one.part.box.right * one.left),
    "from right": lambda one: State(dx=(one.size.width - one.part.box.x) * one.left),
    "from top": lambda one: State(dy=-one.part.box.bottom * one.left),
    "from bottom": lambda one: State(dy=(one.size.height - one.part.box.y) * one.left),
    "grow": lambda one: State(scale=max(0.0, one.there), opacity=min(1.0, max(0.0, one.there * 3))),
    "wiped": lambda one: State(shown=one.share),
    "drawn": lambda one: State(drawn=one.share),
    "letter by letter": _rising,
    "word by word": _rising,
    "line by line": _rising,
}


def entering(part: Placed, size: Size, how: Entrance, there: float) -> State:
    """What is left to do until a part is there: 0 not begun, 1 in its place."""
    return STILL if there == 1 else _ENTRANCES[how](_Entering(part, size, there))


class _Swing(NamedTuple):
    """Where a part is in its swings: the angle, how strong, and its short side."""

    angle: float
    strength: float
    short: float

    @property
    def wave(self) -> float:
        return math.sin(self.angle)


def _drifting(one: _Swing) -> State:
    reach = DRIFT_SHARE * one.strength * one.short
    return State(dx=reach * one.wave, dy=reach * (math.cos(one.angle) - 1))


_KEEPING: dict[str, Callable[[_Swing], State]] = {  # what is not here moves inside of the part, or the ground
    "sway": lambda one: State(turn=SWAY_DEGREES * one.strength * one.wave),
    "bob": lambda one: State(dy=-BOB_SHARE * one.strength * one.short * one.wave),
    "pulse": lambda one: State(scale=1 + PULSE_SHARE * one.strength * one.wave),
    "spin": lambda one: State(turn=math.degrees(one.angle) % 360),
    "drift": _drifting,
    "flicker": lambda one: State(opacity=1 - FLICKER_SHARE * one.strength * (1 - math.cos(one.angle)) / 2),
}


def keeping(part: Placed, keep: Keep, moment: float, period: float) -> State:
    """Where a part is in what it keeps doing."""
    swing = _KEEPING.get(keep.how)
    if swing is None:
        return STILL
    return swing(_Swing(angle_of(keep, moment, period), keep.strength, min(part.box.width, part.box.height)))


def angle_of(keep: Keep, moment: float, period: float) -> float:
    """Radians of the swing: a whole number of swings in a period, so that the loop closes."""
    return 2 * math.pi * max(1, round(period / keep.every)) * moment / period
