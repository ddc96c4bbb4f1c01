"""Turning one knob of an encoder to the largest file under a limit."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import NamedTuple, Protocol

from fitzle.core.encode.budget import Budget

ENOUGH = 0.97  # of the limit: what is left would not be seen (facts/encoding.md)
MOST_ENCODES = 9
KEPT_BACK = 1  # encode, for the lowest position where nothing fits
GUESS_POWER = 0.6  # bytes to quality for photos in JPEG and WebP; a guess, the secant corrects it
AIMED_AT = 0.99  # of the limit
SAFE_PART = 0.7  # of the limit: what was foreseen there stays below it
GROWTH = 12.0  # times the bytes from the lowest to the highest position, of quality and of colours alike
FARTHEST_MISS = 0.6  # after a guess that was too high go down by at least this factor


class Setting(NamedTuple):
    """A position of the knob and the file that it gave."""

    position: int
    data: bytes


class Expectation(Protocol):
    """What is foreseen of a search whose encodes cost much."""

    @property
    def seconds(self) -> float:
        """What one encoding takes."""
        ...

    def position(self, part: float = 1.0) -> int:
        """The highest position whose file has likely at most so large a part of the limit."""
        ...

    def bytes_at(self, position: int) -> float:
        """What the file there likely has."""
        ...


Guide = Callable[[Setting, int], int]


class Turning(NamedTuple):
    """The best position, or None where no file is light enough, and everything that was tried."""

    best: Setting | None
    tried: list[Setting]


def largest_under(
    encode: Callable[[int], bytes],
    limit: int | None,
    low: int,
    high: int,
    *,
    expected: Expectation | None = None,
    start: int | None = None,
    budget: Budget | None = None,
    most: int = MOST_ENCODES,
    enough: float = ENOUGH,
    known: Sequence[Setting] = (),
    guide: Guide | None = None,
) -> Turning:
    """The highest position of [low, high] whose file is at most `limit` bytes.

    Interpolation of the logarithm of the bytes inside a bracket; bytes should grow with the position, but a file over
    the limit is never returned even where they do not. The search begins at `start`, where something is `expected`
    there, else at the highest position, and ends where `enough` of the limit is used. After `most` encodes, or when
    the budget is used up, the best so far is returned; the lowest position is tried in any case before nothing is.
    What is `known` already is not encoded again. A `guide` says where the limit likely is, seen from a file that is
    under or over it, until there is one of each.
    """
    search = _Search(encode, limit, low, high, budget or Budget(math.inf), most, enough, guide)
    return search.run(expected, start, known)


class _Search:
    """The bracket: `bottom` is the highest that fits, `top` the lowest that does not."""

    def __init__(
        self,
        encode: Callable[[int], bytes],
        limit: int | None,
        low: int,
        high: int,
        budget: Budget,
        most: int,
        enough: float,
        guide: Guide | None,
    ) -> None:
        self._encode, self._limit, self._low, self._high, self._budget = encode, limit, low, high, budget
        self._enough, self._guide = enough, guide
        self._most = most
        self._tried: list[Setting] = []
        self._placed: list[Setting] = []
        self._bottom: Setting | None = None
        self._top: Setting | None = None
        self._longest_s, self._widths = 0.0, [math.inf, math.inf]

    def run(self, expected: Expectation | None, start: int | None, known: Sequence[Setting]) -> Turning:
        for one in known:
            self._place(one)
        if not known:
            self._try(self._first(expected, start))
            if expected and not self._satisfied() and self._budget.allows(self._longest_s):
                self._try(self._corrected(expected, self._tried[0]))
        while not self._done():
            self._try(self._next())
        if self._bottom is None and self._top and self._top.position > self._low:
            self._try_below(expected.position(SAFE_PART) if expected else self._safe_below(self._top))
        self._try_below(self._low)
        return Turning(self._bottom, self._tried)

    def _safe_below(self, top: Setting) -> int:
        return _guess_below(top, round(SAFE_PART * (self._limit or 0)), self._low)

    def _try_below(self, position: int) -> None:
        if self._bottom is None and self._top and self._top.position > position:
            self._try(position)

    def _first(self, expected: Expectation | None, start: int | None) -> int:
        """What is likely where there is time to correct it, else what is safe."""
        if self._limit is None:
            return self._high
        if expected is None:
            return self._high if start is None else min(max(start, self._low), self._high)
        likely = expected.position()
        hurried = self._budget.left < 2 * expected.seconds
        return min(max(expected.position(SAFE_PART) if hurried else likely, self._low), self._high)

    def _corrected(self, expected: Expectation, first: Setting) -> int:
        """Where the limit lies when what was foreseen was wrong by the factor that the first file says."""
        wrong_by = len(first.data) / max(expected.bytes_at(first.position), 1.0)
        if self._bottom:
            return min(max(expected.position(AIMED_AT / wrong_by), first.position + 1), self._high)
        return max(min(expected.position(AIMED_AT / wrong_by), first.position - 1), self._low)

    def _try(self, position: int) -> None:
        began = self._budget.used
        found = Setting(position, self._encode(position))
        self._longest_s = max(self._longest_s, self._budget.used - began)
        self._tried.append(found)
        self._place(found)

    def _place(self, found: Setting) -> None:
        self._placed.append(found)
        if self._limit is None or len(found.data) <= self._limit:
            if self._bottom is None or found.position > self._bottom.position:
                self._bottom = found
        elif self._top is None or found.position < self._top.position:
            self._top = found

    def _satisfied(self) -> bool:
        bottom, top, limit = self._bottom, self._top, self._limit
        if limit is None or (bottom and bottom.position == self._high) or (top and top.position == self._low):
            return True
        if bottom and len(bottom.data) >= self._enough * limit:
            return True
        return bool(bottom and top and top.position - bottom.position <= 1)

    def _done(self) -> bool:
        left = self._most - len(self._tried) - (0 if self._bottom else KEPT_BACK)
        return self._satisfied() or left < 1 or not self._budget.allows(self._longest_s)

    def _next(self) -> int:
        limit = self._limit or 0
        if self._bottom and self._top:
            return self._between(self._bottom, self._top, limit)
        if self._top:
            guess = self._guide(self._top, limit) if self._guide else _guess_below(self._top, limit, self._low)
            return max(self._low, min(guess, self._top.position - 1))
        assert self._bottom
        step = self._steps_for(self._bottom, limit)
        guess = self._guide(self._bottom, limit) if self._guide else self._bottom.position + max(round(step), 2)
        return min(self._high, max(guess, self._bottom.position + 1))

    def _steps_for(self, bottom: Setting, limit: int) -> float:
        """How far up the limit likely is: as bytes grew from the last one below, else as they usually do."""
        below = max((one for one in self._placed if one.position < bottom.position), default=None)
        rate = math.log(GROWTH) / max(self._high - self._low, 1)
        if below and len(below.data) < len(bottom.data):
            rate = math.log(len(bottom.data) / len(below.data)) / (bottom.position - below.position)
        return math.log(limit / len(bottom.data)) / rate

    def _between(self, bottom: Setting, top: Setting, limit: int) -> int:
        """Inverse quadratic interpolation, or a secant step; the middle where two of them together did not halve the
        bracket (Brent 1973).
        """
        width = top.position - bottom.position
        stuck = width > self._widths[-2] / 2
        self._widths.append(width)
        if stuck:
            return bottom.position + width // 2
        inside = (bottom.position, top.position)
        others = [one for one in self._placed if one.position not in inside]
        third = min(others, key=lambda one: abs(math.log(len(one.data) / limit)), default=None)
        return _interpolated(bottom, top, third, limit)


def _guess_below(top: Setting, limit: int, low: int) -> int:
    share = float((limit / len(top.data)) ** GUESS_POWER)
    return min(max(low, round(low + min(share, FARTHEST_MISS) * (top.position - low))), top.position - 1)


def _interpolated(bottom: Setting, top: Setting, third: Setting | None, limit: int) -> int:
    """Where the logarithm of the bytes likely reaches that of the limit, inside the bracket."""
    position = _inverse_quadratic([bottom, top, third], limit) if third else None
    if position is None or not bottom.position < position < top.position:
        position = _secant(bottom, top, limit)
    return min(max(round(position), bottom.position + 1), top.position - 1)


def _inverse_quadratic(known: list[Setting], limit: int) -> float | None:
    """The position of the limit on the parabola through three files; None where two of them weigh the same."""
    heights = [math.log(len(one.data)) for one in known]
    if len(set(heights)) < len(known):
        return None
    position = 0.0
    for one, own in zip(known, heights, strict=True):
        others = [height for height in heights if height != own]
        position += one.position * math.prod((math.log(limit) - other) / (own - other) for other in others)
    return position


def _secant(bottom: Setting, top: Setting, limit: int) -> float:
    rise = math.log(len(top.data)) - math.log(len(bottom.data))
    share = (math.log(limit) - math.log(len(bottom.data))) / rise if rise > 0 else 0.5
    return bottom.position + share * (top.position - bottom.position)
