"""Which format and which file: the place's preferred format first, never over the limit, never a silent compromise."""

from __future__ import annotations

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.registry import ENCODERS, writable
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Candidate, Choice, Encoded, Problem
from fitzle.core.formats import Format, format_named
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

GOOD_SCORE = 70.0  # SSIMULACRA2: below that a loss can be seen when looking for it
BAD_SCORE = 50.0  # below that it shows at once
SCORING_SECONDS = 0.12  # for a megapixel: the chosen file is decoded and looked at when the search is over
USELESS_SCORE = 10.0  # below that ("very low quality" in the metric's own words) no file is better than this one


def best_file(rendered: Rendered, sheet: SpecSheet, size: Size, budget: Budget | None = None) -> Choice:
    """The best-looking file of the first preferred format that looks good; else the best of all formats.

    `size` is that of the file in px. When the budget is used up the best so far is chosen.
    """
    budget = budget or Budget()
    candidates: list[Candidate] = []
    best: Encoded | None = None
    tried = False
    for index, fmt in enumerate(sheet.formats):
        if not _holds(fmt, rendered, size) or (best and not budget.allows()):
            continue
        tried = True
        part = budget.share(len(sheet.formats) - index, SCORING_SECONDS * size.width * size.height / 1_000_000)
        found, more = ENCODERS[fmt](rendered, sheet.max_bytes, part)
        budget.ended_early |= part.ended_early
        candidates += more
        if found and (best is None or found.score > best.score):
            best = found
        if best and best.score >= GOOD_SCORE:
            break
    problem = _problem(tried, best)
    return Choice(None if problem else best, candidates, problem, budget.ended_early, budget.seconds)


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
