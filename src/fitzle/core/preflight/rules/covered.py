"""Words and marks that the place covers, or does not show in one of its windows."""

from __future__ import annotations

from fitzle.core.findings import Finding, Repair
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.plan.placed import Placed, PlacedWords
from fitzle.core.plan.standing import standing_at
from fitzle.core.preflight.free_area import hidden_share, nearest_free
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import Evidence, Rule

MOST_HIDDEN = 0.03  # of the box: a serif under a rounded badge is no harm
QUOTED_LETTERS = 24


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each words and mark of which something is hidden."""
    return [found for part in _important(evidence) if (found := _hidden(part, evidence))]


def _important(evidence: Evidence) -> list[Placed]:
    marks = [own.part for own in evidence.artworks() if own.facts.kind == "mark"]
    return [*marks, *evidence.plan.words]


def _hidden(part: Placed, evidence: Evidence) -> Finding | None:
    share = hidden_share(part.box, evidence.sheet, evidence.plan.size)
    if share <= MOST_HIDDEN:
        return None
    what = f"“{' '.join(part.layout.lines)[:QUOTED_LETTERS]}”" if isinstance(part, PlacedWords) else "the mark"
    zones = [zone.label for zone in evidence.sheet.covered]
    by = f"under {' or '.join(zones[:3])}" if zones else "outside of what a window shows"
    free = nearest_free(part.box, evidence.sheet, evidence.plan.size)
    return Finding(
        rule="covered",
        severity="risky",
        message=f"{share:.0%} of {what} cannot be seen: it lies {by}.",
        measured=round(share, 3),
        limit=MOST_HIDDEN,
        where=where_in(evidence.plan, part.box),
        repair=Repair(name="move-free", label="Move it into the free area") if free else None,
        part=part.part,
    )


def move_free(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """Each part moved by the smallest shift after which nothing of it is hidden."""
    changes: list[Change] = []
    for own in _important(evidence):
        free = nearest_free(own.box, evidence.sheet, evidence.plan.size)
        hidden = hidden_share(own.box, evidence.sheet, evidence.plan.size) > MOST_HIDDEN
        if part not in (None, own.part) or free is None or not hidden:
            continue
        moved = own.stands.moved(free.x - own.box.x, free.y - own.box.y)
        stands, beyond = standing_at(moved, evidence.plan.size)
        changes.append(SetField(part=own.part, field="stands", value=stands.model_dump(), placement=placement))
        changes.append(SetField(part=own.part, field="beyond", value=beyond, placement=placement))
    return changes


def label(finding: Finding) -> str:
    """For example `34% hidden`."""
    return f"{finding.measured:.0%} hidden"


RULE = Rule("covered", "plan", judge, label, {"move-free": move_free})
