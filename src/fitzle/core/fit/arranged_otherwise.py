"""Proposals that place the parts otherwise: by the calculation that arranges other places, each of another kind."""

from __future__ import annotations

from collections.abc import Iterator

from fitzle.core.arrange.adjusting import adjustments_of
from fitzle.core.arrange.intent import intent_of
from fitzle.core.arrange.place import place_of
from fitzle.core.arrange.variety import Kind, varied_drafts
from fitzle.core.fit.deciding import Decided
from fitzle.core.fit.proposal import Proposal
from fitzle.core.piece.scoping import FieldValue
from fitzle.core.spec.sheet import ExactSize

FEWEST = 2  # parts in front: one alone is moved by hand
KINDS = 4  # one of them is often what is there
FIRST = {"picture": "The picture", "mark": "The mark"}
SECOND = {"picture": "the picture", "mark": "the mark"}
SIDES = {"left": "left of", "right": "right of", "above": "above", "below": "below"}


def arranged_otherwise(there: Decided) -> Iterator[Proposal]:
    """Arrangements of the parts that are there, in the place where they are; the best first."""
    parts, sheet, facts = there.resolved.parts, there.resolved.sheet, there.resolved.facts
    size = there.plan.size
    exact = sheet.model_copy(update={"size": ExactSize(width=size.width, height=size.height)})
    intent = intent_of(parts, exact, facts)
    place = place_of(sheet, size, intent.margin)
    if place.icon or sum(not member.backdrop for member in intent.members.values()) < FEWEST:
        return
    for kind, draft in varied_drafts(intent, place, KINDS):
        values = [
            FieldValue(part=part, field=field, value=value)
            for part, fields in adjustments_of(draft, parts).items()
            for field, value in fields.items()
        ]
        if values:
            yield Proposal(_name(kind), words_of(kind), tuple(values), here=True)


def words_of(kind: Kind) -> str:
    """A kind of arrangement in words."""
    first = FIRST.get(kind.first, "Words")
    if kind.side:
        return f"{first} {SIDES[kind.side]} {SECOND.get(kind.second, 'the words')}"
    if kind.down == "middle" and kind.across == "centre":
        return f"{first} in the middle"
    down = "half-way up" if kind.down == "middle" else f"at the {kind.down}"
    return f"{first} {down}" if kind.across == "centre" else f"{first} {down}, on the {kind.across}"


def _name(kind: Kind) -> str:
    told = (kind.first, kind.side, kind.second) if kind.side else (kind.first, kind.down, kind.across)
    return "-".join(["arranged", *(str(one).replace(" ", "-") for one in told)])
