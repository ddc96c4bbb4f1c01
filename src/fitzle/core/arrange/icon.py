"""Places that are seen so small that one thing alone is told: the mark, else what a picture shows, else a letter."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from fitzle.core.arrange.adjusting import Adjustments
from fitzle.core.arrange.boxes import area
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.members import Member, Subject
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.piece.fills import PictureFill
from fitzle.core.piece.parts import AnyPart, ArtworkPart, GroundPart
from fitzle.core.plan.grounds import readable_ground

AROUND_SUBJECT = 1.25  # times its longer side


def as_icon(intent: Intent, parts: Sequence[AnyPart], facts: Mapping[str, ArtworkFacts]) -> Adjustments:
    """One part of the piece filling the place, and all others hidden."""
    shown = _shown(intent)
    found: Adjustments = {}
    for part in parts:
        if isinstance(part, GroundPart):
            found[part.id] = _ground(part, shown, intent, parts, facts)
        elif shown is None or part.id != shown.part:
            found[part.id] = {"hidden": True}
        else:
            found[part.id] = _fields(shown, part)
    return {part: fields for part, fields in found.items() if fields}


def _shown(intent: Intent) -> Member | None:
    """The mark; else the picture in a frame of its own, the largest first; else the headline."""
    members = list(intent.members.values())
    marks = [member for member in members if member.kind == "mark"]
    pictures = [member for member in members if member.kind == "picture" and member.depth >= 0]
    framed = sorted(pictures, key=lambda member: (member.ratio is None, -area(member.box)))
    words = sorted((one for one in members if one.kind == "words"), key=lambda one: -one.importance)
    return next(iter([*marks, *framed, *words]), None)


def _fields(shown: Member, part: AnyPart) -> dict[str, Any]:
    if shown.kind == "words":
        return {"stands": "fill", "text": getattr(part, "text", "")[:1], "align": "centre", "size": None}
    fields: dict[str, Any] = {"stands": "fill"}
    if shown.kind == "picture" and shown.subject:
        fields |= {**_window(shown.subject), "die": None}
    return fields


def _window(subject: Subject) -> dict[str, Any]:
    """The subject with a little around it."""
    whole, own = subject.whole, subject.box
    short = min(whole.width, whole.height)
    side = min(AROUND_SUBJECT * max(own.width, own.height), short)
    x, y = (own.centre.x - whole.x) / whole.width, (own.centre.y - whole.y) / whole.height
    return {"focal_point": {"x": min(max(x, 0), 1), "y": min(max(y, 0), 1)}, "zoom": max(1.0, short / side)}


def _ground(
    ground: GroundPart,
    shown: Member | None,
    intent: Intent,
    parts: Sequence[AnyPart],
    facts: Mapping[str, ArtworkFacts],
) -> dict[str, Any]:
    """A mark that stood on a picture gets one of that picture's colours behind it, on which it is seen."""
    behind = next((one for one in intent.members.values() if one.backdrop and one.subject), None)
    if shown is None or shown.kind != "mark" or behind is None:
        return {}
    artworks = {part.id: part.artwork for part in parts if isinstance(part, ArtworkPart)}
    picture = ground.fill.artwork if isinstance(ground.fill, PictureFill) else artworks.get(behind.part)
    if picture is None or not (ground.fill is None or isinstance(ground.fill, PictureFill)):
        return {}
    colours = [colour.hex for colour in facts[picture].colours]
    return {"fill": {"kind": "solid", "colour": readable_ground(colours, [facts[artworks[shown.part]]])}}
