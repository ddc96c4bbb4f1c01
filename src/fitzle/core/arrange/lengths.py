"""How long a block wants to be along one direction, for the room that it has across it."""

from __future__ import annotations

import math
from typing import NamedTuple

from fitzle.core.arrange.blocks import Block
from fitzle.core.arrange.boxes import area, around
from fitzle.core.arrange.columns import Measure, column_at
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.members import Member
from fitzle.core.arrange.place import Place

SHRUNK = (1.0, 0.8, 0.62, 0.48, 0.35)  # of the wanted scale: what words are tried at until they fit
LONGEST_ROOM = 1.6  # of the side of a square of its area
MOST_ENLARGED = 1.45  # of what a picture in a row had
LONGEST_PICTURE = 2.2  # of the side of a square of its area
LEAST_MARK_SEEN = 12.0  # px high
PANEL_INSET, MOST_INSET = 0.5, 0.1  # margins; units of the composed picture


class Wanted(NamedTuple):
    """A length in px, and whether the block can take more or less."""

    length: float
    flexible: bool


class Lengths:
    """Lengths of blocks of an intent in a place, at a `scale` of the sizes that they had."""

    def __init__(self, intent: Intent, place: Place, scale: float) -> None:
        self._place, self._scale = place, scale
        self._unit = intent.unit
        self.enlarged = place.unit / intent.unit
        self.measure = Measure(self.enlarged, place.least_capital)

    def wanted(self, block: Block, across: bool, cross: float) -> Wanted:
        """The length along the picture's width (`across`) or height, where the other side is `cross` px."""
        if block.kind == "room":
            own = area(block.box) * self.enlarged**2 * self._scale
            return Wanted(min(own / max(cross, 1.0), LONGEST_ROOM * math.sqrt(own)), True)
        if block.kind == "words":
            return Wanted(self._words(block, across, cross), True)
        if block.kind == "pictures":
            return self._pictures(block, across, cross)
        width, height = self.single(block.members[0])
        ratio = width / height
        return Wanted(min(width, cross * ratio) if across else min(height, cross / ratio), False)

    def least(self, block: Block, across: bool, cross: float) -> float:
        """The length in px below which words are no longer read; 0 for all else."""
        if block.kind != "words":
            return 0.0
        inset, first = 2 * self.inset(block), block.members[0]
        scale = self.measure.least_capital / (first.capital_px * self.enlarged) if len(block.members) == 1 else 0.0
        find = self._width if across else self._height
        length = find(block, cross - inset, scale)
        return length + inset if length is not None else 0.0

    def single(self, member: Member) -> tuple[float, float]:
        """Width and height of a mark or shape in px; it is never seen lower than LEAST_MARK_SEEN."""
        ratio = member.ratio or member.box.ratio
        height = member.box.width * self.enlarged * self._scale / ratio
        height = max(height, LEAST_MARK_SEEN / self._place.seen)
        return height * ratio, height

    def inset(self, block: Block) -> float:
        """How far words keep from the edge of their panel, in px; 0 without one."""
        if not block.panel:
            return 0.0
        words, panel = around(member.box for member in block.members), block.panel.box
        own = min(words.x - panel.x, panel.right - words.right, words.y - panel.y, panel.bottom - words.bottom)
        usual = min(own, MOST_INSET * self._unit) * self.enlarged * self._scale
        return max(PANEL_INSET * self._place.margin, usual)

    def _words(self, block: Block, across: bool, cross: float) -> float:
        inset = 2 * self.inset(block)
        for share in SHRUNK:
            scale = share * self._scale
            length = self._width(block, cross - inset, scale) if across else self._height(block, cross - inset, scale)
            if length is not None:
                return length + inset
        return cross * (1.5 if across else 0.5)

    def _height(self, block: Block, width: float, scale: float) -> float | None:
        found = column_at(block.members, width, scale, self.measure)
        return found.height if found else None

    def _width(self, block: Block, height: float, scale: float) -> float | None:
        """The least width at which the column is no higher than that."""
        widths = sorted(
            {row.width * self._em(word, scale) for word in block.members if word.table for row in word.table.rows}
        )
        for width in widths:
            found = column_at(block.members, width * 1.001, scale, self.measure)
            if found and found.height <= height:
                return width
        return None

    def _em(self, word: Member, scale: float) -> float:
        assert word.table
        return max(word.capital_px * self.enlarged * scale, self.measure.least_capital) / word.table.cap

    def _pictures(self, block: Block, across: bool, cross: float) -> Wanted:
        whole = sum(area(member.box) for member in block.members) * self.enlarged**2 * self._scale
        if block.flexible:
            return Wanted(whole / max(cross, 1.0), True)
        count, ratio, gap = len(block.members), block.members[0].ratio or 1.0, gap_of(self._place)
        side = math.sqrt(whole / count)
        longest = MOST_ENLARGED * side * (math.sqrt(ratio) if across else 1 / math.sqrt(ratio))
        found = 0.0
        for along in {1, count}:
            beside = count // along
            room = (cross - (beside - 1) * gap) / beside
            length = min(room * ratio if across else room / ratio, longest, LONGEST_PICTURE * side)
            found = max(found, length * along + (along - 1) * gap)
        return Wanted(found, False)


def gap_of(place: Place) -> float:
    """The distance between blocks in px."""
    return 0.9 * place.margin
