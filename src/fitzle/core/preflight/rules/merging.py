"""Colours side by side that become one to people who lack a kind of cones."""

from __future__ import annotations

from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule

LONGEST = 0.2  # picture sides of border
_WHO = {"protan": "red-blind", "deutan": "green-blind", "tritan": "blue-blind"}


def judge(evidence: Evidence) -> list[Finding]:
    """At most one note, of the kind of vision for which most is lost."""
    found = [reading for reading in evidence.seen("merging") if reading.value > LONGEST]
    if not found:
        return []
    worst = max(found, key=lambda reading: reading.value)
    people = " and ".join(_WHO[reading.on] for reading in found)
    return [
        Finding(
            rule="merging",
            severity="note",
            message=f"{' and '.join(worst.colours)} look alike to {people} people. Make one of them lighter.",
            measured=round(worst.value, 2),
            limit=LONGEST,
        )
    ]


def label(_finding: Finding) -> str:
    """In words."""
    return "colours merge"


RULE = Rule("merging", "seen", judge, label)
