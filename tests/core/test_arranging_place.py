"""The place that a piece is arranged for: what is shown everywhere, what is free, how small it is seen."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.arrange.boxes import shared
from fitzle.core.arrange.place import Pin, Place, place_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size
from tests.make import sheet

SHARE = st.floats(0, 0.9)


def place(width: int, height: int, pins: tuple[Rect, ...] = (), **keys: Any) -> Place:
    held = {f"part-{number}": Pin(box) for number, box in enumerate(pins)}
    return place_of(sheet(size={"width": width, "height": height}, **keys), Size(width, height), 0.06, held)


def test_the_whole_of_a_plain_place_but_its_margin_is_free() -> None:
    found = place(1280, 720)
    [free] = found.free
    assert free == pytest.approx(Rect(43.2, 43.2, 1193.6, 633.6)) and found.unit == pytest.approx(960)
    assert found.seen == 1 and found.least_capital == 9 and not found.icon


def test_covered_zones_and_pins_are_left_free_with_room_around_them() -> None:
    zone = {"x": 0, "y": 0.75, "width": 1, "height": 0.25, "label": "title"}
    found = place(1280, 720, covered=[zone])
    assert found.covered == (Rect(0, 540, 1280, 180),)
    assert all(box.bottom <= 540 - 21 for box in found.free)
    pinned = place(1280, 720, pins=(Rect(0, 0, 640, 720),))
    assert all(box.x >= 640 + 38 for box in pinned.free)


def test_every_window_shows_what_is_arranged() -> None:
    windows = [
        {"name": "desk", "x": 0, "y": 0.2, "width": 1, "height": 0.6},
        {"name": "phone", "x": 0.2, "y": 0, "width": 0.6, "height": 1},
    ]
    assert place(1000, 500, windows=windows).shown == pytest.approx(Rect(200, 100, 600, 300))


def test_what_stands_in_a_circle_is_inside_of_it() -> None:
    found = place(400, 400, cut={"shape": "circle"})
    [box] = found.free
    for x, y in ((box.x, box.y), (box.right, box.bottom)):
        assert (x - 200) ** 2 + (y - 200) ** 2 < 200**2
    assert place(900, 300, cut={"shape": "circle"}).shown.centre == pytest.approx((450, 150))


def test_small_sizes_seen_make_an_icon_and_high_capitals() -> None:
    found = place(512, 512, seen=[{"name": "tab", "width": 16}, {"name": "list", "width": 64}])
    assert found.icon and found.seen == 1 / 32 and found.least_capital == 288
    assert not place(512, 128, seen=[{"name": "head", "width": 64}]).icon, "it is too long for one thing"


@given(st.lists(st.tuples(SHARE, SHARE, st.floats(0.05, 1), st.floats(0.05, 1)), max_size=4))
def test_there_is_always_room_and_never_under_a_zone(zones: list[tuple[float, float, float, float]]) -> None:
    covered = [
        {"x": x, "y": y, "width": min(width, 1 - x), "height": min(height, 1 - y), "label": "z"}
        for x, y, width, height in zones
    ]
    found = place(800, 450, covered=covered)
    assert 1 <= len(found.free) <= 3 and all(min(box.width, box.height) > 0 for box in found.free)
    clear = [box for box in found.free if not any(shared(box, zone) > 1e-6 for zone in found.covered)]
    assert clear == list(found.free) or len(found.free) == 1, "where all is covered, the whole has to do"
