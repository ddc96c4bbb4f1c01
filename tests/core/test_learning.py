"""A place learnt from a picture and a screenshot: made cases with their truth, parts on their own, and bad input."""

import io
import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from benchmarks.learning import box_of, compared, shared
from demo.photos import all_photos
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from fitzle import cli
from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.errors import ArtworkError, FitzleError, ValueOutOfRange
from fitzle.core.learning.finding import learn
from fitzle.core.learning.placement import Placement, Region, overlap
from fitzle.core.learning.pyramid import Pyramid, View
from fitzle.core.learning.reading import commonest_colour, read_pair
from fitzle.core.learning.refining import refined
from fitzle.core.learning.shape import best_rectangle, best_shape
from fitzle.core.learning.tint import tint_between
from fitzle.core.learning.zones import covered_zones
from tests.learning_cases import Look, Maker, made_case, put
from tests.make import saved

NUMBERS = (1, 2, 3, 5, 7, 21, 11)  # a card, a hero, a circle, a window, twice, small, covered


@pytest.mark.parametrize("number", NUMBERS)
def test_a_place_is_learnt(number: int) -> None:
    case = made_case(number)
    found = learn(case.picture, case.shot).found
    assert len(found) == len(case.truths)
    for truth in case.truths:
        seen = compared(case.name, truth, found)
        assert seen.box is not None and seen.box <= (1 if truth.scale <= 1 else 2)
        assert seen.cut and not seen.false_veil and (seen.veil or 0) <= 0.03
        assert all(zone >= 0.6 for zone in seen.zones)


@pytest.mark.parametrize("number", [0, 1, 2])
def test_a_picture_that_is_not_there_is_not_found(number: int) -> None:
    case = made_case(number, absent=True)
    found = learn(case.picture, case.shot)
    assert found.found == () and found.message.startswith("The picture")


def on_page(look: Look, size: tuple[int, int] = (360, 200), ground: str = "#f4f1ea") -> tuple[Any, Any, Any]:
    make = Maker(4)
    picture = make.painted(900, 0.56).resize((900, 500))
    shot = Image.new("RGB", (800, 600), ground)
    truth = put(make, shot, picture, (200, 150, *size), look)
    return np.asarray(picture), np.asarray(shot), truth


def test_what_is_said_of_a_place() -> None:
    picture, shot, _ = on_page(Look("rounded", 16, ((0, 0, 0), 0.4)))
    [one] = learn(picture, shot, 2.0).found
    assert box_of(one) == pytest.approx((200, 150, 560, 350), abs=0.5)
    assert one.window is None and one.seen_width == pytest.approx(180, abs=0.5)
    assert one.veil and (one.veil.colour, one.veil.opacity) == ("#000000", pytest.approx(0.4, abs=0.02))
    assert (one.cut.shape, one.cut.radius) == ("rounded", pytest.approx(8, abs=0.75))
    assert one.grounds == ("#f4f1ea",) and one.sure > 0.8 and one.ask == ()


def test_the_part_that_is_shown_is_said_in_px_of_the_picture() -> None:
    picture, shot, truth = on_page(Look(zoom=1.5, x=0.2, y=0.7))
    [one] = learn(picture, shot).found
    assert one.window
    window = (one.window.x, one.window.y, one.window.x + one.window.width, one.window.y + one.window.height)
    assert window == pytest.approx(truth.window, abs=4)


@pytest.mark.parametrize("scale", [0.12, 0.3, 0.75, 1.0, 1.6, 2.8])
def test_boxes_are_exact_over_all_scales(scale: float) -> None:
    make = Maker(9)
    picture = make.painted(400, 0.6)
    size = (round(picture.width * scale), round(picture.height * scale))
    shot = Image.new("RGB", (1300, 900), "#1d2024")
    put(make, shot, picture, (60, 40, *size), Look())
    [one] = learn(np.asarray(picture), np.asarray(shot)).found
    assert box_of(one) == pytest.approx((60, 40, 60 + size[0], 40 + size[1]), abs=1 if scale <= 1 else 2)


@pytest.mark.parametrize("name", ["misty-street.jpg", "dusk-ride.jpg", "workbench.jpg"])
def test_a_large_place_outweighs_a_small_likeness_inside_of_it(name: str) -> None:
    photo = Image.open(io.BytesIO(all_photos()[name])).convert("RGB")
    make = Maker(2)
    shot, _ = make.page(1366, 900)
    put(make, shot, photo, (84, 150, 1198, 500), Look(veil=((16, 20, 28), 0.4), zones=2))
    [one] = learn(np.asarray(photo), np.asarray(shot)).found
    assert box_of(one) == pytest.approx((84, 150, 1282, 650), abs=1)


def test_another_picture_of_the_series_is_told_from_this_one() -> None:
    first, second, *_ = Maker(3).series(800)
    shot = Image.new("RGB", (900, 700), "#ffffff")
    shot.paste(second.resize((480, round(480 * second.height / second.width))), (100, 90))
    found = learn(np.asarray(first), np.asarray(shot))
    assert found.found == () and len(found.relatives) == 1
    assert "other words" in found.message


def test_a_density_that_no_screen_has_is_refused() -> None:
    picture, shot, _ = on_page(Look())
    with pytest.raises(ValueOutOfRange, match=r"1, 1\.5, 2 and 3"):
        learn(picture, shot, 1.7)


def test_progress_goes_from_little_to_all() -> None:
    picture, shot, _ = on_page(Look())
    told: list[float] = []
    learn(picture, shot, progress=told.append)
    assert told == sorted(told) and told[-1] == 1.0


@pytest.mark.parametrize(
    "shot", [np.zeros((400, 600, 3), np.uint8), np.full((20, 20, 3), 200, np.uint8), np.zeros((16, 3000, 3), np.uint8)]
)
def test_empty_screenshots_hold_nothing(shot: Any) -> None:
    picture, _, _ = on_page(Look())
    assert learn(picture, shot).found == ()


@pytest.mark.parametrize("picture", [np.full((300, 300, 3), 128, np.uint8), np.zeros((16, 16, 3), np.uint8)])
def test_a_picture_without_anything_in_it_is_found_nowhere(picture: Any) -> None:
    _, shot, _ = on_page(Look())
    assert learn(picture, shot).found == ()


# Parts on their own

SHARES = st.floats(0.15, 1.2)


@given(SHARES, st.tuples(*[st.floats(-20, 90)] * 3), st.floats(0, 0.35), st.integers(0, 999))
@settings(max_examples=40, deadline=None)
def test_a_tint_is_found_under_what_is_drawn_over_it(
    keeps: float, adds: tuple[float, float, float], covered: float, seed: int
) -> None:
    chance = np.random.default_rng(seed)
    picture = chance.uniform(0, 255, (3000, 3))
    shot = keeps * picture + np.array(adds) + chance.normal(0, 1.5, picture.shape)
    hidden = chance.random(3000) < covered
    shot[hidden] = chance.uniform(0, 255, (int(hidden.sum()), 3))
    found = tint_between(picture, shot)
    assert found.keeps == pytest.approx(keeps, abs=0.02)
    assert found.adds == pytest.approx(np.array(adds), abs=3)


@pytest.mark.parametrize(("scale", "x", "y"), [(0.5, 30.3, 20.7), (0.83, 5.5, 9.25), (1.4, 12.0, 3.4)])
def test_a_placement_is_made_exact_to_a_tenth_of_a_px(scale: float, x: float, y: float) -> None:
    picture = np.asarray(Maker(21).painted(420, 0.7))
    pyramid = Pyramid(picture)
    true = Placement(scale, x, y)
    shot = pyramid.seen(true, View(0, 0, 700, 560)).clip(0, 255).astype(np.uint8)
    near = Placement(scale * 1.015, x - 2.5, y + 2)
    whole = Region(0, 0, pyramid.width, pyramid.height)
    found = refined(pyramid, shot, near, whole)
    assert found and found == pytest.approx(true, abs=0.1)


def test_the_shape_of_the_greatest_sum_is_found() -> None:
    worth = np.full((120, 200), -1.0, np.float32)
    rows, columns = np.mgrid[:120, :200]
    across, down = np.maximum(0, np.abs(columns + 0.5 - 90) - 30), np.maximum(0, np.abs(rows + 0.5 - 60) - 20)
    worth[np.hypot(across, down) < 20] = 1.0  # from 40 to 140 and from 20 to 100, with corners of 20 px
    assert best_rectangle(worth) == pytest.approx((40, 20, 140, 100), abs=7)
    shape = best_shape(worth, Region(0, 0, 200, 120))
    assert shape.region == pytest.approx((40, 20, 140, 100), abs=1) and shape.radius == pytest.approx(20, abs=3)


def test_words_of_one_line_are_one_zone_and_far_things_are_two() -> None:
    hits = np.zeros((200, 400), np.uint8)
    for left in (40, 62, 84):
        hits[50:64, left : left + 18] = 1
    hits[150:180, 300:340] = 1
    zones = covered_zones(hits, 200, 80_000)
    assert [tuple(zone) for zone in sorted(zones)] == [(40, 50, 102, 64), (300, 150, 340, 180)]


@given(st.lists(st.floats(-50, 50), min_size=8, max_size=8))
def test_overlaps_are_shares(edges: list[float]) -> None:
    one = Region(*sorted(edges[:2])[:1], *sorted(edges[2:4])[:1], *sorted(edges[:2])[1:], *sorted(edges[2:4])[1:])
    other = Region(*sorted(edges[4:6])[:1], *sorted(edges[6:])[:1], *sorted(edges[4:6])[1:], *sorted(edges[6:])[1:])
    assert 0 <= overlap(one, other) <= 1 + 1e-9
    assert shared(tuple(one), tuple(other)) <= 1  # type: ignore[arg-type]


# Files


def png(picture: Any) -> bytes:
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "PNG")
    return out.getvalue()


def test_a_mark_with_transparency_is_looked_for_on_the_page_s_own_colour() -> None:
    mark = Image.new("RGBA", (120, 80), (0, 0, 0, 0))
    mark.paste((200, 30, 30, 255), (20, 20, 70, 60))
    shot = np.full((300, 400, 3), 40, np.uint8)
    picture, _, reduced = read_pair(saved(mark, "PNG"), png(shot), DEFAULT_LIMITS)
    assert tuple(picture[5, 5]) == (40, 40, 40) and tuple(picture[40, 40]) == (200, 30, 30) and reduced == 1


def test_the_commonest_colour_of_a_page() -> None:
    shot = np.full((80, 80, 3), 250, np.uint8)
    shot[:30] = (10, 20, 30)
    assert commonest_colour(shot) == (250, 250, 250)


@pytest.mark.parametrize(
    ("picture", "shot", "said"),
    [
        (b"", None, "empty"),
        (None, b"", "empty"),
        (None, b"not a picture at all", "not a picture that Fitzle knows"),
        (None, png(np.zeros((8, 8, 3), np.uint8)), "too small to look at"),
        (png(np.zeros((4, 200, 3), np.uint8)), None, "too small to be found"),
    ],
)
def test_what_cannot_be_looked_at_is_said(picture: bytes | None, shot: bytes | None, said: str) -> None:
    usable = png(np.zeros((64, 64, 3), np.uint8))
    with pytest.raises(FitzleError, match=said):
        read_pair(usable if picture is None else picture, usable if shot is None else shot, DEFAULT_LIMITS)


def test_a_screenshot_without_end_is_refused() -> None:
    with pytest.raises(ArtworkError, match="20,000 px"):
        read_pair(png(np.zeros((64, 64, 3), np.uint8)), png(np.zeros((20_001, 40, 3), np.uint8)), DEFAULT_LIMITS)


def run(capsys: Any, *arguments: str) -> tuple[int, dict[str, Any]]:
    code = cli.main(["learn", *arguments, "--json"])
    return code, json.loads(capsys.readouterr().out)


def test_the_command_line_says_all_of_it(capsys: Any, tmp_path: Path) -> None:
    picture, shot, _ = on_page(Look("circle", 0, zones=0), size=(200, 200))
    (tmp_path / "a.png").write_bytes(png(picture))
    (tmp_path / "b.png").write_bytes(png(shot))
    code, told = run(capsys, str(tmp_path / "a.png"), str(tmp_path / "b.png"), "--density", "2")
    assert code == 0
    assert told["box"] == pytest.approx({"x": 200, "y": 150, "width": 200, "height": 200}, abs=0.6)
    assert (told["cut"]["shape"], told["veil"], told["covered"]) == ("circle", None, [])
    assert told["seen_width"] == pytest.approx(100, abs=0.5) and told["window"] and told["others"] == []
    assert {"grounds", "sure", "ask"} <= told.keys()


def test_the_command_line_says_that_it_is_not_there(capsys: Any, tmp_path: Path) -> None:
    picture, _, _ = on_page(Look())
    (tmp_path / "a.png").write_bytes(png(picture))
    (tmp_path / "b.png").write_bytes(png(np.asarray(Image.new("RGB", (500, 300), "#ffffff"))))
    code, told = run(capsys, str(tmp_path / "a.png"), str(tmp_path / "b.png"))
    assert (code, told["box"]) == (1, None) and "not in this screenshot" in told["message"]
