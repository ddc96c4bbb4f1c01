"""Fill and whole never stretch; everything stays inside its frame."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.geometry.anchor import anchored
from fitzle.core.geometry.fitting import fill_window, inside_circle, snapped, whole_box
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.geometry.scale import SCALES, shelf_scale, twin_px

SIDE = st.integers(1, 8000)
SHARE = st.floats(0, 1)


@given(SIDE, SIDE, SIDE, SIDE, SHARE, SHARE)
def test_a_fill_window_has_the_frame_s_shape_and_stays_in_the_source(
    w: int, h: int, fw: int, fh: int, fx: float, fy: float
) -> None:
    source = Rect(0, 0, w, h)
    window = fill_window(source, fw / fh, Point(fx, fy))
    assert window.ratio == pytest.approx(fw / fh, rel=1e-9)
    assert window.x >= -1e-6
    assert window.y >= -1e-6
    assert window.right <= w * (1 + 1e-9) + 1e-6
    assert window.bottom <= h * (1 + 1e-9) + 1e-6
    assert math.isclose(window.width, w, rel_tol=1e-9) or math.isclose(window.height, h, rel_tol=1e-9)


@given(SIDE, SIDE, SIDE, SIDE)
def test_whole_keeps_the_aspect_to_half_a_pixel_even_when_snapped(w: int, h: int, fw: int, fh: int) -> None:
    """The issue's promise: for any sizes the error is at most half a pixel on either side."""
    frame = Rect(0, 0, fw, fh)
    exact = whole_box(w / h, frame)
    box = snapped(exact, frame)
    assert abs(box.width - exact.width) <= 0.5 or box.width == 1
    assert abs(box.height - exact.height) <= 0.5 or box.height == 1
    assert box.x >= 0
    assert box.y >= 0
    assert box.right <= fw
    assert box.bottom <= fh


@given(st.floats(0.2, 5), SHARE, SHARE)
def test_visual_weight_moves_a_box_only_inside_its_limits(ratio: float, wx: float, wy: float) -> None:
    limits = Rect(0, 0, 100, 100)
    box = whole_box(ratio, limits.inset(10), Point(wx, wy), limits)
    assert box.x >= -1e-9
    assert box.y >= -1e-9
    assert box.right <= 100 + 1e-9
    assert box.bottom <= 100 + 1e-9


def test_weight_brings_the_heavy_point_to_the_middle_where_there_is_room() -> None:
    frame = Rect(0, 0, 200, 100)
    box = whole_box(1.0, frame, Point(0.3, 0.5))
    assert box.x + 0.3 * box.width == pytest.approx(100)


@given(st.floats(0.1, 10), st.floats(0.5, 1), st.floats(16, 4096), st.floats(0, 4))
def test_contents_stay_inside_the_circle(ratio: float, reach: float, diameter: float, clearance: float) -> None:
    box = inside_circle(ratio, reach, diameter, clearance)
    farthest = reach * math.hypot(box.width, box.height) / 2
    assert farthest <= diameter / 2 - clearance + 1e-6
    assert box.ratio == pytest.approx(ratio)


@pytest.mark.parametrize(
    ("anchor", "x", "y"), [("top-left", 5, 7), ("centre", 45 + 5, 20 + 7), ("bottom-right", 95, 47), ("top", 50, 7)]
)
def test_a_part_stands_with_its_own_anchor_on_the_frame_s(anchor: str, x: float, y: float) -> None:
    box = anchored(Rect(0, 0, 100, 50), anchor, 10, 10, 5, 7)  # type: ignore[arg-type]
    assert (box.x, box.y) == (pytest.approx(x), pytest.approx(y))


@given(st.lists(st.tuples(SIDE, SIDE), min_size=1, max_size=6), st.integers(300, 2000))
def test_a_shelf_has_one_round_scale(sizes: list[tuple[int, int]], room: int) -> None:
    assert shelf_scale(sizes, room) in SCALES


def test_a_shelf_of_a_banner_and_an_icon_is_scaled_by_the_banner() -> None:
    assert shelf_scale([(2000, 500), (32, 32)], 592) == 8
    assert twin_px(32, 32, 8) == 48
    assert twin_px(2000, 500, 8) is None
