"""Saturated colours of one lightness side by side: their edge seems to vibrate."""

from __future__ import annotations

from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.neighbours import pair_is_calm
from fitzle.core.findings import Finding
from fitzle.core.piece.changes import Change
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.recolouring import recolour_repair, recoloured
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
            repair=recolour_repair("calm-edge", reading, evidence, _holds),
        )
        for reading in evidence.seen("clash")
        if reading.value > LONGEST
    ]


def _holds(one: Rgb, other: Rgb) -> bool:
    return pair_is_calm(one, other)


def calm_edge(piece: Piece, placement: str, evidence: Evidence, _part: str | None) -> list[Change]:
    """One of the two colours made lighter or darker, its hue kept, until the edge between them is calm."""
    found = max(evidence.seen("clash"), key=lambda one: one.value, default=None)
    return recoloured(piece, placement, evidence, found, _holds) if found else []


def label(_finding: Finding) -> str:
    """In words."""
    return "edges vibrate"


RULE = Rule("clash", "seen", judge, label, {"calm-edge": calm_edge})
