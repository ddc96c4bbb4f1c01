"""An opaque backdrop that shows as a box: on another ground of the piece, or on the page."""

from __future__ import annotations

from fitzle.core.findings import Finding, Offer, Repair
from fitzle.core.preflight.backdrop_box import ShowingBox, showing_box
from fitzle.core.preflight.choosing_ground import choose_ground
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence, Rule


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each mark whose box shows."""
    return [_finding(own, box) for own in evidence.artworks() if (box := showing_box(own))]


def _finding(own: ArtworkInPlan, box: ShowingBox) -> Finding:
    return Finding(
        rule="box",
        severity="risky",
        message=_message(box),
        measured=box.backdrop,
        limit=box.against,
        where=where_in(own.plan, own.part.box),
        repair=None if box.on_page else Repair(name="choose-ground", label=f"Make the ground {box.backdrop}"),
        offer=Offer(step="cut out", artwork=own.part.artwork, label="Make its backdrop clear here"),
        part=own.part.part,
    )


def _message(box: ShowingBox) -> str:
    if not box.on_page:
        return f"Its own backdrop of {box.backdrop} shows as a box on the ground of {box.against}."
    return (
        f"It stands on a box of {box.backdrop} that shows on a page of {box.against}. A version with a clear background"
        " would not."
    )


RULE = Rule("box", "plan", judge, lambda _finding: "its box shows", {"choose-ground": choose_ground})
