"""What belongs together in a composed piece: panels and what they hold, riders and their hosts, columns and rows."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from itertools import combinations
from typing import NamedTuple

from fitzle.core.arrange.boxes import area, around, shared
from fitzle.core.arrange.members import Member
from fitzle.core.units import Size

LAID_ON = 0.03  # of the smaller part: less is an accident
HELD = 0.8  # of a part on a shape, which is then its panel
RIDER = 0.7  # of its host: what is larger rides on nothing
OVER_EACH_OTHER = 0.3  # of the narrower one
SAME_EDGE, COLUMN_GAP = 0.04, 0.45  # in units of the picture
BETWEEN = 0.2  # of a part: so much of it between two words parts them
ALIKE = (0.6, 1.7)  # how much larger pictures of one row may be
IN_LINE = 0.05  # of the picture's side


class Groups(NamedTuple):
    """Panels with what they hold and riders with their host, by part; columns of words and rows of pictures.

    `meant` are pairs of parts that lie over each other on purpose.
    """

    panels: dict[str, tuple[str, ...]]
    hosts: dict[str, str]
    columns: list[list[Member]]
    rows: list[list[Member]]
    meant: frozenset[frozenset[str]]


def groups_of(members: Sequence[Member], size: Size, unit: float) -> Groups:
    """The groups of a piece; `unit` is the square root of the picture's area, in px."""
    front = [member for member in members if not member.backdrop]
    panels, hosts, meant = _laid_on(front)
    free = [member for member in front if member.part not in hosts and member.part not in panels]
    holders = {held: panel for panel, all_held in panels.items() for held in all_held}

    def one_column(one: Member, other: Member) -> bool:
        same_panel = holders.get(one.part) == holders.get(other.part)
        return same_panel and _in_one_column(one, other, free, unit)

    words = [member for member in free if member.kind == "words"]
    pictures = [member for member in free if member.kind == "picture"]
    columns = [sorted(column, key=lambda one: one.box.y) for column in joined(words, one_column)]
    rows = [
        sorted(row, key=lambda one: one.box.centre.x + one.box.centre.y)
        for row in joined(pictures, lambda one, other: _in_one_row(one, other, size))
    ]
    return Groups(panels, hosts, columns, rows, meant)


def joined(members: Iterable[Member], together: Callable[[Member, Member], bool]) -> list[list[Member]]:
    """Members in the groups that follow from pairs that belong together."""
    groups = [[member] for member in members]
    for one, other in combinations([group[0] for group in groups], 2):
        first = next(group for group in groups if one in group)
        second = next(group for group in groups if other in group)
        if first is not second and together(one, other):
            first += second
            groups = [group for group in groups if group is not second]
    return groups


def _laid_on(front: Sequence[Member]) -> tuple[dict[str, tuple[str, ...]], dict[str, str], frozenset[frozenset[str]]]:
    panels: dict[str, tuple[str, ...]] = {}
    hosts: dict[str, str] = {}
    meant: set[frozenset[str]] = set()
    for below, above in combinations(sorted(front, key=lambda one: one.depth), 2):
        both = shared(below.box, above.box)
        words_on_words = below.kind == above.kind == "words"
        if words_on_words or both <= LAID_ON * min(area(below.box), area(above.box)):
            continue
        meant.add(frozenset((below.part, above.part)))
        if below.kind == "shape" and both >= HELD * area(above.box):
            panels[below.part] = (*panels.get(below.part, ()), above.part)
        elif below.kind != "words" and area(above.box) < RIDER * area(below.box):
            hosts.setdefault(above.part, below.part)
    return panels, {part: host for part, host in hosts.items() if part not in panels}, frozenset(meant)


def _in_one_column(one: Member, other: Member, free: Sequence[Member], unit: float) -> bool:
    """Words over each other with a common edge or middle, near, and with nothing between them; badges stand alone."""
    if "badge" in (one.role, other.role):
        return False
    a, b = one.box, other.box
    upper, lower = (a, b) if a.y <= b.y else (b, a)
    common = min(a.right, b.right) - max(a.x, b.x)
    edge = min(abs(a.x - b.x), abs(a.right - b.right), abs(a.centre.x - b.centre.x))
    whole = around((a, b))
    parted = any(shared(third.box, whole) > BETWEEN * area(third.box) for third in free if third.kind != "words")
    near = lower.y - upper.bottom < COLUMN_GAP * unit
    return common > OVER_EACH_OTHER * min(a.width, b.width) and edge < SAME_EDGE * unit and near and not parted


def _in_one_row(one: Member, other: Member, size: Size) -> bool:
    """Pictures of about one size whose middles are level, or over each other."""
    a, b = one.box, other.box
    level = abs(a.centre.y - b.centre.y) < IN_LINE * size.height
    over = abs(a.centre.x - b.centre.x) < IN_LINE * size.width
    return ALIKE[0] < area(a) / area(b) < ALIKE[1] and (level or over)
