"""A slicing tree of blocks laid into a free box: where each part stands, how high its capitals are."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

from fitzle.core.arrange.blocks import Block
from fitzle.core.arrange.boxes import area, around, side_of
from fitzle.core.arrange.columns import Column, largest_column, space_between
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.lengths import MOST_ENLARGED, Lengths, Wanted, gap_of
from fitzle.core.arrange.members import Member
from fitzle.core.arrange.place import Place
from fitzle.core.arrange.trees import Split
from fitzle.core.geometry.rect import Rect
from fitzle.core.type.setting import Align

LEAST_SHARE, MOST_OF_FIXED = 0.12, 0.62  # of a split length: for the smaller part; for one that cannot shrink
ALIGNED: dict[Align, float] = {"left": 0.0, "centre": 0.5, "right": 1.0}
UPPER, LOWER = 0.36, 0.64  # of the picture's height: what stood above or below keeps to that end
LEFT, RIGHT = 0.4, 0.6
ORDERED = 0.08  # of the picture: a smaller distance says nothing about what comes first
BLEEDS_FROM = 0.25  # of the picture: a slot so near to its edge is let out to it
TOUCHING_PX = 1.5


class Wish(NamedTuple):
    """What is tried: a scale of the sizes, another alignment of all words, where they stand in their height (0 top)."""

    scale: float = 1.0
    align: Align | None = None
    level: float | None = None


class Laid(NamedTuple):
    """Boxes in px by part, of words the height of a capital and how they are aligned."""

    boxes: dict[str, Rect]
    capitals: dict[str, float]
    aligned: dict[str, Align]


def lay(tree: int | Split, blocks: Sequence[Block], intent: Intent, place: Place, frame: Rect, wish: Wish) -> Laid:
    """The blocks of a tree in a free box of the place."""
    layout = _Layout(blocks, intent, place, frame, wish)
    layout.lay(tree, frame, in_row=False)
    return layout.laid


class _Layout:
    def __init__(self, blocks: Sequence[Block], intent: Intent, place: Place, frame: Rect, wish: Wish) -> None:
        self._blocks, self._intent, self._place, self._frame, self._wish = blocks, intent, place, frame, wish
        self._lengths = Lengths(intent, place, wish.scale)
        self._gap = gap_of(place)
        self._stood: dict[int | Split, Rect] = {}
        self.laid = Laid({}, {}, {})

    def lay(self, tree: int | Split, box: Rect, in_row: bool) -> None:
        """Lays a tree into a box; `in_row`: something stands beside it."""
        if not isinstance(tree, Split):
            self._leaf(self._blocks[tree], box._replace(width=max(box.width, 1), height=max(box.height, 1)), in_row)
            return
        first, second = self._ordered(tree)
        length, cross = (box.width, box.height) if tree.across else (box.height, box.width)
        own = self._first_length(first, second, tree.across, length - self._gap, cross)
        if tree.across:
            self.lay(first, box._replace(width=own), True)
            at = own + self._gap
            self.lay(second, Rect(box.x + at, box.y, box.width - at, box.height), True)
        else:
            self.lay(first, box._replace(height=own), in_row)
            at = own + self._gap
            self.lay(second, Rect(box.x, box.y + at, box.width, box.height - at), in_row)

    def _first_length(
        self, first: int | Split, second: int | Split, across: bool, length: float, cross: float
    ) -> float:
        """How much of the length the first of two gets: too long shrinks what is flexible, and slack goes there."""
        one, other = self._wanted(first, across, cross), self._wanted(second, across, cross)
        whole = one.length + other.length
        if whole > length:
            if one.flexible == other.flexible:
                own = self._read(first, second, across, length, cross, length * one.length / whole)
            elif one.flexible:
                own = length - min(other.length, MOST_OF_FIXED * length)
            else:
                own = min(one.length, MOST_OF_FIXED * length)
            return min(max(own, LEAST_SHARE * length), (1 - LEAST_SHARE) * length)
        slack = length - whole
        pictured = [self._is_flexible_picture(tree) for tree in (first, second)]
        if pictured[0] != pictured[1] and one.flexible and other.flexible:
            return one.length + (slack if pictured[0] else 0.0)
        if one.flexible == other.flexible:
            return one.length + slack * one.length / max(whole, 1e-6)
        return one.length + (slack if one.flexible else 0.0)

    def _read(
        self, first: int | Split, second: int | Split, across: bool, length: float, cross: float, own: float
    ) -> float:
        """The length of the first of two, changed so that the words of both are read where there is room for that."""
        one, other = self._least(first, across, cross), self._least(second, across, cross)
        return own if one + other > length else min(max(own, one), length - other)

    def _least(self, tree: int | Split, across: bool, cross: float) -> float:
        if not isinstance(tree, Split):
            return self._lengths.least(self._blocks[tree], across, cross)
        one, other = self._least(tree.first, across, cross), self._least(tree.second, across, cross)
        return one + other + self._gap if tree.across == across else max(one, other)

    def _wanted(self, tree: int | Split, across: bool, cross: float) -> Wanted:
        if not isinstance(tree, Split):
            return self._lengths.wanted(self._blocks[tree], across, cross)
        one, other = self._wanted(tree.first, across, cross), self._wanted(tree.second, across, cross)
        if tree.across == across:
            return Wanted(one.length + other.length + self._gap, one.flexible or other.flexible)
        return Wanted(max(one.length, other.length), one.flexible and other.flexible)

    def _is_flexible_picture(self, tree: int | Split) -> bool:
        return not isinstance(tree, Split) and self._blocks[tree].kind == "pictures" and self._blocks[tree].flexible

    def _ordered(self, tree: Split) -> tuple[int | Split, int | Split]:
        """Which of two comes first: what stood further left or higher up."""
        one, other = self._box(tree.first), self._box(tree.second)
        right = (one.centre.x - other.centre.x) / self._intent.size.width
        down = (one.centre.y - other.centre.y) / self._intent.size.height
        side = side_of(one, other)
        if side:
            later = right if side in ("left", "right") else down
        elif tree.across:
            later = right if abs(right) > ORDERED else down
        else:
            later = down if abs(down) > ORDERED else right
        return (tree.first, tree.second) if later <= 0 else (tree.second, tree.first)

    def _box(self, tree: int | Split) -> Rect:
        """Where the blocks of a tree stood, in px of the composed picture."""
        if not isinstance(tree, Split):
            return self._blocks[tree].box
        if tree not in self._stood:
            self._stood[tree] = around((self._box(tree.first), self._box(tree.second)))
        return self._stood[tree]

    def _leaf(self, block: Block, box: Rect, in_row: bool) -> None:
        if block.kind == "words":
            self._words_on_panel(block, box, in_row)
        elif block.kind == "pictures":
            self._pictures(block, box, in_row)
        elif block.kind == "single":
            self._single(block, box, in_row)

    def _words_on_panel(self, block: Block, box: Rect, in_row: bool) -> None:
        if not block.panel:
            self._words(block, box, in_row)
            return
        inset = self._lengths.inset(block)
        inner = Rect(box.x + inset, box.y + inset, max(box.width - 2 * inset, 1.0), max(box.height - 2 * inset, 1.0))
        self._words(block, inner, in_row)
        words = around(self.laid.boxes[part] for part in block.parts)
        own = Rect(words.x - inset, words.y - inset, words.width + 2 * inset, words.height + 2 * inset)
        self.laid.boxes[block.panel.part] = self._let_out(box) if block.panel.bleeds else own

    def _words(self, block: Block, box: Rect, in_row: bool) -> None:
        most = MOST_ENLARGED * self._wish.scale
        column = largest_column(block.members, box.width, box.height, most, self._lengths.measure)
        align = self._wish.align or block.members[0].align
        y = box.y + self._level(block, in_row) * (box.height - column.height)
        self._set_column(block.members, column, box, y, align)

    def _set_column(self, words: Sequence[Member], column: Column, box: Rect, y: float, align: Align) -> None:
        above = None
        for word, text in zip(words, column.texts, strict=False):
            assert word.table
            capital = text.em * word.table.cap
            y += space_between(above, capital) if above is not None else 0.0
            width, height = text.size
            self.laid.boxes[word.part] = Rect(box.x + ALIGNED[align] * (box.width - width), y, width, height)
            self.laid.capitals[word.part], self.laid.aligned[word.part] = capital, align
            y, above = y + height, capital

    def _level(self, block: Block, in_row: bool) -> float:
        """Where a column stands in its height: 0 at the top, 1 at the bottom."""
        if self._wish.level is not None:
            return self._wish.level
        if in_row or block.panel:
            return 0.5
        middle = around(word.box for word in block.members).centre.y / self._intent.size.height
        return 0.0 if middle < UPPER else 1.0 if middle > LOWER else 0.5

    def _pictures(self, block: Block, box: Rect, in_row: bool) -> None:
        first = block.members[0]
        if block.flexible:
            self.laid.boxes[first.part] = self._let_out(box) if first.bleeds else box
            return
        count, ratio, gap = len(block.members), first.ratio or 1.0, self._gap
        heights = {
            columns: min(
                (box.width - (columns - 1) * gap) / columns / ratio,
                (box.height - (count // columns - 1) * gap) / (count // columns),
            )
            for columns in (1, count)
        }
        columns = max(heights, key=lambda one: (heights[one], one))
        had = math.sqrt(area(first.box) / ratio) * self._lengths.enlarged
        height = min(heights[columns], had * MOST_ENLARGED)
        width, rows = height * ratio, count // columns
        whole = (columns * width + (columns - 1) * gap, rows * height + (rows - 1) * gap)
        x = box.x + self._slack_before(block, box, box.width - whole[0], in_row)
        y = box.y + (box.height - whole[1]) / 2
        for number, member in enumerate(block.members):
            at = (number % columns) * (width + gap), (number // columns) * (height + gap)
            self.laid.boxes[member.part] = Rect(x + at[0], y + at[1], width, height)

    def _single(self, block: Block, box: Rect, in_row: bool) -> None:
        member = block.members[0]
        wanted = self._lengths.single(member)
        ratio = wanted[0] / wanted[1]
        width = min(wanted[0], box.width, box.height * ratio)
        height = width / ratio
        middle = member.box.centre.y / self._intent.size.height
        level = 0.0 if middle < 1 / 3 else 1.0 if middle > 2 / 3 else 0.5
        beside = in_row and box.height < 3 * height
        y = box.y + (box.height - height) * (0.5 if beside else level)
        x = box.x + self._slack_before(block, box, box.width - width, in_row)
        self.laid.boxes[member.part] = Rect(x, y, width, height)

    def _slack_before(self, block: Block, box: Rect, slack: float, in_row: bool) -> float:
        """How much of the free width stands to the left: as words are aligned, else on the side where it stood."""
        if self._wish.align:
            return slack * ALIGNED[self._wish.align]
        if in_row and block.kind == "pictures":
            return slack / 2
        middle = block.members[0].box.centre.x / self._intent.size.width
        if LEFT <= middle <= RIGHT:
            centred = self._place.size.width / 2 - box.x - (box.width - slack) / 2
            return min(max(centred, 0.0), slack)
        return 0.0 if middle < LEFT else slack

    def _let_out(self, box: Rect) -> Rect:
        """A slot let out to the picture's edge on the sides where it is near to it."""
        width, height = self._place.size
        near, frame = self._place.margin + 1, self._frame

        def touches(at: float, frame_at: float, distance: float, whole: float) -> bool:
            return distance <= near or (abs(at - frame_at) < TOUCHING_PX and distance < BLEEDS_FROM * whole)

        left = 0.0 if touches(box.x, frame.x, box.x, width) else box.x
        top = 0.0 if touches(box.y, frame.y, box.y, height) else box.y
        right = width if touches(box.right, frame.right, width - box.right, width) else box.right
        bottom = height if touches(box.bottom, frame.bottom, height - box.bottom, height) else box.bottom
        return Rect(left, top, right - left, bottom - top)
