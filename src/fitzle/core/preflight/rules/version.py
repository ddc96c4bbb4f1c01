"""Another version of a mark stands in its place, because it shows better there (decision 0016)."""

from __future__ import annotations

from fitzle.core.findings import Finding
from fitzle.core.plan.versions import ChosenVersion
from fitzle.core.preflight.rule import Evidence, Rule


def judge(evidence: Evidence) -> list[Finding]:
    """A note with both figures for each mark of which another version stands there."""
    chosen = {one.artwork: one for one in evidence.versions}
    return [_note(chosen[own.artwork], own.part) for own in evidence.plan.artworks if own.artwork in chosen]


def _note(chosen: ChosenVersion, part: str) -> Finding:
    return Finding(
        rule="version",
        severity="note",
        message=f"The version of this mark that shows best stands here: {chosen.contrast:.1f} : 1 on what is behind it,"
        f" against {chosen.instead_of:.1f}.",
        measured=round(chosen.contrast, 2),
        limit=round(chosen.instead_of, 2),
        part=part,
    )


RULE = Rule("version", "pixels", judge, lambda _finding: "another version")
