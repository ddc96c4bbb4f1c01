"""More words and parts than the size seen can carry."""

from __future__ import annotations

import math

from fitzle.core.findings import Finding
from fitzle.core.preflight.rule import Evidence, Rule
from fitzle.core.preflight.viewing import smallest_viewing

LEAST_ROOM_PX = 30.0  # seen px of the side of a square that each word or part has
MOST_WORDS = 12  # that anybody reads in passing
SMALL_PX = 480  # seen px: up to that a picture is looked at in passing


def judge(evidence: Evidence) -> list[Finding]:
    """At most one note."""
    viewing = smallest_viewing(evidence.sheet)
    words = sum(len(line.split()) for own in evidence.plan.words for line in own.layout.lines)
    parts = words + len(evidence.plan.parts) - len(evidence.plan.words)
    if viewing is None or parts < 2:
        return []
    size = evidence.plan.size
    area = viewing.width * viewing.width * size.height / size.width
    room = math.sqrt(area / parts)
    if room >= LEAST_ROOM_PX and (words <= MOST_WORDS or viewing.width > SMALL_PX):
        return []
    crowded = room < LEAST_ROOM_PX
    figure = (
        f"each of {parts} words and parts has {room:.0f} px of room, and {LEAST_ROOM_PX:.0f} is the least"
        if crowded
        else f"{words} words are more than the {MOST_WORDS} that are read in passing"
    )
    return [
        Finding(
            rule="crowded",
            severity="note",
            message=f"At {viewing.name}, {viewing.width} px wide, {figure}. Leave out what can be missed here.",
            measured=round(room, 1) if crowded else words,
            limit=LEAST_ROOM_PX if crowded else MOST_WORDS,
        )
    ]


def label(_finding: Finding) -> str:
    """In words."""
    return "crowded"


RULE = Rule("crowded", "plan", judge, label)
