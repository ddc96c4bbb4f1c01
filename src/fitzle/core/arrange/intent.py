"""What a composed piece means: what belongs together, what stands where to what, in the shape it was composed for."""

from __future__ import annotations

import math
from collections.abc import Collection, Mapping, Sequence
from itertools import combinations
from typing import Literal, NamedTuple

from fitzle.core.arrange.boxes import Side, side_of
from fitzle.core.arrange.grouping import Groups, groups_of
from fitzle.core.arrange.members import Edge, Member, members_of
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.parts import AnyPart
from fitzle.core.plan.planning import plan_parts
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size

Common = Literal["left", "centre", "right"]
LEAST_MARGIN, MOST_MARGIN, USUAL_MARGIN = 0.045, 0.085, 0.06  # of the short side
SAME_LINE = 0.012  # in units: edges that are so near are one
NEAR_AN_EDGE = 1.7  # margins


class Intent(NamedTuple):
    """A piece in the shape that it was composed for. `unit` is the square root of its area in px, `margin` a share of
    its short side.

    `sides` says of pairs of parts on which side of the second the first one stands, `common` which edge or middle two
    have in common, `near` which edges of the picture a part keeps to, `middle` which parts stand in the middle.
    """

    size: Size
    unit: float
    margin: float
    members: dict[str, Member]
    groups: Groups
    sides: dict[tuple[str, str], Side]
    common: dict[tuple[str, str], Common]
    near: dict[str, frozenset[Edge]]
    middle: frozenset[str]


def softened(intent: Intent, kept: Collection[str]) -> Intent:
    """The intent without the line breaks that may go, but those of parts that are `kept`."""
    members = {
        part: one._replace(table=one.soft) if one.soft and part not in kept else one
        for part, one in intent.members.items()
    }
    columns = [[members[one.part] for one in column] for column in intent.groups.columns]
    return intent._replace(members=members, groups=intent.groups._replace(columns=columns))


def intent_of(parts: Sequence[AnyPart], sheet: SpecSheet, facts: Mapping[str, ArtworkFacts]) -> Intent:
    """The intent of parts in the place that they were composed for; raises DocumentError as planning does."""
    plan = plan_parts(parts, sheet, facts)
    return intent_from(members_of(plan, parts, facts), plan.size)


def intent_from(members: Sequence[Member], size: Size) -> Intent:
    """The intent of members in a picture of a size."""
    unit = math.sqrt(size.width * size.height)
    groups = groups_of(members, size, unit)
    front = [member for member in members if not member.backdrop]
    margin = _margin(front, size)
    free = [member for member in front if member.part not in groups.hosts]
    near = {member.part: _near(member.box, size, NEAR_AN_EDGE * margin * size.short_side) for member in free}
    middle = {
        member.part
        for member in free
        if abs(member.box.centre.x - size.width / 2) < SAME_LINE * unit and not near[member.part] >= {"left", "right"}
    }
    return Intent(
        size, unit, margin, {member.part: member for member in members}, groups, _sides(free, groups),
        _common(free, groups, unit), near, frozenset(middle),
    )  # fmt: skip


def _margin(front: Sequence[Member], size: Size) -> float:
    """The distance that parts keep from the edge, as a share of the short side, within what looks meant."""
    inner = [
        min(box.x, box.y, size.width - box.right, size.height - box.bottom)
        for box in (member.box for member in front if not member.bleeds)
    ]
    own = min(inner) / size.short_side if inner else USUAL_MARGIN
    return min(max(own, LEAST_MARGIN), MOST_MARGIN)


def _near(box: Rect, size: Size, within_px: float) -> frozenset[Edge]:
    distances: dict[Edge, float] = {
        "left": box.x, "top": box.y, "right": size.width - box.right, "bottom": size.height - box.bottom
    }  # fmt: skip
    return frozenset(edge for edge, distance in distances.items() if distance < within_px)


def _sides(free: Sequence[Member], groups: Groups) -> dict[tuple[str, str], Side]:
    """How parts stand to each other; those that lie over each other on purpose, and riders, are left out."""
    found: dict[tuple[str, str], Side] = {}
    for one, other in combinations(free, 2):
        side = side_of(one.box, other.box)
        if side and frozenset((one.part, other.part)) not in groups.meant:
            found[one.part, other.part] = side
    return found


def _common(free: Sequence[Member], groups: Groups, unit: float) -> dict[tuple[str, str], Common]:
    found: dict[tuple[str, str], Common] = {}
    standing = [member for member in free if member.part not in groups.panels]
    for one, other in combinations(standing, 2):
        if any(member.kind == "picture" and member.bleeds for member in (one, other)):
            continue
        a, b = one.box, other.box
        apart: dict[Common, float] = {
            "left": abs(a.x - b.x), "right": abs(a.right - b.right), "centre": abs(a.centre.x - b.centre.x)
        }  # fmt: skip
        line = next((name for name, distance in apart.items() if distance < SAME_LINE * unit), None)
        if line:
            found[one.part, other.part] = line
    return found
