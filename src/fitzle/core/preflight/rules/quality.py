"""What staying under the byte limit cost: SSIMULACRA2 of the chosen file, and a search that ended early."""

from __future__ import annotations

from typing import Any

from fitzle.core.colour.contrast import WHITE
from fitzle.core.encode.choosing import BAD_SCORE, GOOD_SCORE, USELESS_SCORE
from fitzle.core.encode.result import Choice, best_score
from fitzle.core.encode.settings import Lossless
from fitzle.core.findings import Finding, Repair
from fitzle.core.formats import DRAWN, label_of
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.piece.editing import ground_part
from fitzle.core.piece.fills import PictureFill
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.units import words_for_bytes

BLURRED = 0.02  # of the short side: a picture behind that is calm enough to weigh little
_LABELS = {"ground-behind": "Put a ground behind it", "blur-ground": "Blur the picture behind"}


def judge(evidence: Evidence) -> list[Finding]:
    """One finding where a loss can be seen, and a note where the search had to end before it was done."""
    found = [_useless(evidence)] if evidence.choice.problem == "useless" else [_lost(evidence)]
    return [finding for finding in (*found, _ended_early(evidence)) if finding]


def _lost(evidence: Evidence) -> Finding | None:
    best = evidence.choice.best
    if best is None or best.score >= GOOD_SCORE or best.format in DRAWN:  # which players draw anew, each its own way
        return None
    limit = evidence.sheet.max_bytes
    under = f"under {words_for_bytes(limit)}" if limit else f"as {label_of(best.format)}"
    if best.score >= BAD_SCORE:
        return Finding(
            rule="quality",
            severity="note",
            message=f"Staying {under} cost detail that can be seen: it"
            f" looks {best.score:.0f} of 100 ({best.settings.words}). A calmer picture or a plain ground would help.",
            measured=best.score,
            limit=GOOD_SCORE,
        )
    return Finding(
        rule="quality",
        severity="risky",
        message=f"It is visibly damaged{' at this limit' if limit else ''}: {under} it looks"
        f" {best.score:.0f} of 100 ({best.settings.words}), worst in the marked part.{_tried(evidence.choice)}",
        measured=best.score,
        limit=BAD_SCORE,
        where=evidence.choice.worst,
        **_repairs(evidence.choice),
    )


def _tried(choice: Choice) -> str:
    """What was tried, the most gain first; what cannot be clicked is said with its figure."""
    if not choice.remedies:
        return " Smoothing its grain was tried and does not help; another picture, or another format, would."
    said = [f"{one.words} it would look {one.score:.0f}" for one in choice.remedies]
    return f" Tried: {'; '.join(said)}."


def _repairs(choice: Choice) -> dict[str, Any]:
    found = [
        Repair(name=one.name, label=_LABELS[one.name], becomes=f"looks {one.score:.0f} of 100")
        for one in choice.remedies
        if one.name in _LABELS
    ]
    return {"repair": next(iter(found), None), "other_repairs": tuple(found[1:])}


def ground_behind(piece: Piece, placement: str, evidence: Evidence, _part: str | None) -> list[Change]:
    """The first ground of the page, or white, behind everything."""
    ground = ground_part(piece)
    colour = evidence.sheet.grounds[0] if evidence.sheet.grounds else WHITE
    value = {"kind": "solid", "colour": colour}
    return [SetField(part=ground.id, field="fill", value=value, placement=placement)] if ground else []


def blur_ground(piece: Piece, placement: str, evidence: Evidence, _part: str | None) -> list[Change]:
    """The picture behind blurred as far as was tried."""
    ground, fill = ground_part(piece), evidence.plan.fill
    if ground is None or not isinstance(fill, PictureFill):
        return []
    value = {**fill.model_dump(mode="json"), "blur": max(BLURRED, fill.blur)}
    return [SetField(part=ground.id, field="fill", value=value, placement=placement)]


def _useless(evidence: Evidence) -> Finding | None:
    candidates = evidence.choice.candidates
    score = best_score(evidence.choice, evidence.sheet.max_bytes or 0)
    lossless = min((entry.bytes for entry in candidates if isinstance(entry.settings, Lossless)), default=None)
    needed = f" Lossless it has {words_for_bytes(lossless)}." if lossless else ""
    return Finding(
        rule="quality",
        severity="refused",
        message=f"Under {words_for_bytes(evidence.sheet.max_bytes or 0)} nothing recognisable is left: the best of"
        f" {len(candidates)} tries looks {score:.0f} of 100.{needed}{_tried(evidence.choice)}",
        measured=score,
        limit=USELESS_SCORE,
        **_repairs(evidence.choice),
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


RULE = Rule("quality", "file", judge, label, {"ground-behind": ground_behind, "blur-ground": blur_ground})
