"""What holds for any picture and any steps: turns and mirrors undo themselves, sizes add up, nothing is invented."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.brush import slices, stroke_mask
from fitzle.core.artwork.steps.cropping import contents_window, cropped
from fitzle.core.artwork.steps.document import Preparation, Stroke, Window
from fitzle.core.artwork.steps.material import Bitmap, as_bitmap, natural_size
from fitzle.core.artwork.steps.turning import inner_size, mirrored, outer_size, turned
from tests.core.test_steps import drawing, made, result, steps_of

SHORT = settings(max_examples=30, deadline=None)
sides = st.integers(2, 40)
ways = st.sampled_from(["left and right", "top and bottom"])
shares = st.floats(0, 1)


def noise(width: int, height: int, seed: int = 3, *, clear: bool = False) -> Pixels:
    rng = np.random.default_rng(seed)
    pixels = rng.integers(0, 256, (height, width, 4), dtype=np.uint8)
    if not clear:
        pixels[..., 3] = 255
    return pixels


@SHORT
@given(width=sides, height=sides, quarters=st.integers(0, 7))
def test_turns_add_up_and_four_are_none(width: int, height: int, quarters: int) -> None:
    pixels, found = noise(width, height), noise(width, height)
    for _ in range(quarters):
        found = turned(found, 1)
    assert np.array_equal(found, turned(pixels, quarters % 4) if quarters % 4 else pixels)
    assert found.shape[:2] == ((width, height) if quarters % 2 else (height, width))


@SHORT
@given(width=sides, height=sides, across=ways)
def test_a_mirror_undoes_itself_and_keeps_every_pixel(width: int, height: int, across: str) -> None:
    pixels = noise(width, height, clear=True)
    once = mirrored(pixels, across)
    assert np.array_equal(mirrored(once, across), pixels)
    assert np.array_equal(np.sort(once.reshape(-1, 4), axis=0), np.sort(pixels.reshape(-1, 4), axis=0))


def test_two_mirrors_are_half_a_turn() -> None:
    pixels = noise(17, 9)
    both = mirrored(mirrored(pixels, "left and right"), "top and bottom")
    assert np.array_equal(both, turned(pixels, 2))


@SHORT
@given(x=shares, y=shares, width=st.floats(0.01, 1), height=st.floats(0.01, 1))
def test_a_crop_is_a_part_of_the_picture(x: float, y: float, width: float, height: float) -> None:
    x, y = min(x, 1 - width), min(y, 1 - height)
    pixels = np.dstack([*np.meshgrid(np.arange(60), np.arange(40)), np.zeros((40, 60)), np.full((40, 60), 255)])
    part = cropped(pixels.astype(np.uint8), Window(x=x, y=y, width=width, height=height))
    assert part.size > 0
    left, top = int(part[0, 0, 0]), int(part[0, 0, 1])
    assert (left, top) == (pytest.approx(60 * x, abs=1), pytest.approx(40 * y, abs=1))
    assert part.shape[1] == pytest.approx(60 * width, abs=1.01)
    assert part.shape[0] == pytest.approx(40 * height, abs=1.01)
    assert np.array_equal(part[0, :, 0], np.arange(left, left + part.shape[1]))


@SHORT
@given(degrees=st.floats(-45, 45), width=st.floats(1, 4000), height=st.floats(1, 4000))
def test_what_is_kept_of_a_straightened_picture_lies_within_it(degrees: float, width: float, height: float) -> None:
    """The corners of the inner window, turned back, lie within the picture; the outer box holds the turned picture."""
    inner, outer = inner_size(width, height, degrees), outer_size(width, height, degrees)
    angle = np.radians(degrees)
    matrix = np.array([[np.cos(angle), -np.sin(angle)], [np.sin(angle), np.cos(angle)]])
    for sign in (1, -1):
        corner = np.abs(matrix @ (np.array([inner[0], sign * inner[1]]) / 2))
        assert (corner <= np.array([width, height]) / 2 + 1e-6 * max(width, height)).all()
        corner = np.abs(matrix @ (np.array([width, sign * height]) / 2))
        assert (corner <= np.array(outer) / 2 + 1e-6 * max(width, height)).all()
    assert inner[0] / inner[1] == pytest.approx(width / height)


@SHORT
@given(left=st.integers(0, 9), top=st.integers(0, 9), right=st.integers(0, 9), bottom=st.integers(0, 9))
def test_trimmed_margins_are_exactly_the_empty_ones(left: int, top: int, right: int, bottom: int) -> None:
    pixels = np.zeros((20 + top + bottom, 30 + left + right, 4), np.uint8)
    pixels[top : top + 20, left : left + 30] = (30, 60, 90, 255)
    window = contents_window(pixels, 0.02)
    if not (left or top or right or bottom):
        assert window is None, "nothing to trim"
        return
    assert window is not None
    height, width = pixels.shape[:2]
    assert (window.x * width, window.y * height) == (pytest.approx(left), pytest.approx(top))
    assert (window.width * width, window.height * height) == (pytest.approx(30), pytest.approx(20))


def test_there_is_nothing_to_trim_in_an_empty_picture() -> None:
    assert contents_window(np.zeros((20, 30, 4), np.uint8), 0.02) is None


turning = st.fixed_dictionaries({"kind": st.just("turn"), "quarters": st.integers(1, 3)})
mirroring = st.fixed_dictionaries({"kind": st.just("mirror"), "across": ways})
cropping = st.builds(
    lambda x, y: {"kind": "crop", "window": {"x": x, "y": y, "width": 1 - x, "height": 1 - y}},
    st.floats(0, 0.4), st.floats(0, 0.4),
)  # fmt: skip
adjusting = st.builds(
    lambda light, warmth: {"kind": "adjust", "brightness": light, "warmth": warmth},
    st.floats(-0.6, 0.6), st.floats(-0.6, 0.6),
)  # fmt: skip
any_steps = st.lists(st.one_of(turning, mirroring, cropping, adjusting), max_size=6)


@SHORT
@given(steps=any_steps)
def test_any_steps_give_a_picture_that_hides_nothing_of_its_size(steps: list[dict[str, Any]]) -> None:
    """The size that is said is the size of the pixels; the alpha of an opaque picture stays."""
    found = made(noise(48, 32), *steps)
    assert not found.problems
    pixels = as_bitmap(found.material).pixels
    assert natural_size(found.material) == pytest.approx((pixels.shape[1], pixels.shape[0]), abs=1)
    assert (pixels[..., 3] == 255).all()


@SHORT
@given(steps=any_steps, number=st.integers(0, 5))
def test_a_step_that_is_off_is_as_if_it_were_not_there(steps: list[dict[str, Any]], number: int) -> None:
    if number >= len(steps):
        return
    off = [{**step, "on": False} if index == number else step for index, step in enumerate(steps)]
    without = [step for index, step in enumerate(steps) if index != number]
    assert np.array_equal(result(noise(24, 16), *off), result(noise(24, 16), *without))


@SHORT
@given(steps=st.lists(st.one_of(turning, mirroring, cropping), max_size=5))
def test_a_drawing_and_its_pixels_get_the_same_size_from_the_same_steps(steps: list[dict[str, Any]]) -> None:
    from fitzle.core.artwork.steps.costly import KeptInMemory
    from fitzle.core.artwork.steps.preparing import prepared

    drawn, document = drawing(), steps_of(*steps)
    width, height = natural_size(drawn)
    bitmap = Bitmap(noise(round(width * 4), round(height * 4)), (width, height))
    sizes = [
        natural_size(prepared(material, document.made, "h" * 64, KeptInMemory(), make=True).material)
        for material in (drawn, bitmap)
    ]
    assert sizes[0] == pytest.approx(sizes[1], abs=0.5)


@SHORT
@given(x=shares, y=shares, size=st.floats(0.05, 0.5), softness=shares)
def test_a_stroke_changes_nothing_away_from_itself(x: float, y: float, size: float, softness: float) -> None:
    """Beyond half its width, and the half of that again over which it may fade, the brush leaves nothing."""
    stroke = Stroke(act="erase", points=((x, y),), size=size, softness=softness)
    box, plane = stroke_mask(stroke, 120, 80)
    whole = np.zeros((80, 120))
    whole[slices(box)] = plane
    assert whole.min() >= 0
    assert whole.max() <= 1
    rows, columns = np.mgrid[0:80, 0:120]
    away = np.hypot(columns + 0.5 - x * 120, rows + 0.5 - y * 80)
    assert (whole[away > size * 80 / 2 * (1 + softness / 2) + 2.5] == 0).all()


@pytest.mark.parametrize(
    "step",
    [
        {"kind": "turn", "quarters": 4}, {"kind": "straighten", "degrees": 46}, {"kind": "adjust", "brightness": 1.1},
        {"kind": "crop", "window": {"x": 0.5, "y": 0, "width": 0.6, "height": 1}}, {"kind": "trim", "tolerance": 0.6},
        {"kind": "red eyes", "eyes": [{"x": 0, "y": 0, "radius": 0}]}, {"kind": "recolour", "one": "green"},
        {"kind": "cut out", "strokes": [{"act": "keep", "points": [], "size": 0.1}]}, {"kind": "trace", "colours": -1},
        {"kind": "sharpen"}, {"kind": "mirror", "across": "inside out"},
    ],
)  # fmt: skip
def test_a_step_that_cannot_be_is_no_step(step: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        Preparation.model_validate({"steps": [{"id": "a", **step}]})
