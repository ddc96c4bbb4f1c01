"""How the parts of a piece might move, by calculation: the order of importance, and nothing moves where one reads."""

from __future__ import annotations

import math
from collections.abc import Sequence

from fitzle.core.motion.document import USUAL_PERIOD_S, Motion
from fitzle.core.piece.motion import Come, Entrance, Go, Keep, PartMotion
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedShape, PlacedWords, Plan

READ_SHARE = 0.6  # of the period in which everything is in and to be read
IN_SHARE = 0.28  # of the period: all have come in by then
SECONDS_A_WORD, SECONDS_TO_FIND = 0.3, 0.5
LONGEST_PERIOD_S = 8.0
_IMPORTANCE = {"headline": 0, "mark": 1, "picture": 2, "second line": 3, "shape": 4, "badge": 5, "byline": 6}
LIVELY = 0.66
CALM = 0.33


def proposed(plan: Plan, liveliness: float = 0.5, longest: float | None = None) -> Motion:
    """A motion for a plan. `liveliness` of 0 to 1 goes from parts that fade to parts that fly and keep moving.

    Of the period at most a quarter is coming in and the rest is to be read; parts go out together at the end, except
    where the loop is calm. A picture that fills the piece stays and is zoomed. `longest` is what the place takes.
    """
    period = _period(plan, longest)
    ranked = sorted(enumerate(plan.parts), key=lambda one: (_IMPORTANCE.get(one[1].role, 9), one[0]))
    moving = [part for _, part in ranked if not _fills(part, plan)]
    parts = {part.part: _still_ground(part, liveliness) for _, part in ranked if _fills(part, plan)}
    comes = _times(len(moving), period * IN_SHARE, 0.35 + 0.25 * (1 - liveliness))
    for number, (part, (start, length)) in enumerate(zip(moving, comes, strict=True)):
        come = Come(
            how=_entrance(part, plan, liveliness, number), start=start, length=length, easing=_easing(liveliness)
        )
        go = Go(how="fade", start=period * 0.94, length=period * 0.06) if liveliness >= CALM else None
        parts[part.part] = PartMotion(come=come, keep=_keeping(part, liveliness, period), go=go)
    return Motion(period=period, parts={name: own for name, own in parts.items() if own})


def _period(plan: Plan, longest: float | None) -> float:
    """Long enough for its words to be read while all of them are in."""
    words = sum(len(" ".join(part.layout.lines).split()) for part in plan.parts if isinstance(part, PlacedWords))
    needed = (SECONDS_TO_FIND + SECONDS_A_WORD * words) / READ_SHARE if words else USUAL_PERIOD_S * 0.66
    found = min(max(USUAL_PERIOD_S if words else 2.0, needed), LONGEST_PERIOD_S)
    return min(math.ceil(found * 100) / 100, longest or math.inf)


def _times(count: int, within: float, length: float) -> list[tuple[float, float]]:
    """Start and length of each: one after the other, overlapping, all in by then."""
    own = min(length, within)
    step = (within - own) / (count - 1) if count > 1 else 0.0
    return [(round(step * number, 3), round(own, 3)) for number in range(count)]


def _fills(part: Placed, plan: Plan) -> bool:
    box = part.box
    return box.width >= 0.95 * plan.size.width and box.height >= 0.95 * plan.size.height


def _still_ground(part: Placed, liveliness: float) -> PartMotion | None:
    """What covers everything does not come in: the first frame of many places is all that is seen."""
    if not isinstance(part, PlacedArtwork) or part.vector:
        return None
    return PartMotion(keep=Keep(how="zoom", every=60, strength=0.3 + 0.5 * liveliness))


def _entrance(part: Placed, plan: Plan, liveliness: float, number: int) -> Entrance:
    if liveliness < CALM:
        return "fade"
    if isinstance(part, PlacedWords):
        if part.role == "headline" and liveliness >= LIVELY:
            return "letter by letter" if len("".join(part.layout.lines)) <= 24 else "word by word"
        return "word by word" if part.role == "headline" else "wiped"
    if isinstance(part, PlacedShape):
        return "wiped" if liveliness < LIVELY else "drawn"
    if part.role == "mark":
        return "grow"
    return "from left" if part.box.centre.x < plan.size.width / 2 else "from right"


def _keeping(part: Placed, liveliness: float, period: float) -> Keep | None:
    """Marks may sway, words never: they are read."""
    if part.role != "mark" or liveliness < CALM:
        return None
    every = period / (1 if liveliness < LIVELY else 2)
    return Keep(how="sway", every=every, strength=0.2 + 0.4 * liveliness)


def _easing(liveliness: float) -> str:
    return "cubic-bezier(0.2, 0.9, 0.3, 1.25)" if liveliness >= LIVELY else "ease-out"


def read_share(plan: Plan, motion: Motion) -> float:
    """The part of the period in which every part that has words is wholly in and stands."""
    begin, end = 0.0, motion.period
    for part in _words(plan.parts):
        own = motion.parts.get(part.part)
        if own and own.come:
            begin = max(begin, own.come.start + own.come.length)
        if own and own.go:
            end = min(end, own.go.start)
    return max(0.0, end - begin) / motion.period


def _words(parts: Sequence[Placed]) -> list[PlacedWords]:
    return [part for part in parts if isinstance(part, PlacedWords)]
