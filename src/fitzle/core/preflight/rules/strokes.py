"""Strokes of a mark that are too thin to be seen where it is seen smallest, and gaps between them that close."""

from __future__ import annotations

from fitzle.core.eye.strokes import LEAST_SEEN_STROKE_PX
from fitzle.core.findings import Finding, Repair
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.piece.effects import Edge
from fitzle.core.preflight.larger import enlarged_mark, has_room
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.preflight.simpler import simpler_repair

MOST_THIN, MOST_CLOSING = 0.08, 0.25  # of the strokes
ENLARGED_A_LITTLE_MORE = 1.05
HEAVIER = 1.6  # the mark is drawn a little smaller inside of its border
MOST_EDGE = 0.04  # of the short side: more is another mark


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each mark whose strokes vanish, or else whose gaps close."""
    thin = {one.part: one for one in evidence.seen("strokes") if one.value > MOST_THIN}
    gaps = {one.part: one for one in evidence.seen("gaps") if one.value > MOST_CLOSING and one.part not in thin}
    return [
        *(_finding(one, evidence, _thin_words(one), MOST_THIN) for one in thin.values()),
        *(_finding(one, evidence, _gap_words(one), MOST_CLOSING) for one in gaps.values()),
    ]


def _thin_words(reading: EyeReading) -> str:
    return (
        f"Seen {reading.seen_px:.0f} px long, {reading.value:.0%} of the mark's strokes are thinner than"
        f" {LEAST_SEEN_STROKE_PX} px and fade, the thinnest {reading.detail:.1f} px. Heavier strokes, or a simpler"
        " version, would hold."
    )


def _gap_words(reading: EyeReading) -> str:
    return (
        f"Seen {reading.seen_px:.0f} px long, gaps between the mark's strokes are under {LEAST_SEEN_STROKE_PX} px and"
        " close. A simpler version, or a larger one, would stay open."
    )


def _finding(reading: EyeReading, evidence: Evidence, message: str, limit: float) -> Finding:
    room = has_room(evidence, reading.part, _factor(reading))
    larger = Repair(name="enlarge-mark", label="Make it larger") if room else None
    heavier = (
        Repair(name="heavier-strokes", label="Draw its strokes heavier") if _line_needed(reading, evidence) else None
    )
    repairs = [one for one in (simpler_repair(evidence, reading.part), larger, heavier) if one]
    return Finding(
        rule="strokes",
        severity="risky",
        message=message,
        measured=round(reading.value, 3),
        limit=limit,
        where=evidence.where(reading.part),
        repair=next(iter(repairs), None),
        other_repairs=tuple(repairs[1:]),
        part=reading.part,
    )


def _factor(reading: EyeReading) -> float:
    """How much larger the thinnest stroke would have to be."""
    return ENLARGED_A_LITTLE_MORE * LEAST_SEEN_STROKE_PX / max(reading.detail, 0.05) if reading.detail else 2.0


def enlarge_mark(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The box of the mark made larger about its middle until its thinnest strokes are seen."""
    found = [one for one in evidence.seen("strokes") if part in (None, one.part)]
    return [change for one in found for change in enlarged_mark(evidence, one.part, _factor(one), placement)]


def _line_needed(reading: EyeReading, evidence: Evidence) -> Edge | None:
    """A border of the mark's own colour that makes its thinnest strokes wide enough; None for one of many colours."""
    own = next((one for one in evidence.artworks() if one.part.part == reading.part), None)
    if own is None or not own.facts.one_colour or reading.rule != "strokes" or own.part.look.edge:
        return None
    missing_px = (HEAVIER * LEAST_SEEN_STROKE_PX - reading.detail) / 2
    scale = reading.seen_px / max(own.part.box.width, own.part.box.height)
    width = missing_px / scale / own.plan.size.short_side
    if not 0 < width <= MOST_EDGE:
        return None
    return Edge(width=width, colour=own.part.tint or own.facts.colours[0].hex)


def heavier_strokes(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """A border of its own colour around the mark."""
    found = [(one.part, _line_needed(one, evidence)) for one in evidence.seen("strokes") if part in (None, one.part)]
    return [
        SetField(part=own, field="edge", value=edge.model_dump(), placement=placement) for own, edge in found if edge
    ]


def label(finding: Finding) -> str:
    """For example `27% too thin`."""
    return f"{finding.measured:.0%} too thin" if finding.limit == MOST_THIN else "gaps close"


RULE = Rule("strokes", "seen", judge, label, {"enlarge-mark": enlarge_mark, "heavier-strokes": heavier_strokes})
