"""Arrangements that differ in kind: where the words stand to the picture, or where in it."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal, NamedTuple

from fitzle.core.arrange.blocks import blocks_of
from fitzle.core.arrange.boxes import Side, side_of
from fitzle.core.arrange.draft import Draft
from fitzle.core.arrange.intent import Intent, intent_from
from fitzle.core.arrange.members import Edge, Member
from fitzle.core.arrange.place import Place
from fitzle.core.arrange.search import Scored, best_of, refined, tried_ways
from fitzle.core.arrange.whole import wholes
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

ACROSS: dict[Edge, Edge] = {"left": "right", "right": "left"}
DOWN: dict[Edge, Edge] = {"top": "bottom", "bottom": "top"}
THIRD = 1 / 3
REFINED_OF_EACH = 3  # times the kinds that are asked for
MOST_WORSE = 4.0  # of energy, than the best: beyond that nobody would want it

Across = Literal["left", "centre", "right"]
Down = Literal["top", "middle", "bottom"]


class Kind(NamedTuple):
    """What an arrangement is told by: the `first` part stands at a `side` of the `second`, or (without one beside it)
    in a third of the picture.
    """

    first: str
    second: str = ""
    side: Side | None = None
    across: Across | None = None
    down: Down | None = None


def kind_of(draft: Draft) -> Kind | None:
    """The kind of an arrangement, by the roles of its two most important parts; None where nothing stands in front."""
    standing = sorted(draft.solid, key=lambda member: -member.importance)
    first = next((member for member in standing if member.kind == "words"), standing[0] if standing else None)
    if first is None:
        return None
    second = next((one for one in standing if one.kind != first.kind and not draft.meant(one, first)), None)
    if second and (side := side_of(draft.boxes[first.part], draft.boxes[second.part])):
        return Kind(first.role, second.role, side)
    return _in_the_picture(first, draft)


def _in_the_picture(first: Member, draft: Draft) -> Kind:
    (width, height), centre = draft.place.size, draft.boxes[first.part].centre
    x, y = centre.x / width, centre.y / height
    across: Across = "left" if x < THIRD else "right" if x > 1 - THIRD else "centre"
    down: Down = "top" if y < THIRD else "bottom" if y > 1 - THIRD else "middle"
    return Kind(first.role, "", None, across, down)


def varied_drafts(intent: Intent, place: Place, most: int) -> list[tuple[Kind, Draft]]:
    """The best arrangement of each kind, at most so many, the one of least energy first; the same parts in each."""
    kept = best_of(intent, place, frozenset(intent.members)).draft.kept
    rough: dict[Kind, Scored] = {}
    for meant in (intent, turned(intent, across=True), turned(intent, across=False)):
        for one in _all(meant, place, kept):
            _note(rough, one)
    best: dict[Kind, Scored] = {}
    for one in sorted(rough.values(), key=lambda one: one.energy)[: REFINED_OF_EACH * most]:
        _note(best, one)
        if one.way:
            _note(best, refined(one.draft.intent, place, kept, one))
    found = sorted(best.items(), key=lambda entry: entry[1].energy)
    least = found[0][1].energy if found else 0.0
    return [(kind, one.draft) for kind, one in found if one.energy <= least + MOST_WORSE][:most]


def turned(intent: Intent, *, across: bool) -> Intent:
    """An intent whose blocks stand at the opposite sides, or (not across) in the opposite order from top to bottom."""
    moved: dict[str, tuple[float, float]] = {}
    for block in blocks_of(intent, frozenset(intent.members)):
        by = _to_the_opposite(block.box, intent.size, across=across)
        moved |= {member.part: by for member in (*block.members, *([block.panel] if block.panel else []))}
    moved |= {part: moved[host] for part, host in intent.groups.hosts.items() if host in moved}
    return intent_from(
        [_moved(member, moved.get(member.part), across=across) for member in intent.members.values()], intent.size
    )


def _to_the_opposite(box: Rect, size: Size, *, across: bool) -> tuple[float, float]:
    return (size.width - box.right - box.x, 0.0) if across else (0.0, size.height - box.bottom - box.y)


def _moved(member: Member, by: tuple[float, float] | None, *, across: bool) -> Member:
    if by is None:
        return member
    turn = ACROSS if across else DOWN
    box = member.box._replace(x=member.box.x + by[0], y=member.box.y + by[1])
    return member._replace(box=box, bleeds=frozenset(turn.get(edge, edge) for edge in member.bleeds))


def _all(intent: Intent, place: Place, kept: frozenset[str]) -> Iterator[Scored]:
    yield from tried_ways(intent, place, kept)
    for draft in wholes(intent, place, kept):
        yield Scored.of(draft)


def _note(best: dict[Kind, Scored], one: Scored) -> None:
    kind = kind_of(one.draft)
    if kind and (kind not in best or one.energy < best[kind].energy):
        best[kind] = one
