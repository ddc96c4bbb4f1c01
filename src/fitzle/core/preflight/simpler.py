"""A version of a mark of which less runs together at the size seen, put in its place."""

from __future__ import annotations

from fitzle.core.findings import Repair
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.rule import Evidence


def simpler_repair(evidence: Evidence, part: str) -> Repair | None:
    """The repair with the figure that it comes to, where one of the other versions does better."""
    better = next((one for one in evidence.seen("smudge") if one.part == part and one.instead), None)
    if better is None:
        return None
    becomes = f"{better.instead_value:.0%} runs together"
    return Repair(name="simpler-version", label="Use its simpler version here", becomes=becomes)


def simpler_version(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The version of which least runs together, in this place."""
    return [
        SetField(part=one.part, field="artwork", value=one.instead, placement=placement)
        for one in evidence.seen("smudge")
        if one.instead and part in (None, one.part)
    ]
