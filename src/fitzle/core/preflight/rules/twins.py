"""Almost the same as another picture of a series."""

from __future__ import annotations

from fitzle.core.eye.twins import MOST_DIFFERENT
from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each other picture that nobody tells apart from this one."""
    return [
        Finding(
            rule="twins",
            severity="risky",
            message=f"Side by side with {reading.on}, seen {reading.seen_px:.0f} px wide, nobody tells them apart: only"
            f" {reading.value:.1%} differs. Another colour, or a number, would.",
            measured=round(reading.value, 4),
            limit=MOST_DIFFERENT,
        )
        for reading in evidence.seen("twins")
        if reading.value <= MOST_DIFFERENT
    ]


def label(_finding: Finding) -> str:
    """In words."""
    return "a twin"


RULE = Rule("twins", "seen", judge, label)
