"""Riders: parts that lie on another one, and go where it goes."""

from __future__ import annotations

import math

from fitzle.core.arrange.boxes import area, shared
from fitzle.core.arrange.columns import Measure
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.laying import Laid
from fitzle.core.arrange.members import Member
from fitzle.core.arrange.place import Place
from fitzle.core.geometry.rect import Point, Rect

WIDEST = 0.7  # of the picture: longer words on another part are made smaller
HIDING, COVERED, AWAY, OFF = (
    9.0,
    5.0,
    0.4,
    2.0,
)  # what it costs to hide others, to be covered, to move, to leave the host
ENDS = (0.12, 0.88)


def add_riders(laid: Laid, intent: Intent, place: Place, kept: frozenset[str], scale: float) -> None:
    """Puts the riders that are kept on their hosts, where they hide nothing if that can be."""
    measure = Measure(place.unit / intent.unit, place.least_capital)
    for part, host in intent.groups.hosts.items():
        if part not in kept or host not in laid.boxes or part in laid.boxes:
            continue
        member = intent.members[part]
        on, stood = laid.boxes[host], intent.members[host].box
        width, height = _size(laid, member, on, stood, place, measure, scale)
        across = (member.box.centre.x - stood.x) / stood.width
        down = (member.box.centre.y - stood.y) / stood.height
        laid.boxes[part] = _best(laid, intent, place, host, (width, height), (across, down))


def _size(
    laid: Laid, member: Member, on: Rect, stood: Rect, place: Place, measure: Measure, scale: float
) -> tuple[float, float]:
    if member.table is None:
        grown = math.sqrt(area(on) / area(stood))
        return member.box.width * grown, member.box.height * grown
    row = member.table.rows[0]
    em = measure.capital(member, scale, alone=False) / member.table.cap
    em *= min(1.0, WIDEST * place.size.width / (row.width * em))
    laid.capitals[member.part], laid.aligned[member.part] = em * member.table.cap, member.align
    return row.width * em, row.height * em


def _best(
    laid: Laid, intent: Intent, place: Place, host: str, size: tuple[float, float], at: tuple[float, float]
) -> Rect:
    """Of the spot that it had on its host, those mirrored and those at its ends the one that costs least."""
    on, (across, down) = laid.boxes[host], at
    wanted = Point(on.x + across * on.width, on.y + down * on.height)
    spots = [wanted] + [
        Point(on.x + one * on.width, on.y + other * on.height)
        for one in (across, 1 - across, 0.5)
        for other in (down, 1 - down, *ENDS)
    ]
    others = [box for part, box in laid.boxes.items() if part != host and intent.members[part].kind != "shape"]

    def cost(spot: Point) -> tuple[float, Rect]:
        box = _inside(spot, size, place)
        hidden = sum(shared(box, other) for other in others) / area(box)
        covered = sum(shared(box, zone) for zone in place.covered) / area(box)
        away = abs(spot.x - wanted.x) / on.width + abs(spot.y - wanted.y) / on.height
        left = 0.0 if shared(box, on) else OFF
        return HIDING * hidden + COVERED * covered + AWAY * away + left, box

    return min((cost(spot) for spot in spots), key=lambda found: found[0])[1]


def _inside(spot: Point, size: tuple[float, float], place: Place) -> Rect:
    width, height = size
    margin = place.margin
    x = min(max(spot.x - width / 2, margin), max(margin, place.size.width - margin - width))
    y = min(max(spot.y - height / 2, margin), max(margin, place.size.height - margin - height))
    return Rect(x, y, width, height)
