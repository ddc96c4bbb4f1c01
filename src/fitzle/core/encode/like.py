"""A file like another one: rows of a run look much alike, so the search begins where it ended for one of them."""

from __future__ import annotations

import time

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import LOSSLESS_SCORE, best_file, formats_for
from fitzle.core.encode.contest import Contest
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.line import Line
from fitzle.core.encode.registry import ENCODERS
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Candidate, Choice, Encoded
from fitzle.core.encode.wish import NO_WISH, Wish, wished
from fitzle.core.formats import Format
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

WORSE = 6.0  # points: a picture that comes out so much worse than its like is looked for from the beginning
MOST_ENCODES = 5


def file_like(
    before: Encoded | None,
    rendered: Rendered,
    sheet: SpecSheet,
    size: Size,
    budget: Budget | None = None,
    wish: Wish = NO_WISH,
) -> Choice:
    """As `best_file`, but in the format and the way of `before`, from its settings on: a third of the time.

    All is searched without such a file, where its format cannot be used, and where what is found looks worse.
    """
    budget = budget or Budget()
    if before and before.format in formats_for(rendered, sheet, size, wish):
        found = _in_its_way(before, rendered, sheet.max_bytes, budget, wish)
        best = found.best
        if best and (best.score >= LOSSLESS_SCORE or best.score >= before.score - WORSE):
            return found
    return best_file(rendered, sheet, size, budget, wish)


def _in_its_way(before: Encoded, rendered: Rendered, limit: int | None, budget: Budget, wish: Wish) -> Choice:
    encoder = ENCODERS[before.format]
    exact, lines = wished(encoder.exact(rendered), encoder.lines, wish)
    contest = Contest(exact, (), rendered, limit)
    best, tried = contest.exact(), list(contest.candidates)
    if best is None and (at := _position(before, lines)):
        best, more = _from(at[1], at[0], before.format, rendered, limit, budget)
        tried += more
    return Choice(best, tried, "", budget.ended_early, budget.seconds)


def _position(before: Encoded, lines: tuple[Line, ...]) -> tuple[int, Line] | None:
    """The line that made a file, and where on it."""
    places = ((at, line) for line in lines for at in range(line.low, line.high + 1))
    return next(((at, line) for at, line in places if line.settings(at) == before.settings), None)


def _from(
    line: Line, start: int, fmt: Format, rendered: Rendered, limit: int | None, budget: Budget
) -> tuple[Encoded | None, list[Candidate]]:
    raster = rendered.raster
    raster.expect_score()
    took: list[float] = []

    def encode(position: int) -> bytes:
        began = time.perf_counter()
        data = line.encode(raster, position)
        took.append(round(time.perf_counter() - began, 3))
        return data

    found = largest_under(encode, limit, line.low, line.high, start=start, budget=budget, most=MOST_ENCODES)
    tried = [
        Candidate(fmt, line.settings(one.position), len(one.data), None, seconds)
        for one, seconds in zip(found.tried, took, strict=True)
    ]
    if found.best is None:
        return None, tried
    settings, score = line.settings(found.best.position), raster.score(found.best.data)
    told = [one._replace(score=score) if one.settings == settings else one for one in tried]
    return Encoded(found.best.data, fmt, settings, score), told
