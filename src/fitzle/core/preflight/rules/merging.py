"""Colours side by side that become one to people who lack a kind of cones."""

from __future__ import annotations

from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.neighbours import pair_is_told
from fitzle.core.findings import Finding
from fitzle.core.piece.changes import Change
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.recolouring import recolour_repair, recoloured
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
            repair=recolour_repair("tell-apart", worst, evidence, _holds),
        )
    ]


def _holds(one: Rgb, other: Rgb) -> bool:
    return pair_is_told(one, other)


def tell_apart(piece: Piece, placement: str, evidence: Evidence, _part: str | None) -> list[Change]:
    """One of the two colours made lighter or darker, its hue kept, until all eyes tell them apart."""
    found = max(evidence.seen("merging"), key=lambda one: one.value, default=None)
    return recoloured(piece, placement, evidence, found, _holds) if found else []


def label(_finding: Finding) -> str:
    """In words."""
    return "colours merge"


RULE = Rule("merging", "seen", judge, label, {"tell-apart": tell_apart})
