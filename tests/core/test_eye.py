"""What the eye makes of marks and words at the size at which they are seen; pictures just inside and just outside."""

from typing import Any

import numpy as np
import pytest
from PIL import Image, ImageDraw

from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye.balance import off_centre
from fitzle.core.eye.busy import busy_behind, stroke_px
from fitzle.core.eye.halo import bad_rim
from fitzle.core.eye.neighbours import neighbours, simulated
from fitzle.core.eye.planes import light_on
from fitzle.core.eye.smudge import contour_lost, drawn_long_px
from fitzle.core.eye.strokes import thin_share, working_px

WHITE = Rgb(255, 255, 255)
Box = tuple[float, float, float, float]


def drawn(size: int, draw: Any, ground: str | None = None) -> np.ndarray:
    """A square picture drawn four times as large and reduced."""
    picture = Image.new("RGBA", (4 * size, 4 * size), ground or (0, 0, 0, 0))
    draw(ImageDraw.Draw(picture), 4 * size)
    return np.asarray(picture.resize((size, size), Image.Resampling.BOX))


def comb(teeth: int) -> Any:
    def draw(pen: ImageDraw.ImageDraw, size: int) -> None:
        step = size / (2 * teeth)
        for number in range(teeth):
            pen.rectangle((2 * number * step, 0, (2 * number + 1) * step, size), fill="#1d3b4f")

    return draw


def disc(pen: ImageDraw.ImageDraw, size: int) -> None:
    pen.ellipse((size * 0.05, size * 0.05, size * 0.95, size * 0.95), fill="#1d3b4f")


@pytest.mark.parametrize(("teeth", "smudges"), [(2, False), (4, False), (9, True), (16, True)])
def test_what_is_finer_than_a_seen_px_runs_together(teeth: int, smudges: bool) -> None:
    seen = 16
    lost = contour_lost(drawn(round(drawn_long_px(seen)), comb(teeth)), WHITE, seen)
    assert (lost > 0.6) is smudges


def test_more_room_loses_less() -> None:
    lost = [contour_lost(drawn(round(drawn_long_px(seen)), comb(8)), WHITE, seen) for seen in (12, 16, 24, 48, 96)]
    assert lost == sorted(lost, reverse=True)
    assert contour_lost(drawn(128, disc), WHITE, 16) < 0.5
    assert contour_lost(np.zeros((64, 64, 4), np.uint8), WHITE, 16) == 0, "nothing has no contour"


def lines(width: float, seen: int) -> np.ndarray:
    """Upright strokes of a width in seen px, at the working size."""
    size = round(working_px(seen))

    def draw(pen: ImageDraw.ImageDraw, side: int) -> None:
        scale = side / seen
        for number in range(1, 4):
            middle = number * side / 4
            pen.rectangle((middle - width * scale / 2, side * 0.1, middle + width * scale / 2, side * 0.9), fill="#000")

    return drawn(size, draw)[..., 3] > 127


@pytest.mark.parametrize("seen", [16, 48, 128])
@pytest.mark.parametrize(("width", "thin"), [(0.4, True), (0.6, True), (1.0, False), (2.0, False)])
def test_strokes_are_thin_below_three_quarters_of_a_seen_px(seen: int, width: float, thin: bool) -> None:
    assert (thin_share(lines(width, seen), seen) > 0.08) is thin


def test_a_tip_is_no_thin_stroke() -> None:
    def spike(pen: ImageDraw.ImageDraw, size: int) -> None:
        pen.polygon([(size * 0.5, size * 0.02), (size * 0.2, size * 0.95), (size * 0.8, size * 0.95)], fill="#000")

    assert thin_share(drawn(512, spike)[..., 3] > 127, 64) < 0.08
    assert thin_share(np.zeros((448, 448), bool), 16) == 0


def fringed(inner: str, fringe: str, width: int) -> np.ndarray:
    """A disc whose half-clear rim still has another colour."""
    picture = np.array(drawn(400, disc))
    solid = Image.fromarray((picture[..., 3] > 0).astype(np.uint8) * 255)
    core = np.asarray(solid.resize((400, 400))) > 0
    from scipy.ndimage import distance_transform_edt

    inside = distance_transform_edt(core)
    colours = np.where((inside <= width)[..., None], np.array(Image.new("RGB", (1, 1), fringe))[0, 0], 0)
    colours = np.where((inside > width)[..., None], np.array(Image.new("RGB", (1, 1), inner))[0, 0], colours)
    alpha = np.where(inside <= 0, 0, np.where(inside <= width, 150, 255))
    return np.concatenate([colours, alpha[..., None]], axis=2).astype(np.uint8)


@pytest.mark.parametrize(
    ("fringe", "ground", "shows"),
    [
        ("#ffffff", Rgb(23, 24, 26), True),  # cut out of white, on a dark page
        ("#ffffff", WHITE, False),  # the same on white: it is the ground
        ("#b4541a", Rgb(23, 24, 26), False),  # its own colour, half clear
        ("#000000", Rgb(244, 233, 209), True),  # cut out of black, on a light page
    ],
)
def test_a_fringe_shows_where_it_is_like_neither_side(fringe: str, ground: Rgb, shows: bool) -> None:
    assert (bad_rim(fringed("#b4541a", fringe, 2), ground) > 0.1) is shows


def test_what_has_no_rim_has_no_fringe() -> None:
    assert bad_rim(np.zeros((80, 80, 4), np.uint8), WHITE) == 0
    assert bad_rim(np.full((4, 4, 4), 255, np.uint8), WHITE) == 0


@pytest.mark.parametrize(("moved", "off"), [(0.0, False), (0.02, False), (0.05, True), (-0.05, True)])
def test_a_mark_is_off_where_all_its_middles_are(moved: float, off: bool) -> None:
    def put(pen: ImageDraw.ImageDraw, size: int) -> None:
        pen.ellipse((size * (0.2 + moved), size * 0.2, size * (0.8 + moved), size * 0.8), fill="#1d3b4f")

    found = off_centre(light_on(drawn(256, put), WHITE), WHITE)
    assert (found.length > 0.03) is off
    assert found.x == pytest.approx(moved, abs=0.005)


def test_a_triangle_in_the_middle_of_its_weight_is_not_off() -> None:
    def triangle(pen: ImageDraw.ImageDraw, size: int) -> None:
        pen.polygon([(size * 0.5, size * 0.1), (size * 0.15, size * 0.7), (size * 0.85, size * 0.7)], fill="#000")

    assert off_centre(light_on(drawn(256, triangle), WHITE), WHITE).length < 0.03
    assert off_centre(light_on(np.zeros((32, 32, 4), np.uint8), WHITE), WHITE).length == 0


def halves(one: str, other: str) -> np.ndarray:
    def draw(pen: ImageDraw.ImageDraw, size: int) -> None:
        pen.rectangle((0, 0, size / 2, size), fill=one)
        pen.rectangle((size / 2, 0, size, size), fill=other)

    return drawn(192, draw)


@pytest.mark.parametrize(
    ("one", "other", "vibrates"),
    [("#ff2200", "#8a4dff", True), ("#ff2200", "#ffffff", False), ("#7f7f7f", "#8a6f7f", False)],
)
def test_strong_colours_of_one_lightness_vibrate(one: str, other: str, vibrates: bool) -> None:
    found = neighbours(light_on(halves(one, other), WHITE))
    assert (found.vibrating.length > 0.4) is vibrates
    if vibrates:
        assert set(found.vibrating.colours or ()) == {one, other}


@pytest.mark.parametrize(
    ("one", "other", "merges"),
    [("#b03a2e", "#6b6b00", True), ("#1d3b4f", "#f4d06f", False), ("#ffffff", "#fefefe", False)],
)
def test_colours_that_some_eyes_cannot_tell_apart(one: str, other: str, merges: bool) -> None:
    found = neighbours(light_on(halves(one, other), WHITE))
    assert any(found.merging[vision].length > 0.2 for vision in ("protan", "deutan")) is merges


def test_greys_stay_greys_to_all_eyes() -> None:
    grey = np.full((2, 2, 3), 0.4, np.float32)
    for vision in ("protan", "deutan", "tritan"):
        assert simulated(grey, vision) == pytest.approx(grey, abs=2e-4)


def letters() -> np.ndarray:
    """Three upright strokes of 5 px."""
    mask = np.zeros((60, 120), bool)
    for left in (20, 55, 90):
        mask[10:50, left : left + 5] = True
    return mask


def test_the_stroke_of_letters_is_measured() -> None:
    assert stroke_px(letters()) == pytest.approx(5, abs=1)


@pytest.mark.parametrize(
    ("behind", "which"),
    [
        (np.full((60, 120), 0.02), "none"),
        (np.linspace(0.02, 0.12, 120)[None].repeat(60, 0), "none"),  # a soft gradient
        (np.where(np.arange(120) < 60, 0.02, 0.7)[None].repeat(60, 0), "lost"),  # half of the words on white
        (np.where((np.arange(120) // 6) % 2, 0.01, 0.28)[None].repeat(60, 0), "clutter"),
    ],
)
def test_words_are_lost_where_drawing_of_their_tone_is_behind(behind: np.ndarray, which: str) -> None:
    found = busy_behind(letters(), 1.0, behind.astype(np.float32), 5.0)
    over = {"lost": found.lost > 0.05, "clutter": found.clutter > 0.16}
    assert over.get(which, not any(over.values()))
