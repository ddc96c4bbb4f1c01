"""What staying under the byte limit cost: SSIMULACRA2 of the chosen file, and a search that ended early."""

from __future__ import annotations

from fitzle.core.encode.choosing import BAD_SCORE, GOOD_SCORE, USELESS_SCORE
from fitzle.core.encode.settings import Lossless
from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.units import words_for_bytes


def judge(evidence: Evidence) -> list[Finding]:
    """One finding where a loss can be seen, and a note where the search had to end before it was done."""
    found = [_useless(evidence)] if evidence.choice.problem == "useless" else [_lost(evidence)]
    return [finding for finding in (*found, _ended_early(evidence)) if finding]


def _lost(evidence: Evidence) -> Finding | None:
    best = evidence.choice.best
    if best is None or best.score >= GOOD_SCORE:
        return None
    bad = best.score < BAD_SCORE
    shows = "plainly shows" if bad else "can be seen"
    return Finding(
        rule="quality",
        severity="risky" if bad else "note",
        message=f"Staying under {words_for_bytes(evidence.sheet.max_bytes or 0)} cost detail that {shows}: it looks"
        f" {best.score:.0f} of 100 ({best.settings.words}). A calmer picture or a plain ground would help.",
        measured=best.score,
        limit=BAD_SCORE if bad else GOOD_SCORE,
    )


def _useless(evidence: Evidence) -> Finding | None:
    candidates = evidence.choice.candidates
    score = max((entry.score for entry in candidates if entry.score is not None), default=0.0)
    lossless = min((entry.bytes for entry in candidates if isinstance(entry.settings, Lossless)), default=None)
    needed = f" Lossless it has {words_for_bytes(lossless)}." if lossless else ""
    return Finding(
        rule="quality",
        severity="refused",
        message=f"Under {words_for_bytes(evidence.sheet.max_bytes or 0)} nothing recognisable is left: the best of"
        f" {len(candidates)} tries looks {score:.0f} of 100.{needed} A calmer picture or a plain ground would help, or"
        " another format if the place takes one.",
        measured=score,
        limit=USELESS_SCORE,
    )


def _ended_early(evidence: Evidence) -> Finding | None:
    choice = evidence.choice
    if not choice.ended_early or choice.best is None:
        return None
    return Finding(
        rule="quality",
        severity="note",
        message=f"The search for this file ended after {choice.budget_seconds:g} s with the best of"
        f" {len(choice.candidates)} tries; a better one may exist.",
        measured=choice.best.score,
        limit=None,
    )


def label(finding: Finding) -> str:
    """For example `looks 43 of 100`; only a search that ended early has no limit."""
    if finding.severity == "refused":
        return "too much for its limit"
    return "search ended early" if finding.limit is None else f"looks {finding.measured:.0f} of 100"


RULE = Rule("quality", "file", judge, label)
