"""The plan at a moment of its loop: pure, and cheap: places and looks change, nothing is planned anew."""

from __future__ import annotations

import math
from typing import NamedTuple

from fitzle.core.motion.document import Come, Entrance, Go, Keep, Motion, PartMotion
from fitzle.core.motion.easing import curve
from fitzle.core.plan.placed import Placed, Plan
from fitzle.core.units import Size

SWAY_DEGREES, BOB_SHARE, PULSE_SHARE, DRIFT_SHARE, FLICKER_SHARE = 14.0, 0.12, 0.16, 0.08, 0.85
READ_SHARE = 0.6  # of the period in which all is to be read
MOMENTS = 120  # that are looked at for the best one


class State(NamedTuple):
    """How a part differs from where it stands: shift in px, factor, turn in degrees, opacity as a factor."""

    dx: float = 0.0
    dy: float = 0.0
    scale: float = 1.0
    turn: float = 0.0
    opacity: float = 1.0

    def then(self, other: State) -> State:
        """Both at once."""
        return State(
            self.dx + other.dx, self.dy + other.dy, self.scale * other.scale, self.turn + other.turn,
            self.opacity * other.opacity,
        )  # fmt: skip


STILL = State()


def at(plan: Plan, motion: Motion, seconds: float) -> Plan:
    """The plan at a moment; a whole period later it is the same. Parts that are not there are left out."""
    moment = math.fmod(seconds, motion.period)
    moment += motion.period if moment < 0 else 0.0
    parts = tuple(
        moved
        for part in plan.parts
        if (moved := _moved(part, plan.size, motion.parts.get(part.part), moment, motion.period)) is not None
    )
    return plan._replace(parts=parts)


def state_at(part: Placed, size: Size, motion: PartMotion, moment: float, period: float) -> State | None:
    """How a part differs at a moment of the period; None while it is not there."""
    state = STILL
    if motion.come:
        progress = _progress(motion.come, moment)
        if moment < motion.come.start:
            return None
        state = state.then(_entering(part, size, motion.come.how, curve(motion.come.easing)(progress)))
    if motion.go and moment >= motion.go.start:
        progress = _progress(motion.go, moment)
        if progress >= 1:
            return None
        state = state.then(_entering(part, size, motion.go.how, 1 - curve(motion.go.easing)(progress)))
    if motion.keep:
        state = state.then(_keeping(part, motion.keep, moment, period))
    return state


def best_moment(plan: Plan, motion: Motion) -> float:
    """The moment for a still: all parts in and as they stand, as nearly as that happens; the earliest of equals."""

    def far(moment: float) -> float:
        away = 0.0
        for part in plan.parts:
            own = motion.parts.get(part.part)
            state = state_at(part, plan.size, own, moment, motion.period) if own else STILL
            away += 4.0 if state is None else _distance(state, part)
        return round(away, 6)

    return min((motion.period * step / MOMENTS for step in range(MOMENTS)), key=far)


def _moved(part: Placed, size: Size, motion: PartMotion | None, moment: float, period: float) -> Placed | None:
    if motion is None:
        return part
    state = state_at(part, size, motion, moment, period)
    if state is None or state.opacity <= 0 or state.scale <= 0:
        return None
    if state == STILL:
        return part
    look = part.look._replace(
        rotation=part.look.rotation + state.turn, opacity=part.look.opacity * state.opacity,
        shift=(state.dx, state.dy), scale=state.scale,
    )  # fmt: skip
    return part._replace(look=look)


def _progress(step: Come | Go, moment: float) -> float:
    if step.length <= 0:
        return 1.0 if moment >= step.start else 0.0
    return min(max((moment - step.start) / step.length, 0.0), 1.0)


def _entering(part: Placed, size: Size, how: Entrance, there: float) -> State:
    """What is left to do until a part is there: 0 not begun, 1 in its place."""
    left = 1 - there
    if how == "at once" or there == 1:
        return STILL
    if how == "fade":
        return State(opacity=max(0.0, min(1.0, there)))
    if how == "grow":
        return State(scale=max(0.0, there), opacity=max(0.0, min(1.0, there * 3)))
    box = part.box
    away = {
        "from left": (-(box.x + box.width), 0.0),
        "from right": (size.width - box.x, 0.0),
        "from top": (0.0, -(box.y + box.height)),
        "from bottom": (0.0, size.height - box.y),
    }
    dx, dy = away[how]
    return State(dx=dx * left, dy=dy * left)


def _keeping(part: Placed, keep: Keep, moment: float, period: float) -> State:
    """A whole number of swings in a period, so that the loop closes."""
    swings = max(1, round(period / keep.every))
    angle = 2 * math.pi * swings * moment / period
    wave, strength, short = math.sin(angle), keep.strength, min(part.box.width, part.box.height)
    if keep.how == "sway":
        return State(turn=SWAY_DEGREES * strength * wave)
    if keep.how == "bob":
        return State(dy=-BOB_SHARE * strength * short * wave)
    if keep.how == "pulse":
        return State(scale=1 + PULSE_SHARE * strength * wave)
    if keep.how == "spin":
        return State(turn=math.degrees(angle) % 360)
    if keep.how == "drift":
        reach = DRIFT_SHARE * strength * short
        return State(dx=reach * math.sin(angle), dy=reach * (math.cos(angle) - 1))
    return State(opacity=1 - FLICKER_SHARE * strength * (1 - math.cos(angle)) / 2)


def _distance(state: State, part: Placed) -> float:
    short = max(1.0, min(part.box.width, part.box.height))
    turn = min(state.turn % 360, 360 - state.turn % 360) / 180
    return (abs(state.dx) + abs(state.dy)) / short + abs(state.scale - 1) + turn + (1 - state.opacity)
