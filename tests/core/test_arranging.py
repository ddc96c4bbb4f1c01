"""Pieces arranged for places of other shapes: nothing over anything, all of it read, in its order, each time alike."""

from __future__ import annotations

from functools import cache
from typing import NamedTuple

import pytest

from fitzle.core.arrange.adjusting import Adjustments
from fitzle.core.arrange.arranging import arranged
from fitzle.core.arrange.boxes import area, shared, side_of
from fitzle.core.arrange.intent import Intent, intent_of
from fitzle.core.arrange.place import Place, place_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.line_breaks import joined_lines
from fitzle.core.piece.parts import AnyPart, adjusted_part
from fitzle.core.plan.placed import PlacedWords, Plan
from fitzle.core.plan.planning import plan_parts
from tests.core.arranging_set import TARGETS, WIDE, Composed, Target, composed, facts, place

FACTS = facts()
PIECES = {one.name: one for one in composed()}
SHEETS = {one.sheet.name: one for one in TARGETS}
KEPT_ORDER = 0.97
STILL_READ = 8.9  # px: the least capitals less a rounding


class Arranged(NamedTuple):
    """A piece in a place, planned."""

    intent: Intent
    place: Place
    adjustments: Adjustments
    plan: Plan

    @property
    def front(self) -> dict[str, Rect]:
        """The boxes of what is not behind everything."""
        members = self.intent.members
        found = {part.part: part.box for part in self.plan.parts if not members[part.part].backdrop}
        return {part: box for part, box in found.items() if part not in self.intent.groups.panels}


@cache
def arrange(piece: str, sheet: str) -> Arranged:
    return arrangement(PIECES[piece], SHEETS[sheet])


def arrangement(one: Composed, target: Target) -> Arranged:
    parts = one.piece.parts
    intent = intent_of(parts, place("composed", *one.size, one.size[0]), FACTS)
    adjustments = arranged(parts, intent, target.sheet, FACTS)
    plan = plan_parts(adjusted(parts, adjustments), target.sheet, FACTS)
    return Arranged(intent, place_of(target.sheet, plan.size, intent.margin), adjustments, plan)


def adjusted(parts: tuple[AnyPart, ...], adjustments: Adjustments) -> tuple[AnyPart, ...]:
    return tuple(adjusted_part(part, adjustments[part.id]) if part.id in adjustments else part for part in parts)


EVERY = pytest.mark.parametrize("sheet", SHEETS)
PIECE = pytest.mark.parametrize("piece", PIECES)


@EVERY
@PIECE
def test_nothing_lies_over_anything_that_it_was_not_meant_to(piece: str, sheet: str) -> None:
    found = arrange(piece, sheet)
    boxes = sorted(found.front.items())
    over = [
        (one, other)
        for number, (one, first) in enumerate(boxes)
        for other, second in boxes[number + 1 :]
        if frozenset((one, other)) not in found.intent.groups.meant
        and shared(first, second) > 0.01 * min(area(first), area(second))
    ]
    assert not over


@EVERY
@PIECE
def test_what_is_shown_is_inside_and_not_covered(piece: str, sheet: str) -> None:
    found = arrange(piece, sheet)
    whole = Rect(0, 0, *found.plan.size)
    for part, box in found.front.items():
        member = found.intent.members[part]
        assert shared(box, whole) >= 0.99 * area(box), part
        if member.kind in ("words", "mark"):
            assert sum(shared(box, zone) for zone in found.place.covered) <= 0.02 * area(box), part


@EVERY
@PIECE
def test_words_are_read_that_were_read_before(piece: str, sheet: str) -> None:
    found = arrange(piece, sheet)
    for words in found.plan.words:
        member = found.intent.members[words.part]
        alone = found.place.unit / found.intent.unit * member.capital_px * found.place.seen
        small = words.layout.cap_height_px * found.place.seen < STILL_READ
        assert not (small and alone >= STILL_READ), f"{words.part} was {alone:.1f} px when scaled"


def test_the_order_of_things_is_kept() -> None:
    kept = [one for piece in PIECES for sheet in SHEETS for one in order(arrange(piece, sheet))]
    assert len(kept) > 200 and sum(kept) / len(kept) >= KEPT_ORDER


def order(found: Arranged) -> list[bool]:
    """Of each pair whether what came first, to the left or above, still does."""
    first = ("left", "above")
    boxes, told = found.front, []
    for (one, other), had in found.intent.sides.items():
        if one in boxes and other in boxes:
            side = side_of(boxes[one], boxes[other])
            told.append(side is not None and (side in first) == (had in first))
    return told


@pytest.mark.parametrize("piece", ["guest", "talk"])
@EVERY
def test_faces_are_seen_and_not_written_over(piece: str, sheet: str) -> None:
    found = arrange(piece, sheet)
    picture = next((part for part in found.plan.artworks if FACTS[part.artwork].faces), None)
    if picture is None:
        return  # it was left out
    [face] = FACTS[picture.artwork].faces
    scale = picture.box.width / picture.window.width
    seen = Rect(face.x - picture.window.x, face.y - picture.window.y, face.width, face.height).scaled(scale)
    seen = seen.moved(picture.box.x, picture.box.y)
    over = [box for part, box in found.front.items() if part != picture.part]
    visible = shared(seen, picture.box) / area(seen) - sum(shared(seen, box) for box in over) / area(seen)
    assert visible >= 0.6


@PIECE
def test_a_piece_is_left_alone_in_its_own_shape(piece: str) -> None:
    one = PIECES[piece]
    for scale in (1, 2):
        size = (one.size[0] * scale, one.size[1] * scale)
        assert arrangement(one, Target(place("same", *size, size[0]), False)).adjustments == {}


def test_it_comes_out_the_same_each_time() -> None:
    for piece, sheet in (("offer", "tall"), ("panel", "strip"), ("talk", "card")):
        again = arrangement(PIECES[piece], SHEETS[sheet])
        assert again.adjustments == arrange(piece, sheet).adjustments


def test_an_icon_shows_one_thing() -> None:
    sheet = place("tab", 32, 32, 16)
    for name, shown in (("plain", "wordmark"), ("guest", "guest"), ("quote", "wheel")):
        found = arrangement(PIECES[name], Target(sheet, False))
        assert [part.part for part in found.plan.parts if part.part != "ground"] == [shown]
    letter = arrangement(PIECES["story"]._replace(piece=_words_only(PIECES["story"])), Target(sheet, False))
    [word] = letter.plan.parts
    assert isinstance(word, PlacedWords) and "".join(word.layout.lines) == "T"


def _words_only(one: Composed):  # type: ignore[no-untyped-def]
    parts = [part for part in one.piece.parts if part.role != "picture"]
    return one.piece.model_copy(update={"parts": tuple(parts)})


def test_words_that_run_from_right_to_left_keep_to_their_side() -> None:
    found = arrange("right to left", "tall")
    assert {fields.get("align") for part, fields in found.adjustments.items() if part == "headline"} <= {"right"}


def test_a_picture_gives_room_to_words_before_it_is_left_out() -> None:
    """Words that share a length with a picture get what they need to be read; the rest is the picture's."""
    found = arrange("story", "round")
    assert {"street", "headline", "second-line"} <= found.front.keys()
    [headline] = [part for part in found.plan.parts if isinstance(part, PlacedWords) and part.part == "headline"]
    assert headline.layout.cap_height_px * found.place.seen >= STILL_READ


def test_what_is_crowded_is_left_out_even_where_all_could_be_read() -> None:
    assert len(arrange("offer", "round").front) < len(arrange("offer", "almost").front)


def broken_by_hand(**keys: str) -> Composed:
    """The plain piece with its headline broken into four lines by hand."""
    one = PIECES["plain"]
    broken = {"text": "Slow\nroads,\nquick\nrepairs", **keys}
    parts = tuple(adjusted_part(part, broken) if part.id == "headline" else part for part in one.piece.parts)
    return one._replace(size=WIDE, piece=one.piece.model_copy(update={"parts": parts}))


def lines_in(found: Arranged) -> tuple[str, ...]:
    [headline] = [part for part in found.plan.parts if isinstance(part, PlacedWords) and part.part == "headline"]
    return tuple(headline.layout.lines)


@pytest.mark.parametrize("sheet", ["wide banner", "strip", "very wide", "with a face"])
def test_line_breaks_go_in_flatter_pictures_unless_they_are_to_stay(sheet: str) -> None:
    found = arrangement(broken_by_hand(), SHEETS[sheet])
    assert found.adjustments["headline"]["line_breaks"] == "dropped"
    assert len(lines_in(found)) < 4 and " ".join(lines_in(found)) == "Slow roads, quick repairs"
    kept = arrangement(broken_by_hand(line_breaks="kept"), SHEETS[sheet])
    assert "line_breaks" not in kept.adjustments["headline"] and len(lines_in(kept)) >= 4


@pytest.mark.parametrize("sheet", ["story", "tall", "square"])
def test_line_breaks_stay_where_there_is_height(sheet: str) -> None:
    assert "line_breaks" not in arrangement(broken_by_hand(), SHEETS[sheet]).adjustments["headline"]


def test_line_breaks_that_somebody_kept_in_a_place_stay_there() -> None:
    one, sheet = broken_by_hand(), SHEETS["strip"].sheet
    intent = intent_of(one.piece.parts, place("composed", *one.size, one.size[0]), FACTS)
    found = arranged(one.piece.parts, intent, sheet, FACTS, {"headline": {"line_breaks": "kept"}})
    assert "line_breaks" not in found["headline"]


@pytest.mark.parametrize(
    ("text", "joined"),
    [
        ("Slow\nroads", "Slow roads"), ("Slow \n\n roads\n", "Slow roads"), ("one", "one"), ("", ""), ("\n", ""),
        ("車輪を\nまっすぐに", "車輪をまっすぐに"), ("車輪\nWheel", "車輪 Wheel"), ("إصلاح\nالعجلات", "إصلاح العجلات"),
    ],
)  # fmt: skip
def test_lines_are_joined_as_their_script_does(text: str, joined: str) -> None:
    assert joined_lines(text) == joined
