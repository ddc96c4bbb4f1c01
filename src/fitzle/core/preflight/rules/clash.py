"""Saturated colours of one lightness side by side: their edge seems to vibrate."""

from __future__ import annotations

from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule

LONGEST = 0.6  # picture sides of border


def judge(evidence: Evidence) -> list[Finding]:
    """At most one note."""
    return [
        Finding(
            rule="clash",
            severity="note",
            message=f"{' and '.join(reading.colours)} are as light as each other and both strong: the edge between them"
            " seems to vibrate. Make one of them lighter, or draw a thin line between them.",
            measured=round(reading.value, 2),
            limit=LONGEST,
        )
        for reading in evidence.seen("clash")
        if reading.value > LONGEST
    ]


def label(_finding: Finding) -> str:
    """In words."""
    return "edges vibrate"


RULE = Rule("clash", "seen", judge, label)
