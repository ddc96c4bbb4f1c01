"""The detail that a bitmap really carries: enlarged pictures are found out, others are taken at their word."""

from collections.abc import Callable
from functools import cache

import numpy as np
import pytest
from demo.photos import all_photos
from PIL import Image, ImageDraw

from fitzle.core.artwork.detail import detail_share
from fitzle.core.artwork.judging import jpeg_quality
from fitzle.core.artwork.reading import read_and_judge
from tests.make import disc, opened, photo, saved, svg

WITHIN = 0.15  # what is promised
BEFORE, AFTER = 500, 2048


@cache
def textured(side: int, seed: int = 1) -> Image.Image:
    """A picture with the spectrum of nature (amplitude falling with frequency), hard edges and a little grain."""
    rng = np.random.default_rng(seed)
    frequency = np.fft.fftfreq(2 * side)[:, None] ** 2 + np.fft.rfftfreq(2 * side)[None] ** 2
    frequency[0, 0] = 1
    noise = np.fft.rfft2(rng.normal(size=(2 * side, 2 * side, 3)), axes=(0, 1))
    base = np.fft.irfft2(noise / frequency[..., None] ** 0.5, s=(2 * side, 2 * side), axes=(0, 1))
    picture = Image.fromarray(np.clip((base - base.mean()) / base.std() * 38 + 128, 0, 255).astype(np.uint8))
    draw = ImageDraw.Draw(picture)
    for _ in range(30):
        x, y, reach = *rng.integers(0, 2 * side, 2), int(rng.integers(side // 30, side // 4))
        draw.ellipse((x, y, x + reach, y + reach), fill=tuple(int(value) for value in rng.integers(0, 255, 3)))
    small = np.asarray(picture.resize((side, side), Image.Resampling.BOX)).astype(float)
    return Image.fromarray(np.clip(small + rng.normal(0, 2, (side, side, 1)), 0, 255).astype(np.uint8))


@cache
def drawn(side: int) -> Image.Image:
    """Rings in two flat colours."""
    rng = np.random.default_rng(2)
    picture = Image.new("RGB", (4 * side, 4 * side), "#17443c")
    for _ in range(14):
        x, y, reach = *rng.integers(0, 4 * side, 2), int(rng.integers(side // 4, 2 * side))
        box = (x, y, x + reach, y + reach)
        ImageDraw.Draw(picture).ellipse(box, outline="#f4d06f", width=int(rng.integers(8, 80)))
    return picture.resize((side, side), Image.Resampling.LANCZOS)


SUBJECTS: dict[str, Callable[[int], Image.Image]] = {
    "textured": textured,
    "drawn": drawn,
    "grainy": lambda side: photo(side, side, 5),
}


def brightness(picture: Image.Image) -> np.ndarray:
    return np.asarray(picture.convert("L")).astype(np.float32)


def as_jpeg(picture: Image.Image, quality: int) -> Image.Image:
    return opened(saved(picture, "JPEG", quality=quality)).convert("RGB")


@pytest.mark.parametrize("way", ["BICUBIC", "LANCZOS"])
@pytest.mark.parametrize("quality", [None, 90, 75])
@pytest.mark.parametrize("subject", SUBJECTS)
def test_an_enlarged_picture_is_found_out(subject: str, way: str, quality: int | None) -> None:
    large = SUBJECTS[subject](BEFORE).resize((AFTER, AFTER), Image.Resampling[way])
    large = as_jpeg(large, quality) if quality else large
    assert detail_share(brightness(large)) * AFTER == pytest.approx(BEFORE, rel=WITHIN)


@pytest.mark.parametrize(("way", "before"), [("NEAREST", 500), ("BILINEAR", 500), ("BICUBIC", 700), ("LANCZOS", 512)])
def test_other_ways_and_factors_of_enlarging_are_found_too(way: str, before: int) -> None:
    large = textured(before).resize((AFTER, AFTER), Image.Resampling[way])
    assert detail_share(brightness(large)) * AFTER == pytest.approx(before, rel=WITHIN)


@pytest.mark.parametrize("quality", [None, 90, 75])
@pytest.mark.parametrize("side", [500, 1000, 2048])
@pytest.mark.parametrize("subject", ["textured", "drawn"])
def test_a_picture_of_its_own_size_is_taken_at_its_word(subject: str, side: int, quality: int | None) -> None:
    picture = SUBJECTS[subject](side)
    assert detail_share(brightness(as_jpeg(picture, quality) if quality else picture)) > 0.8


def test_sharp_things_before_a_soft_background_are_taken_at_their_word() -> None:
    for name, data in all_photos().items():
        assert detail_share(brightness(opened(data))) == 1, name


@pytest.mark.parametrize("side", [1, 40, 95])
def test_small_and_empty_pictures_are_taken_at_their_word(side: int) -> None:
    assert detail_share(brightness(textured(max(side, 8)).resize((side, side)))) == 1
    assert detail_share(np.full((300, 300), 80, np.float32)) == 1


def test_the_facts_say_it_in_px_and_in_words() -> None:
    large = textured(BEFORE).resize((AFTER, AFTER), Image.Resampling.BICUBIC)
    facts = read_and_judge(saved(large, "PNG"), "logo.png").facts
    assert facts.detail_px == pytest.approx(BEFORE, rel=WITHIN)
    assert (facts.crisp_px, facts.crisp_dense_px) == (facts.detail_px, (facts.detail_px or 0) / 2)
    assert "It was enlarged, or is soft: it is 2048 px long" in facts.warnings[-1]


def test_vectors_have_no_such_limit() -> None:
    facts = read_and_judge(svg(), "mark.svg").facts
    assert (facts.detail_px, facts.crisp_px, facts.crisp_dense_px) == (None, None, None)


@pytest.mark.parametrize("quality", [25, 40, 75, 95])
def test_the_quality_of_a_jpeg_is_read_from_its_tables(quality: int) -> None:
    """libjpeg scales the tables of ITU T.81, annex K, and rounds them: one step of quality at most is lost."""
    assert jpeg_quality(saved(disc(200, ground="#ffffff"), "JPEG", quality=quality)) == pytest.approx(quality, abs=1)


def test_a_poor_jpeg_is_said_to_be_one() -> None:
    facts = read_and_judge(saved(photo(), "JPEG", quality=30), "screenshot.jpg").facts
    assert facts.jpeg_quality == 30
    assert any("quality 30" in warning for warning in facts.warnings)
    assert not any(
        "quality" in warning for warning in read_and_judge(saved(photo(), "JPEG", quality=85), "a").facts.warnings
    )
