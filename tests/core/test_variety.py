"""Arrangements that differ in kind: each of its own, none with anything over anything, and as takes of a place."""

import math
from itertools import combinations

import pytest

from fitzle.core.arrange.boxes import area, shared, side_of
from fitzle.core.arrange.intent import Intent, intent_of
from fitzle.core.arrange.place import place_of
from fitzle.core.arrange.variety import Kind, kind_of, turned, varied_drafts
from fitzle.core.fit.arranged_otherwise import words_of
from fitzle.core.spec.sheet import ExactSize, SpecSheet
from fitzle.core.units import Size
from tests.core.arranging_set import composed, facts, place

FACTS = facts()
PIECES = {one.name: one for one in composed()}
SHAPES = [place("card", 900, 900, 300), place("story", 720, 1280, 360), place("header", 1500, 500, 750)]


def intent_named(name: str) -> Intent:
    one = PIECES[name]
    return intent_of(one.piece.parts, place("composed", *one.size, one.size[0]), FACTS)


@pytest.mark.parametrize("sheet", SHAPES, ids=lambda sheet: sheet.name)
@pytest.mark.parametrize("name", PIECES)
def test_there_are_arrangements_of_several_kinds(name: str, sheet: SpecSheet) -> None:
    intent = intent_named(name)
    there = place_of(sheet, _size(sheet), intent.margin)
    found = varied_drafts(intent, there, 3)
    assert 2 <= len(found) <= 3
    assert [kind for kind, _ in found] == [kind_of(draft) for _, draft in found]
    assert len({kind for kind, _ in found}) == len(found), "each of its own kind"
    kept = {draft.kept for _, draft in found}
    assert len(kept) == 1, "with the same parts"
    for _, draft in found:
        for one, other in combinations(draft.solid, 2):
            both = shared(draft.boxes[one.part], draft.boxes[other.part])
            least = min(area(draft.boxes[one.part]), area(draft.boxes[other.part]))
            assert draft.meant(one, other) or both <= 0.01 * least, (one.part, other.part)


def _size(sheet: SpecSheet) -> Size:
    assert isinstance(sheet.size, ExactSize)
    return Size(sheet.size.width, sheet.size.height)


@pytest.mark.parametrize("across", [True, False])
@pytest.mark.parametrize("name", PIECES)
def test_turned_twice_an_intent_is_what_it_was(name: str, across: bool) -> None:
    intent = intent_named(name)
    back = turned(turned(intent, across=across), across=across)
    for part, member in intent.members.items():
        assert math.dist(back.members[part].box.centre, member.box.centre) < 1e-6
        assert back.members[part].bleeds == member.bleeds


def test_turned_across_what_stood_left_stands_right_and_columns_keep_their_order() -> None:
    intent = intent_named("guest")
    other = turned(intent, across=True)
    picture = next(one for one in intent.members.values() if one.kind == "picture")
    headline = next(one for one in intent.members.values() if one.role == "headline")

    def side(seen: Intent) -> str | None:
        return side_of(seen.members[headline.part].box, seen.members[picture.part].box)

    assert (side(intent), side(other)) == ("left", "right")
    down = turned(intent, across=False)
    for column in intent.groups.columns:
        order = [down.members[member.part].box.y for member in column]
        assert order == sorted(order), "words are read from top to bottom still"


@pytest.mark.parametrize(
    ("kind", "said"),
    [
        (Kind("headline", "picture", "left"), "Words left of the picture"),
        (Kind("headline", "mark", "above"), "Words above the mark"),
        (Kind("picture", "mark", "below"), "The picture below the mark"),
        (Kind("headline", "", None, "centre", "middle"), "Words in the middle"),
        (Kind("headline", "", None, "centre", "top"), "Words at the top"),
        (Kind("headline", "", None, "left", "bottom"), "Words at the bottom, on the left"),
        (Kind("mark", "", None, "right", "middle"), "The mark half-way up, on the right"),
    ],
)
def test_kinds_are_said_in_words(kind: Kind, said: str) -> None:
    assert words_of(kind) == said
