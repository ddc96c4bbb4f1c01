"""Steps proposed by calculation: crops to what matters, red eyes, colours for dark grounds."""

import numpy as np
import pytest
from demo.people import GUEST, Looks, person, room, together
from PIL import Image

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.document import Adjust, Crop, Recolour, RedEyes
from fitzle.core.artwork.steps.material import Bitmap
from fitzle.core.artwork.steps.proposing import proposed
from fitzle.core.colour.contrast import contrast_ratio
from fitzle.core.colour.dark_version import DARK_GROUND, for_dark_grounds
from fitzle.core.colour.oklab import oklab, to_lch
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.errors import ArtworkError
from tests.make import disc, photo


def bitmap(pixels: Pixels) -> Bitmap:
    return Bitmap(pixels, (float(pixels.shape[1]), float(pixels.shape[0])))


def of(picture: Image.Image) -> Bitmap:
    return bitmap(np.asarray(picture.convert("RGBA")))


PORTRAIT = together(person(960, 720, GUEST, 0.3, 0.7), room(960, 720))


@pytest.mark.parametrize("ratio", [None, 1.0, 16 / 9, 0.6])
def test_a_crop_to_the_subject_holds_the_face_and_has_the_shape(ratio: float | None) -> None:
    step = proposed("subject", bitmap(PORTRAIT), "a", ratio)
    assert isinstance(step, Crop)
    window = step.window
    head = 720 * 0.2 * 0.7 / 960
    assert window.x < 0.3 - 0.6 * head
    assert window.x + window.width > 0.3 + 0.6 * head
    assert window.y < 0.42 < window.y + window.height
    if ratio:
        assert window.width * 960 / (window.height * 720) == pytest.approx(ratio, rel=0.01)


def test_a_crop_to_a_mark_leaves_a_little_air() -> None:
    step = proposed("subject", of(disc(200, "#17443c", 60, "#ffffff")), "a")
    assert isinstance(step, Crop)
    assert 0.25 < step.window.x < 0.3
    assert step.window.width == pytest.approx(step.window.height)


def test_a_photo_without_a_subject_says_so() -> None:
    with pytest.raises(ArtworkError, match="Crop by hand"):
        proposed("subject", of(photo(320, 240)), "a")


def test_red_eyes_are_proposed_where_they_are() -> None:
    looks = Looks(pupil=0xFFC81E28, iris=0xFF7A2A24)
    step = proposed("red-eyes", bitmap(together(person(960, 720, looks), room(960, 720))), "a")
    assert isinstance(step, RedEyes)
    assert [round(eye.x, 1) for eye in step.eyes] == [0.5, 0.5] or len(step.eyes) == 2
    with pytest.raises(ArtworkError, match="no red eyes"):
        proposed("red-eyes", bitmap(PORTRAIT), "a")


def test_an_improvement_is_a_step_with_figures_or_nothing() -> None:
    dim = Image.fromarray((np.asarray(photo(320, 240)) * 0.5).astype(np.uint8))
    step = proposed("improve", of(dim), "better")
    assert isinstance(step, Adjust)
    assert (step.id, step.brightness > 0) == ("better", True)
    ramp = np.tile(np.linspace(0, 235, 320), (240, 1)).astype(np.uint8)
    with pytest.raises(ArtworkError, match="well balanced"):
        proposed("improve", of(Image.fromarray(ramp)), "a")


@pytest.mark.parametrize("colour", ["#17443c", "#000000", "#1d3b4f", "#7a3810", "#3a2a26", "#0000ff", "#400040"])
def test_a_dark_colour_is_lightened_until_it_stands_out(colour: str) -> None:
    [(own, light)] = for_dark_grounds([colour])
    assert own == colour
    assert contrast_ratio(parse_hex(light), parse_hex(DARK_GROUND)) >= 3


@pytest.mark.parametrize("colour", ["#f4d06f", "#ffffff", "#b4541a"])
def test_a_colour_that_stands_out_is_left_alone(colour: str) -> None:
    assert for_dark_grounds([colour]) == []


def test_near_black_becomes_near_white_and_hues_are_kept() -> None:
    pairs = dict(for_dark_grounds(["#111111", "#17443c"]))
    white, green = (to_lch(oklab(np.array(parse_hex(pairs[key]), dtype=np.uint8))) for key in ("#111111", "#17443c"))
    assert white[0] > 0.93
    before = to_lch(oklab(np.array(parse_hex("#17443c"), dtype=np.uint8)))
    assert green[2] == pytest.approx(before[2], abs=0.08)


def test_the_dark_version_of_a_mark_is_a_recolouring() -> None:
    step = proposed("dark-version", of(disc(100, "#17443c")), "a")
    assert isinstance(step, Recolour)
    assert step.colours[0][0] == "#17443c"
    with pytest.raises(ArtworkError, match="stand out"):
        proposed("dark-version", of(disc(100, "#f4d06f")), "a")
