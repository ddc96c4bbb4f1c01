"""What a screenshot cannot tell is asked: a strip at an edge, a picture that repeats itself, another crop."""

from typing import Any

import numpy as np
import pytest
from PIL import Image

from fitzle.core.learning.finding import learn
from fitzle.core.learning.repeating import repeats
from fitzle.core.learning.sheet import Answers, Uploaded, learnt_sheet
from tests.learning_cases import Maker

GROUND = "#f4f1ea"
TAKEN = Uploaded(width=900, height=500, format="png")


def painted(number: int = 4, size: tuple[int, int] = (900, 500)) -> Image.Image:
    return Maker(number).painted(max(size), size[1] / size[0]).resize(size)


def on_page(picture: Image.Image, at: tuple[int, int] = (200, 150)) -> Image.Image:
    shot = Image.new("RGB", (900, 600), GROUND)
    shot.paste(picture, at)
    return shot


def found_in(shot: Image.Image, picture: Image.Image) -> Any:
    return learn(np.asarray(picture), np.asarray(shot)).found


@pytest.mark.parametrize(("number", "edge"), [(4, "bottom"), (9, "bottom"), (4, "top"), (9, "left")])
def test_an_opaque_band_at_an_edge_is_asked_about_and_the_answer_makes_the_sheet(number: int, edge: str) -> None:
    picture = painted(number)
    small = picture.resize((450, 250))
    bands = {"bottom": (0, 200, 450, 250), "top": (0, 0, 450, 50), "left": (0, 0, 90, 250)}
    shot = on_page(small)
    left, top, right, bottom = bands[edge]
    shot.paste("#1d3b4f", (200 + left, 150 + top, 200 + right, 150 + bottom))
    [one] = found_in(shot, picture)
    assert "strip" in one.ask
    cut = learnt_sheet(one, TAKEN, 1.0, Answers(), "Header")
    assert len(cut.windows) == 1
    covered = learnt_sheet(one, TAKEN, 1.0, Answers(strip="covered"), "Header")
    assert covered.windows == ()
    [strip] = [zone for zone in covered.covered if zone.label == "strip"]
    wanted = {"bottom": (0, 0.8, 1, 0.2), "top": (0, 0, 1, 0.2), "left": (0, 0, 0.2, 1)}[edge]
    assert (strip.x, strip.y, strip.width, strip.height) == pytest.approx(wanted, abs=0.02)
    assert covered.seen[0].width == pytest.approx(450, abs=4)


def test_a_crop_on_both_sides_is_no_strip() -> None:
    picture = painted()
    shot = on_page(picture.resize((450, 250)).crop((60, 0, 390, 250)))
    [one] = found_in(shot, picture)
    assert one.window is not None
    assert "strip" not in one.ask


def pattern(period: int) -> Image.Image:
    """Dots on a soft ground, every `period` px."""
    y, x = np.mgrid[0:400, 0:600]
    dots = ((x % period - period / 2) ** 2 + (y % period - period / 2) ** 2 < (period / 4) ** 2) * 120.0
    noise = np.random.default_rng(5).normal(0, 2, x.shape)
    return Image.fromarray(np.repeat(np.clip(80 + dots + noise, 0, 255).astype(np.uint8)[..., None], 3, 2))


@pytest.mark.parametrize("period", [40, 60, 100])
def test_a_picture_that_repeats_itself_is_known(period: int) -> None:
    assert repeats(np.asarray(pattern(period)))


@pytest.mark.parametrize("number", range(8))
def test_other_pictures_do_not_repeat(number: int) -> None:
    make = Maker(number)
    assert not repeats(np.asarray(make.painted(600, 0.6)))
    assert not repeats(np.asarray(make.mark(300).convert("RGB")))


def test_the_place_of_a_picture_that_repeats_itself_is_asked_about() -> None:
    picture = pattern(100)
    places = found_in(on_page(picture.resize((300, 200))), picture)
    assert places
    assert all("repeats" in one.ask for one in places)


def test_another_crop_of_the_same_photo_is_asked_about() -> None:
    photo = painted(9, (1400, 800))
    uploaded = photo.crop((400, 0, 1400, 800))
    shot = on_page(photo.crop((0, 0, 1000, 800)).resize((500, 400)), (150, 100))
    [one] = found_in(shot, uploaded)
    assert "crop" in one.ask
