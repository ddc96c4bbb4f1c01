"""The plan at a moment of its loop: pure, and cheap: places and looks change, nothing is planned anew."""

from __future__ import annotations

import math
from collections.abc import Iterator

from fitzle.core.geometry.rect import Rect
from fitzle.core.motion.document import Motion
from fitzle.core.motion.movements import STILL, State, angle_of, entering, keeping
from fitzle.core.motion.units import Unit, plate_of, taken_apart
from fitzle.core.piece.easing import curve
from fitzle.core.piece.fills import Fill, Gradient, Pattern
from fitzle.core.piece.motion import Come, Go, Keep, PartMotion
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords, Plan
from fitzle.core.units import Size

WAVE_EM, WAVE_LENGTHS = 0.18, 1.0  # how high letters go, and how many waves stand along the words
PAN_ROOM, ZOOM_ROOM = 0.12, 0.18  # of a picture's window: how much of it is left out to move in
UNIT_SHARE = 2.5  # steps that one letter, word or line takes to come in: the next ones begin before it is there
MOMENTS = 120  # that are looked at for the best one
_UNITS: dict[str, Unit] = {"letter by letter": "letter", "word by word": "word", "line by line": "line"}


def at(plan: Plan, motion: Motion, seconds: float) -> Plan:
    """The plan at a moment; a whole period later it is the same. Parts that are not there are left out.

    Words that come in or wave letter by letter are several parts of the plan, with one id.
    """
    moment = math.fmod(seconds, motion.period)
    moment += motion.period if moment < 0 else 0.0
    parts = tuple(
        moved
        for part in plan.parts
        for moved in _moved(part, plan.size, motion.parts.get(part.part), moment, motion.period)
    )
    return plan._replace(parts=parts, fill=_turned(plan, motion, moment))


def state_at(part: Placed, size: Size, motion: PartMotion, moment: float, period: float) -> State | None:
    """How a part differs at a moment of the period; None while it is not there. Units are not told apart."""
    state = STILL
    if motion.come:
        progress = _progress(motion.come, moment)
        if moment < motion.come.start:
            return None
        state = state.then(entering(part, size, motion.come.how, curve(motion.come.easing)(progress)))
    if motion.go and moment >= motion.go.start:
        progress = _progress(motion.go, moment)
        if progress >= 1:
            return None
        state = state.then(entering(part, size, motion.go.how, 1 - curve(motion.go.easing)(progress)))
    if motion.keep:
        state = state.then(keeping(part, motion.keep, moment, period))
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


def _moved(part: Placed, size: Size, motion: PartMotion | None, moment: float, period: float) -> Iterator[Placed]:
    if motion is None:
        yield part
        return
    unit = _unit_now(part, motion, moment)
    if unit and isinstance(part, PlacedWords):
        yield from _moved_units(part, unit, size, motion, moment, period)
        return
    state = state_at(part, size, motion, moment, period)
    if state is not None and isinstance(part, PlacedArtwork) and motion.keep:
        part = _in_its_window(part, motion.keep, moment, period)
    yield from _with(part, state)


def _with(part: Placed, state: State | None) -> Iterator[Placed]:
    """The part with its look at the moment; nothing where it is not seen."""
    if state is None or min(state.opacity, state.scale, state.shown, state.drawn) <= 0:
        return
    if state == STILL:
        yield part
        return
    look = part.look._replace(
        rotation=part.look.rotation + state.turn, opacity=part.look.opacity * state.opacity,
        shift=(state.dx, state.dy), scale=state.scale, shown=state.shown, drawn=state.drawn,
    )  # fmt: skip
    yield part._replace(look=look)


def _unit_now(part: Placed, motion: PartMotion, moment: float) -> Unit | None:
    """What the words are taken apart into just now."""
    if not isinstance(part, PlacedWords):
        return None
    if motion.keep and motion.keep.how == "wave":
        return "letter"
    come, go = motion.come, motion.go
    if come and come.how in _UNITS and moment < come.start + come.length:
        return _UNITS[come.how]
    if go and go.how in _UNITS and moment >= go.start:
        return _UNITS[go.how]
    return None


def _moved_units(
    words: PlacedWords, unit: Unit, size: Size, motion: PartMotion, moment: float, period: float
) -> Iterator[Placed]:
    """Each unit as it is, about the middle of the words where they turn or grow as one."""
    if plate := plate_of(words):
        yield from _with(plate, state_at(words, size, _as_one(motion), moment, period))
    units = taken_apart(words, unit)
    for number, one in enumerate(units):
        own = _of_unit(motion, number, len(units), "come") if motion.come else motion
        own = _of_unit(own, number, len(units), "go") if motion.go else own
        state = state_at(one, size, own, moment, period)
        if state and motion.keep and motion.keep.how == "wave":
            state = state.then(_wave(one, motion.keep, number / max(1, len(units)), moment, period))
        yield from _with(one, state)


def _as_one(motion: PartMotion) -> PartMotion:
    """For the plate: what comes unit by unit fades."""
    changes = {
        name: step.model_copy(update={"how": "fade"})
        for name in ("come", "go")
        if (step := getattr(motion, name)) and step.how in _UNITS
    }
    return motion.model_copy(update=changes)


def _of_unit(motion: PartMotion, number: int, count: int, name: str) -> PartMotion:
    """The times of one unit: all of them together take what the words were given."""
    step = getattr(motion, name)
    if step.how not in _UNITS:
        return motion
    own = min(step.length, step.length * UNIT_SHARE / max(1, count))
    begin = step.start + (step.length - own) * (number / (count - 1) if count > 1 else 0)
    return motion.model_copy(update={name: step.model_copy(update={"start": begin, "length": own})})


def _wave(one: PlacedWords, keep: Keep, place: float, moment: float, period: float) -> State:
    angle = angle_of(keep, moment, period) - 2 * math.pi * WAVE_LENGTHS * place
    return State(dy=-WAVE_EM * keep.strength * one.layout.size_px * math.sin(angle))


def _in_its_window(part: PlacedArtwork, keep: Keep, moment: float, period: float) -> PlacedArtwork:
    """A picture that pans or zooms slowly in its box: a smaller window of it, which moves and closes."""
    if keep.how not in ("pan", "zoom"):
        return part
    angle = angle_of(keep, moment, period)
    window, room = part.window, PAN_ROOM * keep.strength
    if keep.how == "zoom":
        room = ZOOM_ROOM * keep.strength * (1 - math.cos(angle)) / 2
    width, height = window.width * (1 - room), window.height * (1 - room)
    x, y = window.x + (window.width - width) / 2, window.y + (window.height - height) / 2
    if keep.how == "pan":
        x += (window.width - width) / 2 * math.sin(angle)
    return part._replace(window=Rect(x, y, width, height))


def _turned(plan: Plan, motion: Motion, moment: float) -> Fill | None:
    """What lies behind: a gradient turns, a pattern drifts from each of its marks to the next."""
    if motion.ground is None or not isinstance(plan.fill, Gradient | Pattern):
        return plan.fill
    round_share = angle_of(motion.ground, moment, motion.period) / (2 * math.pi)
    if isinstance(plan.fill, Pattern):
        return plan.fill.model_copy(update={"offset": (plan.fill.offset + round_share) % 1})
    return plan.fill.model_copy(update={"angle": (plan.fill.angle + 360 * round_share) % 360})


def _progress(step: Come | Go, moment: float) -> float:
    if step.length <= 0:
        return 1.0 if moment >= step.start else 0.0
    return min(max((moment - step.start) / step.length, 0.0), 1.0)


def _distance(state: State, part: Placed) -> float:
    short = max(1.0, min(part.box.width, part.box.height))
    turn = min(state.turn % 360, 360 - state.turn % 360) / 180
    return (
        (abs(state.dx) + abs(state.dy)) / short
        + abs(state.scale - 1)
        + turn
        + 3
        - state.opacity
        - state.shown
        - state.drawn
    )
