"""A ground that was given because the placement takes no transparency."""

from __future__ import annotations

from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule


def judge(evidence: Evidence) -> list[Finding]:
    """A note with the colour."""
    if not evidence.plan.ground_given:
        return []
    ground = evidence.plan.ground
    return [
        Finding(
            rule="ground-given",
            severity="note",
            message=f"This place takes no transparency, so it was given a ground of {ground}.",
            measured=ground,
            limit=evidence.sheet.transparency,
        )
    ]


RULE = Rule("ground-given", "plan", judge, lambda _finding: "ground added")
