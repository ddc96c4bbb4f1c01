"""A mark or words that come too near to the edge of what shows."""

from __future__ import annotations

import math

from fitzle.core.findings import Finding, Repair
from fitzle.core.geometry.path import flattened
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.piece.changes import Change, SetField
from fitzle.core.piece.document import Piece
from fitzle.core.plan.padding import least_clearance_px
from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.plan.standing import kept_inside, standing_at
from fitzle.core.preflight.places import quoted, where_in
from fitzle.core.preflight.rule import ArtworkInPlan, Evidence, Rule
from fitzle.core.preflight.viewing import smallest_viewing
from fitzle.core.spec.sheet import CircleMask, SpecSheet

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
    """One finding for each mark and each words that are too near."""
    marks = [found for own in evidence.artworks() if own.facts.kind == "mark" and (found := _too_near(own))]
    return marks + [found for words in evidence.plan.words if (found := _words_too_near(words, evidence))]


def _too_near(own: ArtworkInPlan) -> Finding | None:
    least, found = least_clearance_px(own.plan.size.short_side), clearance_px(own)
    if found >= least - ROUNDING_PX:
        return None
    return Finding(
        rule="clearance",
        severity="risky",
        message=f"The mark {_how(found, own.plan, own.sheet)}. {least:.3g} px is the least that looks intended here.",
        measured=round(found, 2),
        limit=round(least, 2),
        where=where_in(own.plan, own.part.box),
        repair=Repair(name="add-padding", label="Add padding"),
        part=own.part.part,
    )


def _how(found: float, plan: Plan, sheet: SpecSheet) -> str:
    """In px of the file and, where that is another figure, as it is seen smallest."""
    edge = "the circle it is shown in" if isinstance(sheet.mask, CircleMask) else "the edge"
    if found <= TOUCHES_PX:
        return f"{'touches' if found > CUT_OFF_PX else 'is cut off by'} {edge}"
    viewing = smallest_viewing(sheet)
    seen = found * viewing.width / plan.size.width if viewing else found
    smaller = f" ({seen:.1f} px at {viewing.name})" if viewing and abs(seen - found) >= 0.1 else ""
    return f"comes within {found:.1f} px of {edge}{smaller}"


def words_clearance_px(words: PlacedWords, plan: Plan, sheet: SpecSheet) -> float:
    """The least distance of letters, or of their plate, to the edge of what shows, in px; below 0 they are cut."""
    outline = words.plate.path if words.plate else words.layout.outline()
    points = [point for contour in flattened(outline, 4) for point in contour]
    if not points:
        return math.inf
    width, height = plan.size
    straight = min(min(point.x, point.y, width - point.x, height - point.y) for point in points)
    if sheet.mask is None:
        return straight
    return min(straight, *(sheet.mask.outline.depth(point, width, height) for point in points))


def _depth_of(box: Rect, plan: Plan, sheet: SpecSheet) -> float:
    """The least distance of a box to the edge of what shows; masks bulge outwards, so the corners tell."""
    width, height = plan.size
    straight = min(box.x, box.y, width - box.right, height - box.bottom)
    if sheet.mask is None:
        return straight
    corners = [Point(x, y) for x in (box.x, box.right) for y in (box.y, box.bottom)]
    return min(straight, *(sheet.mask.outline.depth(corner, width, height) for corner in corners))


def _words_too_near(words: PlacedWords, evidence: Evidence) -> Finding | None:
    """Turned words are judged by eye: their letters are drawn elsewhere. A plate may reach the edge on purpose."""
    plan, sheet = evidence.plan, evidence.sheet
    if not words.layout.glyphs or words.look.rotation:
        return None
    least = least_clearance_px(plan.size.short_side)
    if _depth_of(words.layout.reach(), plan, sheet) >= least:  # nothing of them is nearer: their outline is spared
        return None
    found = words_clearance_px(words._replace(plate=None), plan, sheet)
    if found >= least - ROUNDING_PX:
        return None
    return Finding(
        rule="clearance",
        severity="risky",
        message=f"{quoted(words)} {_how(found, plan, sheet)}. {least:.3g} px is the least that looks intended here.",
        measured=round(found, 2),
        limit=round(least, 2),
        where=where_in(plan, words.box),
        repair=Repair(name="move-inside", label="Move it inside"),
        part=words.part,
    )


def move_inside(_piece: Piece, placement: str, evidence: Evidence, part: str | None) -> list[Change]:
    """The box of words moved, and made smaller where it must be, until nothing comes near to the edge."""
    size = evidence.plan.size
    room = Rect(0, 0, size.width, size.height).inset(2 * least_clearance_px(size.short_side))
    if isinstance(evidence.sheet.mask, CircleMask):
        side = room.width * math.sqrt(0.5), room.height * math.sqrt(0.5)
        room = Rect(room.centre.x - side[0] / 2, room.centre.y - side[1] / 2, *side)
    changes: list[Change] = []
    for own in evidence.plan.words:
        if part in (None, own.part) and _words_too_near(own, evidence):
            stands, beyond = standing_at(kept_inside(own.stands, 0, room), size)
            changes.append(SetField(part=own.part, field="stands", value=stands.model_dump(), placement=placement))
            changes.append(SetField(part=own.part, field="beyond", value=beyond, placement=placement))
    return changes


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


RULE = Rule("clearance", "plan", judge, label, {"add-padding": add_padding, "move-inside": move_inside})
