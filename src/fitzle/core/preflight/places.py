"""Places on a picture: boxes as fractions, and which of them overlap."""

from __future__ import annotations

from fitzle.core.findings import Where
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import Placed, PlacedWords, Plan

LONGEST_QUOTE = 24  # letters


def where_in(plan: Plan, box: Rect) -> Where:
    """A box in px as fractions of the picture."""
    size = plan.size
    return Where(
        x=round(box.x / size.width, 4),
        y=round(box.y / size.height, 4),
        width=round(box.width / size.width, 4),
        height=round(box.height / size.height, 4),
    )


def overlap(one: Rect, other: Rect) -> bool:
    """Whether two boxes share any area."""
    return one.x < other.right and other.x < one.right and one.y < other.bottom and other.y < one.bottom


def stands_on_ground(plan: Plan, part: Placed) -> bool:
    """Whether nothing but one plain ground, or the page, is behind a part, so that no pixel needs to be looked at."""
    behind = plan.parts[: plan.parts.index(part)]
    return plan.ground_kind != "mixed" and not any(overlap(other.box, part.box) for other in behind)


def quoted(words: PlacedWords) -> str:
    """Words in quotation marks, cut where they are long."""
    text = " ".join(words.layout.lines)
    return f"“{text if len(text) <= LONGEST_QUOTE else text[: LONGEST_QUOTE - 1].rstrip() + '…'}”"
