"""The composition itself, scaled as a whole: best where the shape is nearly the same."""

from __future__ import annotations

from collections.abc import Iterator
from typing import NamedTuple

from fitzle.core.arrange.draft import Draft
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.laying import ALIGNED, LEFT, RIGHT, Laid
from fitzle.core.arrange.members import Member
from fitzle.core.arrange.pins import put_pins
from fitzle.core.arrange.place import Place
from fitzle.core.geometry.rect import Rect

MOST_STRETCHED = 1.6  # between the shapes: beyond that nobody would call it the same composition


def wholes(intent: Intent, place: Place, kept: frozenset[str]) -> Iterator[Draft]:
    """The composition in the whole picture and in each free box, kept together or spread out to its sides."""
    for frame in (Rect(0, 0, *place.size), *place.free):
        across, down = frame.width / intent.size.width, frame.height / intent.size.height
        if max(across / down, down / across) <= MOST_STRETCHED:
            for spread in (False, True):
                yield Draft(intent, place, _scaled(intent, place, kept, _Frame(frame, across, down, spread)), kept)


class _Frame(NamedTuple):
    """Where the composition goes: how much it is stretched each way, and whether its parts go to its sides."""

    box: Rect
    across: float
    down: float
    spread: bool

    @property
    def scale(self) -> float:
        """What everything in it is scaled by."""
        return min(self.across, self.down)


def _scaled(intent: Intent, place: Place, kept: frozenset[str], frame: _Frame) -> Laid:
    laid = Laid({}, {}, {})
    for member in intent.members.values():
        if member.backdrop or member.part not in kept:
            continue
        if member.bleeds:
            laid.boxes[member.part] = _bleeding(member, frame, place)
            continue
        size = member.box.width * frame.scale, member.box.height * frame.scale
        raised = False
        if member.table:
            capital = max(member.capital_px * frame.scale, place.least_capital)
            raised = capital > member.capital_px * frame.scale
            row = min(member.table.rows, key=lambda row: abs(row.lines - member.lines))
            em = capital / member.table.cap
            size = row.width * em, row.height * em
            laid.capitals[member.part], laid.aligned[member.part] = capital, member.align
        box = _placed(intent, member, frame, size)
        laid.boxes[member.part] = _kept_inside(box, place) if raised else box
    put_pins(laid, place, kept)
    return laid


def _bleeding(member: Member, frame: _Frame, place: Place) -> Rect:
    """What reached an edge of the picture reaches it again."""
    own, box = member.box, frame.box
    left = 0.0 if "left" in member.bleeds else box.x + own.x * frame.across
    top = 0.0 if "top" in member.bleeds else box.y + own.y * frame.down
    right = place.size.width if "right" in member.bleeds else box.x + own.right * frame.across
    bottom = place.size.height if "bottom" in member.bleeds else box.y + own.bottom * frame.down
    return Rect(left, top, right - left, bottom - top)


def _placed(intent: Intent, member: Member, frame: _Frame, size: tuple[float, float]) -> Rect:
    """Around the point that it stood around: words keep their aligned edge, spread parts their distance to a side."""
    own, box, scale = member.box, frame.box, frame.scale
    whole = intent.size
    slack_x, slack_y = box.width - whole.width * scale, box.height - whole.height * scale
    held = ALIGNED[member.align] if member.kind == "words" else 0.5
    at = own.x + held * own.width  # the point of it that stays
    x = box.x + slack_x / 2 + at * scale - held * size[0]
    y = box.y + slack_y / 2 + own.centre.y * scale - size[1] / 2
    if frame.spread:
        y = box.y + own.centre.y * frame.down - size[1] / 2
        middle = own.centre.x / whole.width
        if middle < LEFT:
            x = box.x + own.x * scale
        elif middle > RIGHT:
            x = box.right - (whole.width - own.right) * scale - size[0]
        else:
            x = box.x + own.centre.x * frame.across - size[0] / 2
    return Rect(x, y, *size)


def _kept_inside(box: Rect, place: Place) -> Rect:
    """Within the margins, as far as it fits between them."""
    (width, height), margin = place.size, place.margin
    return box._replace(
        x=min(max(box.x, margin), max(margin, width - margin - box.width)),
        y=min(max(box.y, margin), max(margin, height - margin - box.height)),
    )
