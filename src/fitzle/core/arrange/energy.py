"""What an arrangement costs: one figure of many terms, the least of which wins. Weights were tuned on made pieces."""

from __future__ import annotations

import math
from collections.abc import Callable
from itertools import combinations

from fitzle.core.arrange.boxes import OPPOSITE, Side, area, clipped, shared, side_of
from fitzle.core.arrange.draft import Draft
from fitzle.core.arrange.members import Member
from fitzle.core.arrange.place import LEAST_CAPITAL_SEEN
from fitzle.core.geometry.rect import Rect

GOOD_CAPITAL_SEEN = 11.0
LEAST_PICTURE_SEEN, LEAST_MARK_SEEN = 44.0, 12.0  # px of the shorter side
PICTURE_WEIGHT, WORDS_WEIGHT = 1.0, 0.8  # of an area, for the balance
Term = Callable[[Draft], float]


def energy_of(draft: Draft, above: float = math.inf) -> float:
    """All terms together; 0 is a composition that nothing changed.

    Once they are `above` a figure together the rest is not worked out: none is negative.
    """
    total = 0.0
    for term in TERMS.values():
        total += term(draft)
        if total > above:
            break
    return total


def _overlap(draft: Draft) -> float:
    """Parts over each other that were not meant to be."""
    cost = 0.0
    for one, other in combinations(draft.solid, 2):
        both = shared(draft.boxes[one.part], draft.boxes[other.part])
        if both and not draft.meant(one, other):
            cost += 6 * min(1, both / min(area(draft.boxes[one.part]), area(draft.boxes[other.part]))) + 0.5
    return cost


def _outside(draft: Draft) -> float:
    """Beyond the edge of the picture, or off the panel that held it."""
    whole, cost = Rect(0, 0, *draft.place.size), 0.0
    for member in draft.front:
        box = draft.boxes[member.part]
        cost += 10 * (1 - shared(box, whole) / max(area(box), 1e-6)) * member.importance
    for panel, held in draft.intent.groups.panels.items():
        for part in held if panel in draft.boxes else ():
            if part in draft.boxes:
                on = shared(draft.boxes[part], draft.boxes[panel]) / max(area(draft.boxes[part]), 1e-6)
                cost += 6 * max(0.0, 1 - on - 0.01)
    return cost


def _covered(draft: Draft) -> float:
    """Under what the destination draws there."""
    cost = 0.0
    for member in draft.front:
        box = draft.boxes[member.part]
        part = sum(shared(box, zone) for zone in draft.place.covered) / max(area(box), 1e-6)
        cost += part * (8 * member.importance if member.kind in ("words", "mark") else member.kind == "picture")
    return cost


def _margin(draft: Draft) -> float:
    """Nearer to the edge than the margin, without reaching it."""
    margin, (width, height), cost = draft.place.margin, draft.place.size, 0.0
    for member in draft.front:
        box = draft.boxes[member.part]
        distance = min(box.x, box.y, width - box.right, height - box.bottom)
        if not member.bleeds and distance < 0.98 * margin:
            cost += 0.75 * ((margin - max(distance, -margin)) / margin) ** 2
    return cost


def _gap(draft: Draft) -> float:
    """Too little room between two parts."""
    margin, cost = draft.place.margin, 0.0
    for one, other in combinations(draft.solid, 2):
        if draft.meant(one, other):
            continue
        a, b = draft.boxes[one.part], draft.boxes[other.part]
        gap = max(max(a.x, b.x) - min(a.right, b.right), max(a.y, b.y) - min(a.bottom, b.bottom))
        wanted = (0.25 if one.kind == other.kind == "words" else 0.5) * margin
        if gap < wanted:
            cost += 0.8 * ((wanted - max(gap, 0)) / wanted) ** 2
    return cost


def _legibility(draft: Draft) -> float:
    """Words, pictures and marks that are seen too small."""
    cost = 0.0
    for member in draft.front:
        box = draft.boxes[member.part]
        if member.kind == "words":
            seen = draft.capitals[member.part] * draft.place.seen
            if seen < 0.995 * LEAST_CAPITAL_SEEN:
                cost += member.importance * (1 + 6 * ((LEAST_CAPITAL_SEEN - seen) / LEAST_CAPITAL_SEEN) ** 2) + 0.5
            elif seen < GOOD_CAPITAL_SEEN:
                cost += 0.15 * (GOOD_CAPITAL_SEEN - seen) / GOOD_CAPITAL_SEEN
        elif member.kind in ("picture", "mark"):
            least = LEAST_PICTURE_SEEN if member.kind == "picture" else LEAST_MARK_SEEN
            seen = min(box.width, box.height) * draft.place.seen
            cost += 1.5 * ((least - seen) / least) ** 2 + 0.1 if seen < least else 0.0
    return cost


def _lines(draft: Draft) -> float:
    """More lines than the words had, the more the fewer words a line holds."""
    cost = 0.0
    for member in draft.front:
        if member.table is None:
            continue
        em = draft.capitals[member.part] / member.table.cap
        height = draft.boxes[member.part].height
        lines = min(member.table.rows, key=lambda row: abs(row.height * em - height)).lines
        if lines > member.lines:
            words = member.table.words / lines
            each = 0.3 if words < 1.6 else 0.16 if words < 2.2 else 0.06
            cost += (lines - member.lines) * each * (0.4 + member.importance)
    return cost


def _growth(draft: Draft, member: Member) -> float:
    """How much larger a part is than it was, for the area of the picture, in octaves of its length."""
    if member.kind == "words":
        had = member.capital_px / draft.intent.unit
        return math.log2(draft.capitals[member.part] / draft.place.unit / had)
    now = area(draft.boxes[member.part]) / draft.place.unit**2
    return 0.5 * math.log2(max(now, 1e-9) / (area(member.box) / draft.intent.unit**2))


def _size(draft: Draft) -> float:
    """Much smaller or larger than it was."""
    cost = 0.0
    for member in draft.front:
        growth = _growth(draft, member)
        shrunk, grown = min(growth + 0.15, 0), max(growth - 0.3, 0)
        cost += (0.5 + member.importance) * (1.1 * shrunk**2 + 0.5 * grown**2)
    return cost


def _hierarchy(draft: Draft) -> float:
    """What was larger than another part is no longer."""
    cost = 0.0
    growths = {member.part: _growth(draft, member) for member in draft.solid}
    for one, other in combinations(draft.solid, 2):
        apart = abs(growths[one.part] - growths[other.part])
        if one.kind == other.kind == "words":
            cost += 0.5 * max(0.0, apart - 0.35) ** 2
            a, b = draft.capitals[one.part], draft.capitals[other.part]
            turned = (one.capital_px - other.capital_px) * (a - b) < 0
            cost += 0.5 if turned and abs(math.log2(a / b)) > 0.03 else 0.0
        else:
            cost += 0.12 * max(0.0, apart - 0.5) ** 2
    return cost


def _relations(draft: Draft) -> float:
    """What stood left of, right of, above or below another part stands elsewhere; what lay on it does not."""
    cost = 0.0
    for one, other in combinations(draft.solid, 2):
        a, b = draft.boxes[one.part], draft.boxes[other.part]
        if draft.meant(one, other):
            cost += 0.0 if shared(a, b) else 0.8
            continue
        wanted = _side(draft, one, other)
        if wanted is None:
            continue
        found = side_of(a, b)
        if found != wanted:
            weight = 1.0 if one.kind == other.kind == "words" else 0.55
            cost += weight * _turned(wanted, found)
    return cost


def _side(draft: Draft, one: Member, other: Member) -> Side | None:
    sides = draft.intent.sides
    turned = sides.get((other.part, one.part))
    return sides.get((one.part, other.part)) or (OPPOSITE[turned] if turned else None)


def _turned(wanted: Side, found: Side | None) -> float:
    """Reversed costs most; beside instead of above little, as long as what came first still does."""
    if found is None:
        return 0.5
    if found == OPPOSITE[wanted]:
        return 1.0
    first = ("left", "above")
    return 0.7 if (wanted in first) != (found in first) else 0.22


def _subjects(draft: Draft) -> float:
    """Subjects that are cut off or written over, faces most."""
    cost = 0.0
    for part, shown in draft.windows.items():
        member = draft.intent.members[part]
        hiding = 6.0 if member.subject and member.subject.faces else 1.4 if member.backdrop else 3.0
        cost += 2.2 * (1 - shown.visible) + hiding * max(0.0, shown.written_over - 0.05)
    return cost


def _alignment(draft: Draft) -> float:
    """Parts that share no edge and no middle with another part or with the picture."""
    place, cost = draft.place, 0.0
    tolerance = 0.006 * place.unit
    width, height = place.size
    for member in draft.solid:
        if member.part in draft.intent.groups.hosts:
            continue
        own = draft.boxes[member.part]
        others = [draft.boxes[other.part] for other in draft.front if other.part != member.part]
        across = [width / 2, place.margin, width - place.margin]
        across += [at for box in others for at in (box.x, box.centre.x, box.right)]
        down = [height / 2, place.margin, height - place.margin]
        down += [at for box in others for at in (box.y, box.centre.y, box.bottom)]
        if min(abs(at - one) for at in (own.x, own.centre.x, own.right) for one in across) > tolerance:
            cost += 0.12
        if min(abs(at - one) for at in (own.y, own.centre.y, own.bottom) for one in down) > tolerance:
            cost += 0.06
    return cost


def _common_edges(draft: Draft) -> float:
    """Edges that two parts over each other had in common and have no more; what stood in the middle does not."""
    tolerance, cost = 0.012 * draft.place.unit, 0.0
    for (one, other), line in draft.intent.common.items():
        if one not in draft.boxes or other not in draft.boxes:
            continue
        a, b = draft.boxes[one], draft.boxes[other]
        apart = {"left": a.x - b.x, "right": a.right - b.right, "centre": a.centre.x - b.centre.x}[line]
        if side_of(a, b) in (None, "above", "below") and abs(apart) > tolerance:
            cost += 0.25
    for part in draft.intent.middle:
        if part in draft.boxes:
            cost += _off_the_middle(draft, part, tolerance)
    return cost


def _off_the_middle(draft: Draft, part: str, tolerance: float) -> float:
    box = draft.boxes[part]
    middles = (draft.place.size.width / 2, draft.place.free[0].centre.x)
    if min(abs(box.centre.x - middle) for middle in middles) <= tolerance:
        return 0.0
    others = [draft.boxes[other.part] for other in draft.solid if other.part != part]
    return 0.08 if any(side_of(box, other) in ("left", "right") for other in others) else 0.25


def _edges(draft: Draft) -> float:
    """What reached across the picture and does not; marks and badges that kept to an edge and do not."""
    (width, height), cost = draft.place.size, 0.0
    for part, near in draft.intent.near.items():
        if part not in draft.boxes:
            continue
        member, box = draft.intent.members[part], draft.boxes[part]
        if member.bleeds:
            across = {"left", "right"} <= member.bleeds or {"top", "bottom"} <= member.bleeds
            spans = (box.x < 1 and box.right > width - 1) or (box.y < 1 and box.bottom > height - 1)
            cost += 0.35 if across and not spans else 0.0
        elif member.kind == "mark" or member.role == "badge":
            cost += 0.12 * sum(_distance(draft, box, edge) > 2 * draft.place.margin for edge in near)
    return cost


def _distance(draft: Draft, box: Rect, edge: str) -> float:
    """From an edge of the picture or of a free box."""
    width, height = draft.place.size
    frames = [Rect(0, 0, width, height), *draft.place.free]
    ends = {
        "left": [abs(box.x - frame.x) for frame in frames],
        "top": [abs(box.y - frame.y) for frame in frames],
        "right": [abs(frame.right - box.right) for frame in frames],
        "bottom": [abs(frame.bottom - box.bottom) for frame in frames],
    }
    return min(ends[edge])


def _balance(draft: Draft) -> float:
    """The weight of all parts elsewhere than it was, or far from the middle."""
    width, height = draft.place.size
    x, y = _middle([(draft.boxes[one.part], one) for one in draft.solid], width, height)
    had = _middle([(one.box, one) for one in draft.solid], *draft.intent.size)
    moved = max(0.0, abs(x - had[0]) - 0.05) + max(0.0, abs(y - had[1]) - 0.05)
    return (0.4 if draft.place.covered else 1.0) * 1.2 * moved + 0.4 * max(0.0, abs(x - 0.5) - 0.2)


def _middle(weighed: list[tuple[Rect, Member]], width: float, height: float) -> tuple[float, float]:
    weights = [area(box) * (WORDS_WEIGHT if member.kind == "words" else PICTURE_WEIGHT) for box, member in weighed]
    whole = sum(weights) or 1.0
    x = sum(box.centre.x * weight for (box, _), weight in zip(weighed, weights, strict=True)) / whole / width
    y = sum(box.centre.y * weight for (box, _), weight in zip(weighed, weights, strict=True)) / whole / height
    return (x, y) if weighed else (0.5, 0.5)


def _emptiness(draft: Draft) -> float:
    """Half of the free box with nothing in it, or a wide empty strip across it."""
    free = draft.place.free[0]
    boxes = [draft.boxes[member.part] for member in draft.solid]
    if not boxes:
        return 0.0
    used = sum(min(area(clipped(box, free)), area(free)) for box in boxes) / area(free)
    cost = 1.8 * max(0.0, 0.5 - used) ** 2
    for low, high, spans in (
        (free.x, free.right, [(box.x, box.right) for box in boxes]),
        (free.y, free.bottom, [(box.y, box.bottom) for box in boxes]),
    ):
        cost += 0.8 * max(0.0, _widest_gap(low, high, spans) / (high - low) - 0.28) ** 1.5
    return cost


def _widest_gap(low: float, high: float, spans: list[tuple[float, float]]) -> float:
    at, widest = low, 0.0
    for begin, end in sorted(spans):
        widest, at = max(widest, begin - at), max(at, end)
    return max(widest, high - at)


def _changed_alignment(draft: Draft) -> float:
    members = draft.intent.members
    return 0.08 * sum(align != members[part].align for part, align in draft.aligned.items())


TERMS: dict[str, Term] = {
    "legibility": _legibility, "size": _size, "outside": _outside, "covered": _covered, "overlap": _overlap,
    "relations": _relations, "lines": _lines, "emptiness": _emptiness, "hierarchy": _hierarchy, "gap": _gap,
    "margin": _margin, "edges": _edges, "balance": _balance, "common edges": _common_edges,
    "changed alignment": _changed_alignment, "alignment": _alignment, "subjects": _subjects,
}  # the cheap ones that tell most come first  # fmt: skip
