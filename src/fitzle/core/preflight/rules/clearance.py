"""A mark that comes too near to the edge of what shows."""

from __future__ import annotations

import math

from fitzle.core.findings import Finding, Repair
from fitzle.core.geometry.rect import Point
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.plan.padding import least_clearance_px
from fitzle.core.preflight.places import where_in
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence, Rule
from fitzle.core.spec.sheet import CircleMask

ROUNDING_PX = 0.01
TOUCHES_PX, CUT_OFF_PX = 0.05, -0.5


def clearance_px(own: ArtworkInPlan) -> float:
    """The least distance of the contents to the edge of what shows, in px; below 0 they are cut."""
    box, size = own.part.box, own.plan.size
    straight = min(box.x, box.y, size.width - box.right, size.height - box.bottom)
    if own.sheet.mask is None:
        return straight
    mask, reach = own.sheet.mask.outline, own.facts.reach
    if mask.shape == "circle":
        away = math.hypot(box.centre.x - size.width / 2, box.centre.y - size.height / 2)
        farthest = away + reach * math.hypot(box.width, box.height) / 2
        return min(straight, mask.radius_px(size.width, size.height) - farthest)
    corners = [
        Point(box.centre.x + x * reach * box.width / 2, box.centre.y + y * reach * box.height / 2)
        for x in (-1, 1)
        for y in (-1, 1)
    ]
    return min(straight, *(mask.depth(corner, size.width, size.height) for corner in corners))


def judge(evidence: Evidence) -> list[Finding]:
    """One finding for each mark that is too near."""
    return [found for own in evidence.artworks() if own.facts.kind == "mark" and (found := _too_near(own))]


def _too_near(own: ArtworkInPlan) -> Finding | None:
    least, found = least_clearance_px(own.plan.size.short_side), clearance_px(own)
    if found >= least - ROUNDING_PX:
        return None
    edge = "the circle it is shown in" if isinstance(own.sheet.mask, CircleMask) else "the edge"
    how = (
        f"comes within {found:.1f} px of"
        if found > TOUCHES_PX
        else "touches"
        if found > CUT_OFF_PX
        else "is cut off by"
    )
    return Finding(
        rule="clearance",
        severity="risky",
        message=f"The mark {how} {edge}. {least:.3g} px is the least that looks intended here.",
        measured=round(found, 2),
        limit=round(least, 2),
        where=where_in(own.plan, own.part.box),
        repair=Repair(name="add-padding", label="Add padding"),
        part=own.part.part,
    )


def add_padding(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """Shows the mark whole, in the middle, with the padding that the plan would choose."""
    values = {"mode": "whole", "padding": None, "stands": "fill", "centring": "box"}
    return [
        SetField(part=own.part, field=field, value=value, placement=placement)
        for own in evidence.plan.artworks
        if part in (None, own.part)
        for field, value in values.items()
    ]


def label(finding: Finding) -> str:
    """For example `1.2 px from the edge`."""
    assert isinstance(finding.measured, float | int)
    return "touches the edge" if finding.measured < TOUCHES_PX else f"{finding.measured:.1f} px from the edge"


RULE = Rule("clearance", "plan", judge, label, {"add-padding": add_padding})
