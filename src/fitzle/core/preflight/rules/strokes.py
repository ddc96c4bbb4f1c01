"""Strokes of a mark that are too thin to be seen where it is seen smallest."""

from __future__ import annotations

from fitzle.core.eye.strokes import LEAST_SEEN_STROKE_PX
from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule

MOST_THIN = 0.08  # of the strokes


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each mark whose strokes vanish."""
    return [
        Finding(
            rule="strokes",
            severity="risky",
            message=f"Seen {reading.seen_px:.0f} px long, {reading.value:.0%} of the mark's strokes are thinner than"
            f" {LEAST_SEEN_STROKE_PX} px and fade. Heavier strokes, or a simpler version, would hold.",
            measured=round(reading.value, 3),
            limit=MOST_THIN,
            where=evidence.where(reading.part),
            part=reading.part,
        )
        for reading in evidence.seen("strokes")
        if reading.value > MOST_THIN
    ]


def label(finding: Finding) -> str:
    """For example `27% too thin`."""
    return f"{finding.measured:.0%} too thin"


RULE = Rule("strokes", "seen", judge, label)
