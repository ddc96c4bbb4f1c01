"""Which format and which file: all that the place takes compete, never over the limit, never a silent compromise."""

from __future__ import annotations

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.contest import Contest
from fitzle.core.encode.registry import ENCODERS, writable
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Candidate, Choice, Encoded, Problem
from fitzle.core.encode.wish import NO_WISH, Wish, wished
from fitzle.core.formats import Format, format_named
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

LOSSLESS_SCORE = 90.0  # SSIMULACRA2: from there on nobody tells it from the original
GOOD_SCORE = 70.0  # below that a loss can be seen when looking for it
BAD_SCORE = 50.0  # below that it shows at once
USELESS_SCORE = 10.0  # below that ("very low quality" in the metric's own words) no file is better than this one
NEAR_TIE = 1.0  # points, within which the sheet's order decides
FAR_BEHIND = 6.0  # points: formats that tiles put so far behind the leader are not encoded whole
SCORING_SECONDS = 0.12  # for a megapixel: the chosen file is decoded and looked at when the search is over


def best_file(
    rendered: Rendered, sheet: SpecSheet, size: Size, budget: Budget | None = None, wish: Wish = NO_WISH
) -> Choice:
    """The best-looking file under the limit of all formats that the sheet takes and the wish leaves.

    `size` is that of the file in px. Formats within NEAR_TIE points are taken in the sheet's order. Without a limit the
    first one that reaches LOSSLESS_SCORE is taken. When the budget is used up the best so far is chosen.
    """
    budget = budget or Budget()
    formats = formats_for(rendered, sheet, size, wish)
    contest = _Contests(rendered, sheet.max_bytes, budget, size, wish)
    found = contest.first_lossless(formats) if sheet.max_bytes is None else contest.all_under_the_limit(formats)
    best = _best_in_order(found, formats)
    problem = _problem(bool(formats), best)
    return Choice(None if problem else best, contest.candidates, problem, budget.ended_early, budget.seconds)


def formats_for(rendered: Rendered, sheet: SpecSheet, size: Size, wish: Wish) -> list[Format]:
    """The formats that can be used, in the sheet's order."""
    return [fmt for fmt in sheet.formats if wish.format in (None, fmt) and _holds(fmt, rendered, size)]


class _Contests:
    """The contests of all formats, which share one budget."""

    def __init__(self, rendered: Rendered, limit: int | None, budget: Budget, size: Size, wish: Wish) -> None:
        self._rendered, self._limit, self._budget, self._wish = rendered, limit, budget, wish
        self._scoring_s = SCORING_SECONDS * size.width * size.height / 1_000_000
        self.candidates: list[Candidate] = []

    def first_lossless(self, formats: list[Format]) -> list[Encoded]:
        """What the formats come to, up to the first whose file cannot be told from the original."""
        found: list[Encoded] = []
        for index, fmt in enumerate(formats):
            if found and not self._budget.allows():
                break
            contest = self._contest(fmt)
            best = contest.exact() or self._searched(contest, len(formats) - index)
            self.candidates += contest.candidates
            found += [best] if best else []
            if best and best.score >= LOSSLESS_SCORE:
                break
        return found

    def all_under_the_limit(self, formats: list[Format]) -> list[Encoded]:
        """The files of all formats that may be the best."""
        found: list[Encoded] = []
        contests: list[Contest] = []
        for fmt in formats:
            contests.append(self._contest(fmt))
            if exact := contests[-1].exact():
                found.append(exact)
                break  # nothing after it in the sheet's order can win
        waiting = sorted(contests[: len(contests) - len(found)], key=lambda one: -one.likely)
        for index, contest in enumerate(waiting):
            recognisable = any(one.score >= USELESS_SCORE for one in found)
            if self._may_win(contest, found) and (not recognisable or self._budget.allows()):
                best = self._searched(contest, len(waiting) - index)
                found += [best] if best else []
        self.candidates += [one for contest in contests for one in contest.candidates]
        return found

    def _contest(self, fmt: Format) -> Contest:
        encoder = ENCODERS[fmt]
        exact, lines = wished(encoder.exact(self._rendered), encoder.lines, self._wish)
        return Contest(exact, lines, self._rendered, self._limit)

    def _may_win(self, contest: Contest, found: list[Encoded]) -> bool:
        """By what its tiles say, which may be a few points wrong."""
        return contest.likely >= max((one.score for one in found), default=0.0) - FAR_BEHIND

    def _searched(self, contest: Contest, waiting: int) -> Encoded | None:
        """The best of its lines, in its share of the time that is left."""
        part = self._budget.share(waiting, self._scoring_s)
        best = contest.best(part)
        self._budget.ended_early |= part.ended_early
        return best


def _best_in_order(found: list[Encoded], formats: list[Format]) -> Encoded | None:
    """The first in the sheet's order of those that come within NEAR_TIE points of the best."""
    if not found:
        return None
    least = max(one.score for one in found) - NEAR_TIE
    return min((one for one in found if one.score >= least), key=lambda one: formats.index(one.format))


def _problem(tried: bool, best: Encoded | None) -> Problem:
    if not tried:
        return "no format"
    if best is None:
        return "over limit"
    return "useless" if best.score < USELESS_SCORE else ""


def _holds(fmt: Format, rendered: Rendered, size: Size) -> bool:
    """Whether the format can be written and can hold this picture; pixels are drawn only where that decides."""
    known = format_named(fmt)
    if not writable(fmt) or (known.longest_side_px and max(size) > known.longest_side_px):
        return False
    return known.alpha or rendered.raster.opaque
