"""Turning one knob of an encoder to the largest file under a limit."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

from fitzle.core.encode.budget import Budget

ENOUGH = 0.97  # of the limit: what is left would not be seen (facts/encoding.md)
BRACKET = 2  # quality steps
MOST_ENCODES = 9
GUESS_POWER = 0.6  # bytes to quality for photos in JPEG and WebP; a guess, the secant corrects it
FARTHEST_MISS = 0.6  # after a guess that was too high go down by at least this factor


class Setting(NamedTuple):
    """A position of the knob and the file that it gave."""

    position: int
    data: bytes


class Expected(NamedTuple):
    """What is foreseen: the position where the search likely ends, a way to find one that is surely light enough, and
    the seconds that one encoding takes."""

    likely: int
    safe: Callable[[], int]
    seconds: float = 0.0


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
    lowest_first: bool = False,
    expected: Expected | None = None,
    budget: Budget | None = None,
) -> Turning:
    """The highest position of [low, high] whose file is at most `limit` bytes.

    Secant steps on the logarithm of the bytes inside a bracket; bytes should grow with the position, but a file over
    the limit is never returned even where they do not. `lowest_first` asks early whether the lowest position fits,
    for slow encoders that often cannot get there; where something is `expected`, the search begins there instead of at
    the highest one. When the budget is used up the best so far is returned.
    """
    search = _Search(encode, limit, low, high, budget or Budget(math.inf))
    return search.run(lowest_first, expected)


class _Search:
    """The bracket: `bottom` is the highest that fits, `top` the lowest that does not."""

    def __init__(self, encode: Callable[[int], bytes], limit: int | None, low: int, high: int, budget: Budget) -> None:
        self._encode, self._limit, self._low, self._high, self._budget = encode, limit, low, high, budget
        self._tried: list[Setting] = []
        self._bottom: Setting | None = None
        self._top: Setting | None = None
        self._longest_s = 0.0

    def run(self, lowest_first: bool, expected: Expected | None) -> Turning:
        self._try(self._first(expected))
        if self._top and lowest_first and self._top.position > self._low:
            self._try(self._low)
        while not self._done():
            self._try(self._next())
        if expected and self._bottom is None:
            self._try_below(expected.safe())
        self._try_below(self._low)
        return Turning(self._bottom, self._tried)

    def _try_below(self, position: int) -> None:
        if self._bottom is None and self._top and self._top.position > position:
            self._try(position)

    def _first(self, expected: Expected | None) -> int:
        """What is likely where there is time to correct it, else what is safe."""
        if self._limit is None or expected is None:
            return self._high
        hurried = self._budget.left < 2 * expected.seconds
        return min(max(expected.safe() if hurried else expected.likely, self._low), self._high)

    def _try(self, position: int) -> None:
        began = self._budget.used
        found = Setting(position, self._encode(position))
        self._longest_s = max(self._longest_s, self._budget.used - began)
        self._tried.append(found)
        if self._limit is None or len(found.data) <= self._limit:
            self._bottom = found
        else:
            self._top = found

    def _done(self) -> bool:
        bottom, top, limit = self._bottom, self._top, self._limit
        if limit is None or (bottom and bottom.position == self._high) or (top and top.position == self._low):
            return True
        if bottom and len(bottom.data) >= ENOUGH * limit:
            return True
        if bottom and top and top.position - bottom.position <= BRACKET:
            return True
        return len(self._tried) >= MOST_ENCODES or not self._budget.allows(self._longest_s)

    def _next(self) -> int:
        limit = self._limit or 0
        if self._bottom and self._top:
            return _secant(self._bottom, self._top, limit)
        if self._top:
            return _guess_below(self._top, limit, self._low)
        assert self._bottom
        return _guess_above(self._bottom, limit, self._low, self._high)


def _guess_below(top: Setting, limit: int, low: int) -> int:
    share = float((limit / len(top.data)) ** GUESS_POWER)
    return min(max(low, round(low + min(share, FARTHEST_MISS) * (top.position - low))), top.position - 1)


def _guess_above(bottom: Setting, limit: int, low: int, high: int) -> int:
    share = float((limit / len(bottom.data)) ** GUESS_POWER)
    return min(max(round(low + share * (bottom.position - low)), bottom.position + BRACKET), high)


def _secant(bottom: Setting, top: Setting, limit: int) -> int:
    rise = math.log(len(top.data)) - math.log(len(bottom.data))
    share = (math.log(limit) - math.log(len(bottom.data))) / rise if rise > 0 else 0.5
    position = bottom.position + share * (top.position - bottom.position)
    return min(max(round(position), bottom.position + 1), top.position - 1)
