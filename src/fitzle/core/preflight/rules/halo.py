"""A fringe around cut-out artwork that is neither like it nor like the ground."""

from __future__ import annotations

from fitzle.core.findings import Finding, Offer
from fitzle.core.preflight.rule import Evidence, Rule

MOST_BAD = 0.1  # of the rim


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each mark with a fringe."""
    artwork = {part.part: part.artwork for part in evidence.plan.artworks}
    return [
        Finding(
            rule="halo",
            severity="risky",
            message=f"A fringe shows along {reading.value:.0%} of its edge on {reading.on}: what was behind it before"
            " is still in its half-clear pixels.",
            measured=round(reading.value, 3),
            limit=MOST_BAD,
            where=evidence.where(reading.part),
            offer=Offer(step="clean edge", artwork=artwork[reading.part], label="Clean its edge here"),
            part=reading.part,
        )
        for reading in evidence.seen("halo")
        if reading.value > MOST_BAD
    ]


def label(_finding: Finding) -> str:
    """In words: the figure says nothing without its sentence."""
    return "a fringe shows"


RULE = Rule("halo", "seen", judge, label)
