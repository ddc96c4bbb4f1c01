"""A mark whose contour runs together where it is seen smallest."""

from __future__ import annotations

from fitzle.core.eye.smudge import RUNS_TOGETHER
from fitzle.core.findings import Finding, Offer
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.preflight.simpler import simpler_repair, simpler_version

SHOWS = 0.6  # of the contour


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each mark that smudges."""
    return [
        Finding(
            rule="smudge",
            severity="risky" if reading.value > SHOWS else "note",
            message=f"Seen {reading.seen_px:.0f} px long, {reading.value:.0%} of the mark's contour runs together."
            " A simpler version, or a larger one, would still be told.",
            measured=round(reading.value, 3),
            limit=SHOWS,
            where=evidence.where(reading.part),
            repair=simpler_repair(evidence, reading.part),
            offer=_offer(evidence, reading),
            part=reading.part,
        )
        for reading in evidence.seen("smudge")
        if reading.value > RUNS_TOGETHER
    ]


def _offer(evidence: Evidence, reading: EyeReading) -> Offer | None:
    """Fewer parts of a drawing that has parts; not where another version does it already."""
    own = next((one for one in evidence.artworks() if one.part.part == reading.part), None)
    if own is None or not own.facts.vector or own.facts.format != "svg" or reading.instead or reading.value <= SHOWS:
        return None
    return Offer(step="simpler", artwork=own.part.artwork, label="Leave out its small parts here")


def label(finding: Finding) -> str:
    """For example `74% runs together`."""
    return f"{finding.measured:.0%} runs together"


RULE = Rule("smudge", "seen", judge, label, {"simpler-version": simpler_version})
