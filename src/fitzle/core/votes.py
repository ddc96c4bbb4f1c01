"""Whether the difference between votes could be chance: an exact binomial test, said plainly."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

HARDLY = 0.05  # a probability below which chance is a poor explanation


class Verdict(NamedTuple):
    """What votes say, in a sentence; `chance` is the probability of such a lead if nobody preferred anything."""

    words: str
    leader: str | None
    chance: float


def verdict(votes: Mapping[str, int]) -> Verdict:
    """The verdict on the votes for each name, at least two names.

    Of two: two-sided exact binomial test of a half. Of more: one-sided of an equal share for the one that leads,
    times the number of names, since any of them could have led (Bonferroni).
    """
    from scipy.stats import binomtest

    total = sum(votes.values())
    if total == 0:
        return Verdict("Nobody has answered yet.", None, 1.0)
    leader, most = max(votes.items(), key=lambda entry: entry[1])
    if sum(count == most for count in votes.values()) > 1:
        return Verdict(f"No one is ahead after {_counted(total)}.", None, 1.0)
    if len(votes) == 2:
        chance = float(binomtest(most, total, 0.5).pvalue)
    else:
        chance = min(1.0, len(votes) * float(binomtest(most, total, 1 / len(votes), alternative="greater").pvalue))
    lead = f"{leader} is ahead with {most} of {_counted(total)}."
    if chance < HARDLY:
        rare = f"without a preference it comes once in {_times(chance)}"
        return Verdict(f"{lead} That is hardly chance: {rare}.", leader, chance)
    return Verdict(f"{lead} That could well be chance ({chance:.0%}): ask more people.", leader, chance)


def _counted(total: int) -> str:
    return "1 answer" if total == 1 else f"{total} answers"


def _times(chance: float) -> str:
    times = 1 / max(chance, 1e-6)
    return "more than 100,000 such votes" if times > 100_000 else f"{round(times):,} such votes"
