"""Blocks: what is laid out as one, a column of words on its panel, a row of pictures, or a part alone."""

from __future__ import annotations

from collections.abc import Collection
from typing import Literal, NamedTuple

from fitzle.core.arrange.boxes import around
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.members import Member
from fitzle.core.geometry.rect import Rect

BlockKind = Literal["words", "pictures", "single", "room"]


class Block(NamedTuple):
    """Members that stay together, where they stood (px of the composed picture), and the panel that they lie on.

    A `room` has no members: it is kept free for what the picture behind shows there. `flexible` blocks take any shape.
    """

    kind: BlockKind
    members: tuple[Member, ...]
    box: Rect
    panel: Member | None = None
    flexible: bool = False

    @property
    def parts(self) -> tuple[str, ...]:
        """The ids of its members."""
        return tuple(member.part for member in self.members)


def blocks_of(intent: Intent, kept: Collection[str]) -> list[Block]:
    """The blocks of the parts that are kept; backdrops, panels and riders follow others and are none."""
    found: list[Block] = []
    for column in intent.groups.columns:
        words = tuple(member for member in column if member.part in kept)
        if words:
            panel = _panel_of(words[0].part, intent, kept)
            found.append(Block("words", words, panel.box if panel else around(one.box for one in words), panel, True))
    for row in intent.groups.rows:
        pictures = tuple(member for member in row if member.part in kept)
        if pictures:
            box = around(one.box for one in pictures)
            found.append(Block("pictures", pictures, box, None, pictures[0].ratio is None))
    taken = {block.panel.part for block in found if block.panel}
    for member in intent.members.values():
        if member.part in kept and member.kind in ("mark", "shape") and not _follows(member, intent):
            panel = _panel_of(member.part, intent, kept)
            own = panel if panel and panel.part not in taken else None
            found.append(Block("single", (member,), member.box, own))
    return found


def room_for(box: Rect) -> Block:
    """Room for what a picture behind everything shows at a box of the composed picture."""
    return Block("room", (), box, None, True)


def _follows(member: Member, intent: Intent) -> bool:
    """Whether it stands where another part has it stand."""
    return member.backdrop or member.part in intent.groups.panels or member.part in intent.groups.hosts


def _panel_of(part: str, intent: Intent, kept: Collection[str]) -> Member | None:
    holders = [panel for panel, held in intent.groups.panels.items() if part in held and panel in kept]
    return intent.members[holders[0]] if holders else None
