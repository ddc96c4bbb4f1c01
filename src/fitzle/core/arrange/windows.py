"""What of a picture shows in a box: its subject, where it can be, and nothing written over it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

from fitzle.core.arrange.boxes import area, shared
from fitzle.core.arrange.members import Subject
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect

ACROSS, DOWN = (0.5, 0.3, 0.7, 0.15, 0.85), (0.5, 0.3, 0.7)  # where in the window the subject is tried
HIDDEN, WRITTEN_OVER, MOVED = 3.0, 2.0, 0.15  # what these cost


class Shown(NamedTuple):
    """The window in px of the artwork; how much of the subject shows (0 to 1), and how much of it is written over."""

    window: Rect
    visible: float
    written_over: float


def best_window(subject: Subject, box: Rect, over: Sequence[Rect], keep: Point) -> Shown:
    """The window for a box (px of the picture) with these boxes over it; `keep` is where in it the subject was."""
    whole, own = subject.whole, subject.box
    usual = fill_window(whole, box.ratio, Point(0.5, 0.5))
    across = ACROSS if usual.width < whole.width - 1 else ACROSS[:1]
    down = DOWN if usual.height < whole.height - 1 else DOWN[:1]
    found: list[tuple[float, Shown]] = []
    for x in across:
        for y in down:
            left = min(max(own.centre.x - x * usual.width, whole.x), whole.right - usual.width)
            top = min(max(own.centre.y - y * usual.height, whole.y), whole.bottom - usual.height)
            shown = _shown(Rect(left, top, usual.width, usual.height), own, box, over)
            away = abs(x - keep.x) + abs(y - keep.y)
            cost = HIDDEN * (1 - shown.visible) + WRITTEN_OVER * min(shown.written_over, 1.0) + MOVED * away
            found.append((cost, shown))
    return min(found, key=lambda one: one[0])[1]


def subject_in(subject: Subject, window: Rect, box: Rect) -> Rect:
    """Where a subject is seen, in px of the picture, when a window of the artwork fills a box."""
    scale = box.width / window.width
    own = subject.box
    return Rect(
        box.x + (own.x - window.x) * scale, box.y + (own.y - window.y) * scale, own.width * scale, own.height * scale
    )


def _shown(window: Rect, own: Rect, box: Rect, over: Sequence[Rect]) -> Shown:
    seen = subject_in(Subject(window, own, False), window, box)
    return Shown(window, shared(seen, box) / area(seen), min(sum(shared(seen, one) for one in over) / area(seen), 1.0))
