"""The best arrangement: every slicing tree in every free box, the best of them refined, and ever fewer parts."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

from fitzle.core.arrange.blocks import Block, blocks_of, room_for
from fitzle.core.arrange.draft import Draft
from fitzle.core.arrange.energy import TERMS, energy_of
from fitzle.core.arrange.intent import Intent
from fitzle.core.arrange.laying import Laid, Wish, lay
from fitzle.core.arrange.lengths import Lengths
from fitzle.core.arrange.members import Member
from fitzle.core.arrange.pins import put_pins
from fitzle.core.arrange.place import Place
from fitzle.core.arrange.riding import add_riders
from fitzle.core.arrange.trees import MOST_SEARCHED, Split, trees_for
from fitzle.core.arrange.whole import wholes
from fitzle.core.arrange.windows import subject_in
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect

REFINED = 7  # trees
SCALES, SMALLER = (0.72, 0.86, 1.18, 1.4), (0.55,)
LEVELS = (0.0, 0.5, 1.0)
ALMOST_SQUARE = 1.3
SAME = 1e-6
DROPPING = 0.8  # times the importance of what is left out
GOOD = {"legibility": 0.35, "overlap": 0.0, "covered": 0.3}  # where all parts stand so well, none is dropped,
CALM = 2.6  # unless they cost more than that together


class Way(NamedTuple):
    """How a draft was laid: its blocks, tree and free box, and what was wished."""

    blocks: tuple[Block, ...]
    tree: int | Split
    frame: Rect
    wish: Wish


class Scored(NamedTuple):
    """A draft with its energy; `way` is None where it was not laid out by a tree."""

    energy: float
    draft: Draft
    way: Way | None

    @classmethod
    def of(cls, draft: Draft, way: Way | None = None, above: float = math.inf) -> Scored:
        """A draft scored; one of an energy above a figure not to its end."""
        return cls(energy_of(draft, above), draft, way)


class Best(NamedTuple):
    """An arrangement with its energy and the price of what is left out."""

    cost: float
    draft: Draft


def best_of(intent: Intent, place: Place, kept: frozenset[str], fixed: frozenset[str] = frozenset()) -> Best:
    """The arrangement of least energy of the parts that are kept, or of fewer, each at its price; never without the
    headline or what is `fixed`.
    """
    order = [part for part in _drop_order(intent) if part in kept and part not in fixed]
    best: Best | None = None
    paid = 0.0
    for dropped in (None, *order):
        if dropped is not None:
            kept = frozenset(part for part in kept if part != dropped and intent.groups.hosts.get(part) != dropped)
            paid += DROPPING * intent.members[dropped].importance
        found = _best_of(intent, place, kept)
        if found is None:
            continue
        if best is None or found.energy + paid < best.cost:
            best = Best(found.energy + paid, found.draft)
        if found.energy <= CALM and all(TERMS[name](found.draft) <= most for name, most in GOOD.items()):
            break
    assert best  # a piece without anything to arrange keeps its backdrop
    return best


def _drop_order(intent: Intent) -> list[str]:
    """What can be left out, the least important first; of several of a role the later ones before the first."""
    seen: set[str] = set()
    order: list[tuple[float, str]] = []
    for member in intent.members.values():
        if member.backdrop or member.part in intent.groups.panels or member.role == "headline":
            continue
        order.append((member.importance - (0.05 if member.role in seen else 0.0), member.part))
        seen.add(member.role)
    return [part for _, part in sorted(order)]


def _best_of(intent: Intent, place: Place, kept: frozenset[str]) -> Scored | None:
    blocks = tuple(blocks_of(intent, kept - place.pins.keys()))
    if not blocks:
        laid = Laid({}, {}, {})
        put_pins(laid, place, kept)
        add_riders(laid, intent, place, kept, 1.0)
        return Scored.of(Draft(intent, place, laid, kept), None)
    leaders = _Leaders()
    for corner, way in _ways(intent, place, kept, blocks):
        leaders.add(_tried(intent, place, kept, corner, way, leaders.last))
    best_trees = [refined(intent, place, kept, one) for one in leaders.found]
    whole = [Scored.of(draft) for draft in wholes(intent, place, kept)]
    return min([*whole, *best_trees], key=lambda one: one.energy, default=None)


def tried_ways(intent: Intent, place: Place, kept: frozenset[str]) -> Iterator[Scored]:
    """Every tree in every free box, as it is laid out at first."""
    blocks = tuple(blocks_of(intent, kept - place.pins.keys()))
    for corner, way in _ways(intent, place, kept, blocks) if blocks else ():
        yield _tried(intent, place, kept, corner, way, math.inf)


def _ways(
    intent: Intent, place: Place, kept: frozenset[str], blocks: tuple[Block, ...]
) -> Iterator[tuple[tuple[Block, ...], Way]]:
    """Each with the blocks that keep to their corner in it."""
    for some, corner in _sets(intent, blocks, _backdrop(intent, kept)):
        for frame in place.free:
            for tree in trees_for(some):
                yield corner, Way(some, tree, frame, Wish())


class _Leaders:
    """The REFINED best of different energies."""

    def __init__(self) -> None:
        self.found: list[Scored] = []

    @property
    def last(self) -> float:
        """What is not below this is none of them."""
        return self.found[-1].energy if len(self.found) == REFINED else math.inf

    def add(self, one: Scored) -> None:
        """Takes one in, unless there is one of its energy."""
        if one.energy < self.last and all(abs(one.energy - other.energy) > SAME for other in self.found):
            self.found = sorted([*self.found, one], key=lambda other: other.energy)[:REFINED]


def _sets(
    intent: Intent, blocks: tuple[Block, ...], backdrop: Member | None
) -> Iterator[tuple[tuple[Block, ...], tuple[Block, ...]]]:
    """The blocks that are laid out, and those that keep to their corner: all; with room for what a picture behind
    shows; and both without marks and badges in corners.
    """
    corner = tuple(block for block in blocks if _in_a_corner(block, intent))
    rest = tuple(block for block in blocks if block not in corner)
    sets = [blocks]
    if backdrop and backdrop.subject and len(blocks) < MOST_SEARCHED:
        sets.append((*blocks, room_for(_subject_box(backdrop, intent))))
    for some in sets:
        yield some, ()
        if corner and rest:
            yield tuple(block for block in some if block not in corner), corner


def _in_a_corner(block: Block, intent: Intent) -> bool:
    """A mark or a badge alone that keeps to two edges of the picture."""
    if len(block.members) != 1 or block.panel:
        return False
    [member] = block.members
    return (block.kind == "single" or member.role == "badge") and len(intent.near.get(member.part, ())) >= 2


def refined(intent: Intent, place: Place, kept: frozenset[str], first: Scored) -> Scored:
    """Other sizes, then other heights, then centred, each on the best so far; `first` was laid out by a tree."""
    assert first.way
    way, best, behind = first.way, first, _backdrop(intent, kept) is not None
    blocks = blocks_of(intent, kept - place.pins.keys())
    corner = tuple(block for block in blocks if _in_a_corner(block, intent) and block not in way.blocks)

    def better(wish: Wish) -> None:
        nonlocal best
        one = _tried(intent, place, kept, corner, way._replace(wish=wish), best.energy)
        best = one if one.energy < best.energy else best

    for scale in (*(SMALLER if behind else ()), *SCALES):
        better(Wish(scale))
    if behind or len(way.blocks) == 1:
        for level in LEVELS:
            better(_wish(best)._replace(level=level))
    centred = any(align == "centre" for align in first.draft.aligned.values())
    if not centred and place.size.width / place.size.height < ALMOST_SQUARE:
        better(_wish(best)._replace(align="centre"))
    return best


def _wish(one: Scored) -> Wish:
    return one.way.wish if one.way else Wish()


def _tried(
    intent: Intent, place: Place, kept: frozenset[str], corner: tuple[Block, ...], way: Way, above: float
) -> Scored:
    laid = lay(way.tree, way.blocks, intent, place, way.frame, way.wish)
    for block in corner:
        _put_in_corner(laid, block.members[0], intent, place, way)
    put_pins(laid, place, kept)
    add_riders(laid, intent, place, kept, way.wish.scale)
    return Scored.of(Draft(intent, place, laid, kept), way, above)


def _put_in_corner(laid: Laid, member: Member, intent: Intent, place: Place, way: Way) -> None:
    lengths, near, frame = Lengths(intent, place, way.wish.scale), intent.near[member.part], way.frame
    if member.table:
        em = lengths.measure.capital(member, way.wish.scale, alone=False) / member.table.cap
        row = member.table.rows[0]
        size = row.width * em, row.height * em
        laid.capitals[member.part], laid.aligned[member.part] = em * member.table.cap, member.align
    else:
        width, height = lengths.single(member)
        smaller = min(1.0, frame.width / width, frame.height / height)
        size = width * smaller, height * smaller
    x = frame.x if "left" in near else frame.right - size[0] if "right" in near else frame.centre.x - size[0] / 2
    y = frame.y if "top" in near else frame.bottom - size[1] if "bottom" in near else frame.centre.y - size[1] / 2
    laid.boxes[member.part] = Rect(x, y, *size)


def _backdrop(intent: Intent, kept: frozenset[str]) -> Member | None:
    behind = (one for one in intent.members.values() if one.backdrop and one.subject and one.part in kept)
    return next(behind, None)


def _subject_box(backdrop: Member, intent: Intent) -> Rect:
    """Where the subject of a backdrop is seen in the composed picture."""
    assert backdrop.subject
    whole, own = backdrop.subject.whole, backdrop.subject.box
    middle = Point((own.centre.x - whole.x) / whole.width, (own.centre.y - whole.y) / whole.height)
    window = fill_window(whole, intent.size.width / intent.size.height, middle)
    return subject_in(backdrop.subject, window, Rect(0, 0, *intent.size))
