"""Properties of the planner: any piece of parts in any size."""

import math
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.geometry.anchor import Anchor
from fitzle.core.geometry.rect import Rect
from fitzle.core.geometry.shapes import SHAPES
from fitzle.core.piece.changes import apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.piece.parts import Box, ShapePart
from fitzle.core.plan.guides import guides_of
from fitzle.core.plan.new_parts import words_part
from fitzle.core.plan.placed import PlacedArtwork, PlacedWords, Plan
from fitzle.core.plan.standing import rotated_size, standing_at, standing_box
from fitzle.core.units import Size
from tests.core.composed import PIECES, artworks, piece, words
from tests.fits import plan_of
from tests.make import sheet, solid

ANCHORS = ["top-left", "top", "top-right", "left", "centre", "right", "bottom-left", "bottom", "bottom-right"]
SIDES = st.integers(16, 4096)
SHARE = st.floats(-2, 2)
BOXES = st.builds(
    lambda anchor, dx, dy, width, height: {"anchor": anchor, "dx": dx, "dy": dy, "width": width, "height": height},
    st.sampled_from(ANCHORS), SHARE, SHARE, st.floats(0.01, 4), st.floats(0.01, 4),
)  # fmt: skip
TURNS = st.floats(-180, 180)


def part(index: int, role: str, stands: Any, rotation: float) -> dict[str, Any]:
    common = {"id": f"p{index}", "role": role, "stands": stands, "rotation": rotation}
    if role in ("headline", "badge"):
        return {
            **common,
            "text": "True a wheel",
            "plate": {"colour": "#fff", "shape": "pill"} if role == "badge" else None,
        }
    if role == "shape":
        return {**common, "shape": "star", "fill": solid("#17443c")}
    return {**common, "artwork": "photo" if role == "picture" else "ding.svg"}


PARTS = st.lists(
    st.tuples(st.sampled_from(["headline", "badge", "shape", "picture", "mark"]), BOXES, TURNS), max_size=5
)


def planned(parts: list[tuple[str, Any, float]], width: int, height: int) -> Plan:
    made = [part(index, *entry) for index, entry in enumerate(parts)]
    facts: dict[str, ArtworkFacts] = artworks()[0]
    document = Piece.model_validate(piece(*made, ground=solid("#ffffff")))
    return plan_of(document, sheet(size={"width": width, "height": height}), facts)


@settings(max_examples=60, deadline=None)
@given(PARTS, SIDES, SIDES)
def test_nothing_stands_outside_unless_asked_and_the_order_is_kept(parts: list, width: int, height: int) -> None:
    plan = planned(parts, width, height)
    assert [entry.part for entry in plan.parts] == [f"p{index}" for index in range(len(parts))]
    for entry in plan.parts:
        across, down = rotated_size(entry.stands, entry.look.rotation)
        middle, slack = entry.stands.centre, 1e-6 * max(width, height)
        assert middle.x - across / 2 >= -slack and middle.x + across / 2 <= width + slack
        assert middle.y - down / 2 >= -slack and middle.y + down / 2 <= height + slack


@settings(max_examples=40, deadline=None)
@given(PARTS, st.integers(16, 2048), st.integers(16, 2048))
def test_a_plan_for_twice_the_size_is_twice_the_plan(parts: list, width: int, height: int) -> None:
    small, large = planned(parts, width, height), planned(parts, 2 * width, 2 * height)
    for one, two in zip(small.parts, large.parts, strict=True):
        assert tuple(two.stands) == tuple(pytest.approx(2 * value, abs=1e-6, rel=1e-9) for value in one.stands)
        if isinstance(one, PlacedWords) and isinstance(two, PlacedWords):
            assert two.layout.size_px == pytest.approx(2 * one.layout.size_px, rel=1e-3)
            assert two.layout.lines == one.layout.lines
        if isinstance(one, PlacedArtwork) and isinstance(two, PlacedArtwork):
            rounding = 0 if one.vector else 2  # a bitmap stands on whole px
            assert two.box.width == pytest.approx(2 * one.box.width, abs=rounding + 1e-6)


@settings(max_examples=200, deadline=None)
@given(BOXES, SIDES, SIDES, st.booleans())
def test_a_part_put_somewhere_stands_exactly_there(stands: Any, width: int, height: int, beyond: bool) -> None:
    size = Size(width, height)
    start = ShapePart(id="s", role="shape", shape="star", stands=Box(**stands), beyond=beyond)
    rect = standing_box(start, size)
    box, outside = standing_at(rect, size)
    again = standing_box(start.model_copy(update={"stands": box, "beyond": outside}), size)
    assert tuple(again) == tuple(pytest.approx(value, abs=0.02 * size.short_side / 100 + 0.6) for value in rect)


@pytest.mark.parametrize(
    ("rect", "anchor", "beyond"),
    [
        (Rect(5, 5, 20, 20), "top-left", False),
        (Rect(140, 80, 40, 20), "centre", False),
        (Rect(290, 150, 30, 30), "bottom-right", False),
        (Rect(-30, 60, 60, 60), "left", True),
        (Rect(140, 150, 40, 60), "bottom", True),
    ],
)
def test_a_part_is_anchored_to_the_side_it_is_nearest_to(rect: Rect, anchor: Anchor, beyond: bool) -> None:
    box, outside = standing_at(rect, Size(320, 180))
    assert (box.anchor, outside) == (anchor, beyond)


def test_a_part_that_reaches_beyond_on_purpose_is_left_there() -> None:
    stands = Box(anchor="right", dx=0.3, width=0.8, height=0.8)
    held = ShapePart(id="s", role="shape", shape="star", stands=stands)
    size = Size(320, 180)
    assert standing_box(held, size).right <= 320
    assert standing_box(held.model_copy(update={"beyond": True}), size).right == pytest.approx(320 + 0.3 * 180)


def test_an_edge_is_given_room() -> None:
    plan = plan_of(Piece.model_validate(PIECES["sticker"]), sheet(size={"width": 200, "height": 200}), artworks()[0])
    assert plan.edge is not None
    assert plan.parts[0].stands.x == pytest.approx(plan.edge.width_px)


def test_hidden_parts_are_not_planned_and_missing_artwork_is_told() -> None:
    hidden = piece({**words(), "hidden": True}, ground=solid("#fff"))
    assert plan_of(Piece.model_validate(hidden), sheet(), {}).parts == ()
    gone = piece({"id": "p", "role": "picture", "artwork": "gone"})
    with pytest.raises(Exception, match="artwork of part 'p' is missing"):
        plan_of(Piece.model_validate(gone), sheet(), {})


def test_an_unknown_typeface_is_replaced_by_the_usual_one() -> None:
    plan = plan_of(Piece.model_validate(piece(words(family="Nobody's"))), sheet(), {})
    assert plan.words[0].family == "Work Sans"


@pytest.mark.parametrize("shape", SHAPES)
def test_words_stay_inside_the_plate_they_have(shape: str) -> None:
    plated = words("New today", plate={"colour": "#17443c", "shape": shape, "padding": 0.2})
    placed = plan_of(Piece.model_validate(piece(plated)), sheet(), {}).words[0]
    assert placed.plate is not None
    bounds, block = placed.plate.path.bounds(), placed.layout.block
    assert bounds.x <= block.x and bounds.right >= block.right
    assert bounds.y <= block.y and bounds.bottom >= block.bottom


def test_guides_are_edges_middles_thirds_padding_and_covered_zones() -> None:
    zone = {"x": 0.8, "y": 0.9, "width": 0.2, "height": 0.1, "label": "running time"}
    guides = guides_of(Size(300, 100), sheet(covered=[zone]))
    across = {guide.name: guide.at for guide in guides if guide.axis == "x"}
    assert sorted(guide.at for guide in guides if guide.axis == "x" and guide.name == "third") == [100, 200]
    assert (across["middle"], across["running time"]) == (150, 300)
    assert math.isclose(across["padding"], 294)


@pytest.mark.parametrize("role", ["headline", "second line", "byline", "badge"])
@pytest.mark.parametrize("size", [(640, 640), (1280, 720), (360, 800)])
def test_new_words_stand_free_of_the_edges_in_any_shape(role: str, size: tuple[int, int]) -> None:
    document = apply_changes(Piece.model_validate(piece(ground=solid("#ffffff"))), [words_part(role)])
    placed = plan_of(document, sheet(size={"width": size[0], "height": size[1]}), {}).words[0]
    assert min(placed.stands.x, size[0] - placed.stands.right) >= 0.05 * min(size)
