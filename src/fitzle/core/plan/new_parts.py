"""Parts as they come in: where they stand at first and what they look like."""

from __future__ import annotations

from typing import Any

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.errors import DocumentError
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.piece.changes import AddPart, SetField
from fitzle.core.piece.parts import Box
from fitzle.core.plan.standing import kept_inside, standing_at
from fitzle.core.type.library import USUAL_FAMILY
from fitzle.core.units import Size

NEW_SIDE = 0.5  # of the picture's width and height: large enough to see and small enough to move
# At most 0.86 short sides wide, so that they stand free of the edges in a square picture too.
_WORDS: dict[str, tuple[str, Box, float]] = {  # text, where it stands, weight
    "headline": ("Headline", Box(anchor="left", dx=0.07, dy=-0.05, width=0.86, height=0.4), 800),
    "second line": ("Second line", Box(anchor="bottom-left", dx=0.07, dy=-0.08, width=0.86, height=0.16), 600),
    "byline": ("Byline", Box(anchor="bottom-left", dx=0.07, dy=-0.06, width=0.8, height=0.12), 600),
    "badge": ("New", Box(anchor="top-right", dx=-0.07, dy=0.07, width=0.4, height=0.2), 800),
}


def words_part(role: str, heading: str = USUAL_FAMILY, text: str = USUAL_FAMILY, strong: str = "#17181a") -> AddPart:
    """The change that adds words of this role; raises DocumentError for another role."""
    if role not in _WORDS:
        raise DocumentError(f"there is no part with the role {role!r} to add")
    words, stands, weight = _WORDS[role]
    value: dict[str, Any] = {
        "role": role,
        "text": words,
        "stands": stands.model_dump(),
        "family": heading if weight == 800 else text,
        "weight": weight,
    }
    if role == "badge":
        value |= {"plate": {"colour": strong, "shape": "pill", "padding": 0.6}, "align": "centre"}
    return AddPart(part=role.replace(" ", "-"), value=value)


def shape_part(shape: str, colour: str) -> AddPart:
    """The change that adds a shape in the middle."""
    stands = Box(anchor="centre", width=NEW_SIDE, height=NEW_SIDE)
    fill = {"kind": "solid", "colour": colour}
    return AddPart(part="shape", value={"role": "shape", "shape": shape, "stands": stands.model_dump(), "fill": fill})


def artwork_part(artwork: str, facts: ArtworkFacts, size: Size, at: Point | None = None) -> AddPart:
    """The change that adds a picture or mark with its middle at a point (px), kept inside, never stretched."""
    natural = facts.trimmed.rect if facts.kind == "mark" else Rect(0, 0, facts.width, facts.height)
    factor = min(NEW_SIDE * size.width / natural.width, NEW_SIDE * size.height / natural.height)
    width, height = natural.width * factor, natural.height * factor
    middle = at or Point(size.width / 2, size.height / 2)
    whole = Rect(0, 0, size.width, size.height)
    room = kept_inside(Rect(middle.x - width / 2, middle.y - height / 2, width, height), 0, whole)
    stands, _ = standing_at(room, size)
    value = {"role": facts.kind, "artwork": artwork, "stands": stands.model_dump()}
    return AddPart(part=facts.kind, value=value)


def replacing(part: str, artwork: str, placement: str | None = None) -> list[SetField]:
    """The changes that put another artwork in the place of a part's own."""
    fields: dict[str, Any] = {"artwork": artwork, "focal_point": None, "zoom": 1, "recolour": {}}
    return [SetField(part=part, field=field, value=value, placement=placement) for field, value in fields.items()]
