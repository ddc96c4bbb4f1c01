"""One mark alone in a square or circle that does not stand in the middle for the eye."""

from __future__ import annotations

from fitzle.core.findings import Finding, Repair
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.rule import Evidence, Rule

MOST_OFF = 0.03  # of a side
_SAID = {"right": "too far right", "left": "too far left", "low": "too low", "high": "too high"}


def judge(evidence: Evidence) -> list[Finding]:
    """At most one finding."""
    return [
        Finding(
            rule="off-centre",
            severity="risky",
            message=f"The mark stands {_SAID[reading.on]} for the eye, by {reading.value:.1%} of the picture.",
            measured=round(reading.value, 4),
            limit=MOST_OFF,
            where=evidence.where(reading.part),
            repair=Repair(name="centre-by-weight", label="Centre it by weight"),
            part=reading.part,
        )
        for reading in evidence.seen("off-centre")
        if reading.value > MOST_OFF
    ]


def centre_by_weight(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The middle of the mark's weight in the middle of the picture."""
    values = {"mode": "whole", "stands": "fill", "centring": "weight"}
    return [
        SetField(part=own.part, field=field, value=value, placement=placement)
        for own in evidence.plan.artworks
        if part in (None, own.part)
        for field, value in values.items()
    ]


def label(finding: Finding) -> str:
    """For example `4.1% off centre`."""
    return f"{finding.measured:.1%} off centre"


RULE = Rule("off-centre", "seen", judge, label, {"centre-by-weight": centre_by_weight})
