"""Outlines: the registry of shapes, arcs, flattening, and the boxes for words inside them."""

import math

import pytest

from fitzle.core.geometry.path import Pen, ellipse, flattened, rounded_rectangle
from fitzle.core.geometry.rect import Rect
from fitzle.core.geometry.shapes import SHAPES, box_around_words, room_for_words, shape_path

BOXES = [Rect(10, 20, 150, 90), Rect(0, 0, 40, 200), Rect(-5, 3, 64, 64)]


def area(points: list) -> float:
    return sum(a.x * b.y - b.x * a.y for a, b in zip(points, [*points[1:], points[0]], strict=True)) / 2


def test_there_are_twenty_shapes() -> None:
    assert set(SHAPES) >= {
        "rectangle", "rounded", "pill", "circle", "triangle", "diamond", "hexagon", "star", "burst", "pennant",
        "ribbon", "shield", "arrow", "speech bubble", "torn edge", "brush stroke", "arch", "wave", "tag", "ticket",
    }  # fmt: skip


@pytest.mark.parametrize("box", BOXES)
@pytest.mark.parametrize("name", SHAPES)
def test_a_shape_fills_its_box_and_nothing_beyond(name: str, box: Rect) -> None:
    points = [point for contour in flattened(shape_path(name, box), 40) for point in contour]
    left, right = min(p.x for p in points), max(p.x for p in points)
    top, bottom = min(p.y for p in points), max(p.y for p in points)
    assert (left, top) == (pytest.approx(box.x, abs=0.3), pytest.approx(box.y, abs=0.3))
    assert (right, bottom) == (pytest.approx(box.right, abs=0.3), pytest.approx(box.bottom, abs=0.3))


@pytest.mark.parametrize("name", SHAPES)
def test_a_shape_encloses_a_fair_part_of_its_box(name: str) -> None:
    contours = list(flattened(shape_path(name, Rect(0, 0, 100, 100))))
    assert 2500 < abs(sum(area(contour) for contour in contours)) <= 10_001


@pytest.mark.parametrize("name", SHAPES)
def test_a_shape_is_the_same_each_time_and_scales_with_its_box(name: str) -> None:
    small, large = shape_path(name, Rect(0, 0, 50, 30)), shape_path(name, Rect(0, 0, 100, 60))
    for one, two in zip(small.steps, large.steps, strict=True):
        for a, b in zip(one.points, two.points, strict=True):
            assert (b.x, b.y) == (pytest.approx(2 * a.x, abs=1e-6), pytest.approx(2 * a.y, abs=1e-6))


@pytest.mark.parametrize("name", SHAPES)
def test_the_room_for_words_lies_inside_and_can_be_turned_around(name: str) -> None:
    box = Rect(7, 9, 120, 80)
    room = room_for_words(name, box)
    assert box.x <= room.x and room.right <= box.right + 1e-9 and room.bottom <= box.bottom + 1e-9
    back = box_around_words(name, room)
    assert tuple(back) == tuple(pytest.approx(value) for value in box)


def test_a_circle_is_round() -> None:
    points = next(iter(flattened(ellipse(0, 0, 10, 10), 20)))
    assert all(math.hypot(p.x, p.y) == pytest.approx(10, abs=0.01) for p in points)
    assert abs(area(points)) == pytest.approx(math.pi * 100, rel=0.01)


def test_round_corners_are_at_most_half_the_short_side() -> None:
    assert rounded_rectangle(Rect(0, 0, 40, 20), 99) == rounded_rectangle(Rect(0, 0, 40, 20), 10)


def test_a_quadratic_becomes_the_same_cubic() -> None:
    path = Pen().move(0, 0).quadratic((10, 20), (20, 0)).path()
    middle = next(iter(flattened(path, 2)))[1]
    assert (middle.x, middle.y) == (pytest.approx(10), pytest.approx(10))


def test_an_outline_is_written_as_svg() -> None:
    path = Pen().move(0, 0.5).line((1, 2)).close().path()
    assert path.svg() == "M0 0.5L1 2Z"
    assert path.moved(1, 1).scaled(2).svg() == "M2 3L4 6Z"
    assert Pen().path().bounds() == Rect(0, 0, 0, 0)
