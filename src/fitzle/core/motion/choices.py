"""Which movements suit a part, and what each of them begins with when somebody chooses it."""

from __future__ import annotations

from typing import get_args

from fitzle.core.findings import Frozen
from fitzle.core.piece.fills import Fill, Gradient, Pattern
from fitzle.core.piece.motion import Come, Entrance, Go, Keep, Keeping
from fitzle.core.plan.placed import Placed, PlacedArtwork, PlacedWords

OF_WORDS: tuple[Entrance, ...] = ("letter by letter", "word by word", "line by line")
OF_OUTLINES: tuple[Entrance, ...] = ("drawn",)  # which pictures and marks have none of
SWINGING: tuple[Keeping, ...] = ("sway", "bob", "pulse", "drift", "flicker")
STEP_SHARE, LONGEST_STEP_S = 0.2, 0.5  # of the period that a new coming in or going out takes


class Choices(Frozen):
    """The movements that suit a part (no entrances: it is always there); `come`, `keep` and `go` are what a new one
    begins with.
    """

    entrances: tuple[Entrance, ...]
    keepings: tuple[Keeping, ...]
    come: Come
    keep: Keep
    go: Go


def choices_for(part: Placed, period: float) -> Choices:
    """What suits a part of a loop of so many seconds."""
    length = round(min(LONGEST_STEP_S, STEP_SHARE * period), 2)
    keepings = _keepings(part)
    return Choices(
        entrances=tuple(one for one in get_args(Entrance) if one not in _unfit(part)),
        keepings=keepings,
        come=Come(start=0, length=length),
        keep=Keep(how=keepings[0], every=max(0.1, round(period, 2))),
        go=Go(start=round(period - length, 2), length=length),
    )


def ground_choices(fill: Fill | None, period: float) -> Choices | None:
    """What suits the ground: a gradient may turn, a pattern drift; None where nothing in it can move."""
    moves: Keeping | None = "turn" if isinstance(fill, Gradient) else "drift" if isinstance(fill, Pattern) else None
    if moves is None:
        return None
    keep = Keep(how=moves, every=max(0.1, round(period, 2)))
    return Choices(entrances=(), keepings=(moves,), come=Come(), keep=keep, go=Go(start=period))


def _unfit(part: Placed) -> tuple[Entrance, ...]:
    if isinstance(part, PlacedWords):
        return ()
    return (*OF_WORDS, *OF_OUTLINES) if isinstance(part, PlacedArtwork) else OF_WORDS


def _keepings(part: Placed) -> tuple[Keeping, ...]:
    if isinstance(part, PlacedWords):
        return ("wave", *SWINGING)
    if isinstance(part, PlacedArtwork) and not part.vector and part.role == "picture":
        return ("zoom", "pan", *SWINGING)
    return (*SWINGING, "spin")
