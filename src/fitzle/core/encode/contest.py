"""The best file of one format: its lines are looked at on tiles, and the promising ones encoded whole."""

from __future__ import annotations

import time
from collections.abc import Callable, Sequence
from concurrent.futures import ThreadPoolExecutor
from functools import cached_property, partial
from typing import NamedTuple

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.foreseeing import Foresight, foresight, refined, surely_over
from fitzle.core.encode.knob import ENOUGH, Setting, largest_under
from fitzle.core.encode.line import Exact, Line
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Candidate, Encoded

MOST_ENCODES = 6  # whole ones of one format
FIRST_OF_A_LINE = 2  # before it is compared with others; what is left of them goes to the best
MOST_OF_A_LINE = 5  # of a small raster, which is encoded in no time
MOST_LINES = 3
NEAR = 5.0  # points: lines that tiles put so near to the best are encoded whole too
HOPELESS = 10.0  # a file that looks so bad is not worth another encode
HOPELESS_ON_TILES = 20.0  # which do not show the bands of a palette
EXACT = 100.0
THREADS = 2


class _Found:
    """The best file of a line, and what was tried of it."""

    def __init__(self, entry: _Entry, best: Setting, tried: list[Setting], raster: Raster) -> None:
        self.entry, self.best, self.tried, self._raster = entry, best, tried, raster

    @cached_property
    def score(self) -> float:
        """About how it looks; nobody needs it where no other line is encoded."""
        return self._raster.compared_score(self.best.data)


class _Entry(NamedTuple):
    """A line that may fit, its foresight (None: a small raster is searched whole) and the score of its tiles."""

    line: Line
    seen: Foresight | None
    score: float


class Contest:
    """One format under a limit; `candidates` are all whole files that were tried."""

    def __init__(self, exact: list[Exact], lines: tuple[Line, ...], rendered: Rendered, limit: int | None) -> None:
        self._exact, self._lines, self._rendered, self._limit = exact, lines, rendered, limit
        self._refined: dict[str, Foresight] = {}
        self.candidates: list[Candidate] = []

    def exact(self) -> Encoded | None:
        """The first file that loses nothing and is under the limit."""
        for one in self._exact:
            if one.encode and self._lines and surely_over(one.encode, self._raster, self._limit):
                continue
            data, seconds = _timed(partial(self._made, one))
            self.candidates.append(Candidate(one.format, one.settings, len(data), EXACT, seconds))
            if self._limit is None or len(data) <= self._limit:
                return Encoded(data, one.format, one.settings, EXACT)
        return None

    def _made(self, one: Exact) -> bytes:
        return one.encode(self._raster) if one.encode else self._rendered.svg

    @cached_property
    def likely(self) -> float:
        """The score that its best line likely reaches; of a small raster nobody knows before it is searched."""
        return max((entry.score for entry in self._entries), default=0.0)

    def best(self, budget: Budget) -> Encoded | None:
        """The best-looking file of its lines, with the score of the whole file."""
        found: list[_Found] = []
        for index, entry in enumerate(self._entries):
            if entry.seen and index >= MOST_LINES:
                break
            if found and (self._far_behind(entry, found[0]) or not budget.allows(self._longest_s)):
                break
            if one := self._searched(entry, budget, FIRST_OF_A_LINE if entry.seen else MOST_OF_A_LINE):
                found.append(one)
        if not found:
            return None
        best = found[0] if len(found) == 1 else max(found, key=lambda one: (one.score, -len(one.best.data)))
        left = MOST_ENCODES - len(self.candidates)
        if best.entry.seen and left > 0 and self._worth_more(best) and budget.allows(self._longest_s):
            best = self._searched(best.entry, budget, left, best.tried) or best
        return self._scored(best)

    def _far_behind(self, entry: _Entry, first: _Found) -> bool:
        """Whether a line need not be encoded whole, after the one that looked best on tiles was."""
        if entry.seen is None:
            return False
        if len(self.candidates) + FIRST_OF_A_LINE > MOST_ENCODES or entry.score < self.likely - NEAR:
            return True
        return entry.score < HOPELESS_ON_TILES and first.score < HOPELESS

    def _worth_more(self, found: _Found) -> bool:
        """Whether more files of its line may use much more of the limit."""
        full = self._limit is not None and len(found.best.data) >= ENOUGH * self._limit
        return not full and found.score >= HOPELESS

    @property
    def _longest_s(self) -> float:
        """What one whole file takes at most, by those that were made."""
        return max((one.seconds or 0.0 for one in self.candidates), default=0.0)

    @property
    def _raster(self) -> Raster:
        return self._rendered.raster

    @cached_property
    def _entries(self) -> list[_Entry]:
        """The lines that may fit, the best first."""
        _ = self._raster.vips, self._raster.sample  # once, before threads ask for them
        with ThreadPoolExecutor(THREADS) as pool:
            last_first = list(pool.map(self._entry, reversed(self._lines)))  # those take longest
        entries = [entry for entry in reversed(last_first) if entry]
        return sorted(entries, key=lambda entry: -entry.score) or self._lightest()

    def _entry(self, line: Line) -> _Entry | None:
        if self._raster.sample and not self._raster.drawn:
            line = line.of_photos()
        seen = foresight(line, self._raster, self._limit)
        if seen is None:
            return _Entry(line, None, EXACT)
        return _Entry(line, seen, seen.score()) if seen.fits() else None

    def _lightest(self) -> list[_Entry]:
        """Where tiles say that nothing fits, the line that comes nearest: tiles may be wrong, and somebody is told."""
        seen = [(line, foresight(line, self._raster, self._limit)) for line in self._lines]
        known = [(one.bytes_at(line.low), line, one) for line, one in seen if one]
        if not known:
            return []
        _, line, one = min(known, key=lambda entry: entry[0])
        return [_Entry(line.fixed(line.low), one, 0.0)]

    def _searched(self, entry: _Entry, budget: Budget, most: int, known: Sequence[Setting] = ()) -> _Found | None:
        """The best file of a line, where it has one that was not known."""
        line, raster, took = entry.line, self._raster, dict[int, float]()
        raster.expect_score()  # encoders and drafts use one core each
        expected = self._expected(entry)

        def encode(position: int) -> bytes:
            data, took[position] = _timed(lambda: line.encode(raster, position))
            return data

        best, tried = largest_under(
            encode, self._limit, line.low, line.high, expected=expected, budget=budget, most=most, known=known
        )
        for one in tried:
            self.candidates.append(
                Candidate(line.format, line.settings(one.position), len(one.data), None, took[one.position])
            )
        return _Found(entry, best, tried, raster) if best and tried else None

    def _expected(self, entry: _Entry) -> Foresight | None:
        if entry.seen is None or self._limit is None:
            return None
        if entry.line.name not in self._refined:
            self._refined[entry.line.name] = refined(entry.seen, entry.line, self._raster, self._limit)
        return self._refined[entry.line.name]

    def _scored(self, found: _Found) -> Encoded:
        """With the score of the whole file, which its candidate gets as well."""
        line, score = found.entry.line, self._raster.score(found.best.data)
        best = Encoded(found.best.data, line.format, line.settings(found.best.position), score)
        self.candidates = [
            one._replace(score=score) if one.settings == best.settings else one for one in self.candidates
        ]
        return best


def _timed(encode: Callable[[], bytes]) -> tuple[bytes, float]:
    began = time.perf_counter()
    data = encode()
    return data, round(time.perf_counter() - began, 3)
