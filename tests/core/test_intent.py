"""What a composed piece means: who holds whom, what is a column or a row, who stands where to whom."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.arrange.boxes import OPPOSITE, area, around, free_boxes, shared, side_of
from fitzle.core.arrange.intent import LEAST_MARGIN, MOST_MARGIN, Intent, intent_of
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.document import Piece
from tests.make import photo, saved, sheet, svg

BOXES = st.builds(Rect, st.floats(-50, 500), st.floats(-50, 500), st.floats(1, 400), st.floats(1, 400))
PICTURE = read_artwork(saved(photo(600, 400), "JPEG"), "p.jpg").facts
MARK = read_artwork(svg('<rect x="10" y="15" width="80" height="20" fill="#17443c"/>'), "m.svg").facts
FACTS: dict[str, ArtworkFacts] = {"p": PICTURE, "q": PICTURE, "m": MARK}


def box(anchor: str, width: float, height: float, dx: float = 0, dy: float = 0) -> dict[str, Any]:
    return {"anchor": anchor, "width": width, "height": height, "dx": dx, "dy": dy}


def words(part: str, text: str, stands: Any, role: str = "headline", **keys: Any) -> dict[str, Any]:
    return {"id": part, "role": role, "text": text, "stands": stands, **keys}


def intent(*parts: dict[str, Any], size: tuple[int, int] = (1280, 720), ground: Any = None) -> Intent:
    document = {"subject": "x", "parts": [{"id": "ground", "role": "ground", "fill": ground}, *parts]}
    place = sheet(size={"width": size[0], "height": size[1]}, formats=["png"])
    return intent_of(Piece.model_validate(document).parts, place, FACTS)


def columns(found: Intent) -> list[list[str]]:
    return [[member.part for member in column] for column in found.groups.columns]


@given(BOXES, BOXES)
def test_two_boxes_stand_to_each_other_as_seen_from_both(one: Rect, other: Rect) -> None:
    side = side_of(one, other)
    assert side_of(other, one) == (OPPOSITE[side] if side else None)
    if shared(one, other) == 0:
        assert side is not None
    assert shared(one, other) == pytest.approx(shared(other, one))
    assert shared(one, other) <= min(area(one), area(other)) * (1 + 1e-9)
    assert shared(around((one, other)), one) == pytest.approx(area(one))


@given(st.lists(BOXES, max_size=5))
def test_free_boxes_touch_no_zone_and_leave_nothing_out(zones: list[Rect]) -> None:
    whole = Rect(0, 0, 400, 300)
    free = free_boxes(whole, zones)
    for one in free:
        assert all(shared(one, zone) <= 1e-6 * area(one) for zone in zones)
        assert shared(one, whole) == pytest.approx(area(one))
    assert free == sorted(free, key=lambda one: (-area(one), one)) and len(set(free)) == len(free)
    for x in range(5, 400, 45):
        for y in range(5, 300, 45):
            spot = Rect(x, y, 0.5, 0.5)
            if not any(shared(spot, zone) for zone in zones):
                assert any(shared(spot, one) > 0 for one in free), "a free spot lies in a free box"


def test_words_over_each_other_are_a_column_and_a_badge_is_none() -> None:
    found = intent(
        words("head", "True a wheel", box("top-left", 0.9, 0.3, 0.07, 0.1)),
        words("line", "Lesson 12", box("top-left", 0.6, 0.1, 0.07, 0.45), "second line"),
        words("new", "New", box("top-right", 0.2, 0.1, -0.07, 0.07), "badge"),
    )
    assert sorted(columns(found)) == [["head", "line"], ["new"]]
    assert found.sides["head", "line"] == "above" and found.common["head", "line"] == "left"
    assert found.near["new"] == {"top", "right"} and LEAST_MARGIN <= found.margin <= MOST_MARGIN


def test_a_picture_between_parts_a_column() -> None:
    found = intent(
        words("head", "Before", box("top", 0.9, 0.15, 0, 0.05), align="centre"),
        {"id": "p", "role": "picture", "artwork": "p", "stands": box("centre", 0.9, 0.4)},
        words("line", "and after", box("bottom", 0.9, 0.15, 0, -0.05), "second line", align="centre"),
    )
    assert sorted(columns(found)) == [["head"], ["line"]]
    assert {"head", "p", "line"} <= found.middle


def test_a_panel_holds_its_words_and_they_are_meant_to_lie_on_it() -> None:
    found = intent(
        {"id": "p", "role": "picture", "artwork": "p", "stands": "fill"},
        {"id": "panel", "role": "shape", "shape": "rectangle", "fill": {"kind": "solid", "colour": "#17443c"},
         "stands": box("left", 0.8, 0.84, 0.08)},
        words("head", "Ride out", box("left", 0.56, 0.3, 0.2, -0.1)),
        words("line", "Every Friday", box("left", 0.56, 0.12, 0.2, 0.2), "second line"),
    )  # fmt: skip
    assert found.members["p"].backdrop and found.members["p"].bleeds == {"left", "top", "right", "bottom"}
    assert set(found.groups.panels["panel"]) == {"head", "line"} and found.groups.hosts == {}
    assert frozenset(("panel", "head")) in found.groups.meant and ("panel", "head") not in found.sides
    assert columns(found) == [["head", "line"]]


def test_a_badge_on_a_picture_rides_on_it() -> None:
    found = intent(
        {"id": "p", "role": "picture", "artwork": "p", "stands": box("left", 0.9, 0.9, 0.05)},
        words(
            "now", "Now 490", box("left", 0.3, 0.12, 0.75, 0.2), "badge", plate={"colour": "#b4541a", "padding": 0.5}
        ),
        words("head", "The Otter is back", box("right", 0.6, 0.3, -0.07)),
    )
    assert found.groups.hosts == {"now": "p"} and "now" not in found.near
    assert not any("now" in pair for pair in found.sides) and found.sides["p", "head"] == "left"


def test_pictures_of_one_size_beside_each_other_are_a_row() -> None:
    pictures = [
        {"id": part, "role": "picture", "artwork": part, "stands": box(side, 0.5, 0.5, dx), "die": {"shape": "circle"}}
        for part, side, dx in (("q", "right", -0.2), ("p", "left", 0.2))
    ]
    found = intent(*pictures)
    assert [[member.part for member in row] for row in found.groups.rows] == [["p", "q"]]
    assert found.members["p"].ratio == pytest.approx(1)


def test_marks_keep_their_shape_and_words_have_the_height_of_their_capitals() -> None:
    found = intent(
        {"id": "m", "role": "mark", "artwork": "m", "stands": box("top-left", 0.5, 0.2, 0.07, 0.07)},
        words("head", "Slow roads", box("left", 1.2, 0.3, 0.07, 0.1), size=0.1),
    )
    head = found.members["head"]
    assert found.members["m"].ratio == pytest.approx(4, rel=0.01) and head.ratio is None
    assert head.table and head.capital_px == pytest.approx(head.table.cap * 72, rel=0.01)
    assert head.table.rows[0].width * 72 == pytest.approx(head.box.width, rel=0.08)


def test_a_turned_part_counts_with_the_box_around_it() -> None:
    shape = {"id": "s", "role": "shape", "shape": "star", "fill": {"kind": "solid", "colour": "#b4541a"}}
    straight, turned = (
        intent(shape | {"stands": box("centre", 0.4, 0.1), "rotation": degrees}).members["s"].box for degrees in (0, 90)
    )
    assert (turned.width, turned.height) == pytest.approx((straight.height, straight.width))


def test_what_a_picture_shows_is_its_faces_or_where_it_was_looked_at() -> None:
    face = {"x": 100, "y": 80, "width": 60, "height": 60, "score": 0.9}
    facts = {"p": PICTURE.model_copy(update={"faces": (_face(face),)})}
    part = {"id": "p", "role": "picture", "artwork": "p", "stands": "fill", "focal_point": {"x": 0.9, "y": 0.5}}
    document = {"subject": "x", "parts": [{"id": "ground", "role": "ground"}, part]}
    place = sheet(size={"width": 900, "height": 600}, formats=["png"])
    parts = Piece.model_validate(document).parts
    with_face = intent_of(parts, place, facts).members["p"].subject
    without = intent_of(parts, place, FACTS).members["p"].subject
    assert with_face and with_face.faces and shared(with_face.box, Rect(100, 80, 60, 60)) == 3600
    assert without and not without.faces and without.box.right <= 600 and without.box.centre.x > 400


def _face(values: dict[str, float]) -> Any:
    from fitzle.core.artwork.facts import Face

    return Face(**values)
