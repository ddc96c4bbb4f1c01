"""An arrangement as adjustments: the fields of parts that differ in one placement, as a person would have set them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from fitzle.core.arrange.draft import Draft
from fitzle.core.arrange.members import Member
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.fills import PictureFill
from fitzle.core.piece.parts import AnyPart, GroundPart
from fitzle.core.plan.standing import standing_at

HAIR = 0.002  # of a box of words, on each side: rounding must not cost them a line

Adjustments = dict[str, dict[str, Any]]


def adjustments_of(draft: Draft, parts: Sequence[AnyPart]) -> Adjustments:
    """For each part the fields that differ in this place."""
    found: Adjustments = {}
    for part in parts:
        if isinstance(part, GroundPart):
            if isinstance(part.fill, PictureFill) and part.id in draft.windows:
                fill = part.fill.model_dump(mode="json")
                found[part.id] = {"fill": {**fill, "focal_point": _focal_point(draft, part.id)}}
        elif _stays(part.id, draft):
            continue
        elif part.id in draft.intent.members and not part.hidden:
            member = draft.intent.members[part.id]
            found[part.id] = _fields(draft, member) if part.id in draft.boxes else {"hidden": True}
    return {part: fields for part, fields in found.items() if fields}


def _stays(part: str, draft: Draft) -> bool:
    pin = draft.place.pins.get(part)
    return pin is not None and not pin.implied


def _fields(draft: Draft, member: Member) -> dict[str, Any]:
    fields: dict[str, Any] = {}
    if not member.backdrop:
        box = draft.boxes[member.part]
        if member.kind == "words":
            box = _with_a_hair(box)
        stands, beyond = standing_at(box, draft.place.size)
        fields["stands"] = stands.model_dump(mode="json")
        if beyond and member.bleeds:
            fields["beyond"] = False
    if member.kind == "words":
        fields |= {"align": draft.aligned[member.part], "size": None, "vertical_align": "middle"}
    if member.part in draft.windows:
        fields["focal_point"] = _focal_point(draft, member.part)
    return fields


def _with_a_hair(box: Rect) -> Rect:
    across, down = HAIR * box.width, HAIR * box.height
    return Rect(box.x - across, box.y - down, box.width + 2 * across, box.height + 2 * down)


def _focal_point(draft: Draft, part: str) -> dict[str, float]:
    """The middle of the window, in fractions of the artwork."""
    subject = draft.intent.members[part].subject
    assert subject
    middle, whole = draft.windows[part].window.centre, subject.whole
    return {
        "x": min(max((middle.x - whole.x) / whole.width, 0.0), 1.0),
        "y": min(max((middle.y - whole.y) / whole.height, 0.0), 1.0),
    }
