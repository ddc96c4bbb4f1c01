"""Artwork drawn with two scales that differ, here or before it came."""

from __future__ import annotations

from fitzle.core.findings import Finding
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence, Rule

MOST_APART = 0.01
MOST_ROUNDING_PX = 1.0  # that fitting to whole px may cost
NOTED_FROM = 1.02  # the ratio of an ellipse's axes from which somebody sees that it is no circle


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each artwork that is stretched, and a note for each whose circle is an ellipse."""
    here = [found for own in evidence.artworks() if (found := _stretched(own))]
    told = {finding.part for finding in here}
    ellipses = (one for one in evidence.seen("stretched") if one.value >= NOTED_FROM and one.part not in told)
    return here + [
        Finding(
            rule="stretched",
            severity="note",
            message=f"What looks like a circle in the mark is {one.value - 1:.0%} longer one way than the other. If it"
            " was meant to be round, the file was stretched before it came.",
            measured=round(one.value, 3),
            limit=NOTED_FROM,
            where=evidence.where(one.part),
            part=one.part,
        )
        for one in ellipses
    ]


def _stretched(own: ArtworkInPlan) -> Finding | None:
    box, window = own.part.box, own.part.window
    across, down = box.width / window.width, box.height / window.height
    apart = max(across, down) / min(across, down) - 1
    rounding = MOST_ROUNDING_PX / min(box.width, box.height)
    if apart <= max(MOST_APART, rounding):
        return None
    return Finding(
        rule="stretched",
        severity="risky",
        message=f"It is drawn {apart:.0%} {'wider' if across > down else 'taller'} than it is.",
        measured=round(apart, 3),
        limit=MOST_APART,
        where=where_in(own.plan, box),
        part=own.part.part,
    )


def label(finding: Finding) -> str:
    """In words."""
    return "no true circle" if finding.severity == "note" else "stretched"


RULE = Rule("stretched", "seen", judge, label)
