"""All formats that a place takes compete: the best score wins, the sheet's order decides between equals."""

from __future__ import annotations

from collections import Counter

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from fitzle.core.encode.choosing import FAR_BEHIND, LOSSLESS_SCORE, NEAR_TIE, best_file
from fitzle.core.encode.contest import MOST_ENCODES
from fitzle.core.encode.palette import LAST_STEP, Indexed, Palette, colours_at
from fitzle.core.encode.registry import encoded_as
from fitzle.core.encode.result import Choice
from fitzle.core.encode.settings import AvifSettings, JpegSettings, Lossless, PaletteSettings
from fitzle.core.encode.wish import NO_WISH, Wish
from fitzle.core.units import Size
from tests.fits import pixels as pixels_of
from tests.fits import searched, unhurried
from tests.make import disc, opened, photo, sheet

PHOTO = np.asarray(photo(320, 200).convert("RGBA"))
LARGE = np.asarray(photo(1000, 700, seed=5).convert("RGBA"))
MARK = np.asarray(disc(256))
EVERY = ("png", "jpeg", "webp", "avif", "gif", "bmp")


def chosen(pixels: np.ndarray, wish: Wish = NO_WISH, **place: object) -> Choice:
    size = Size(pixels.shape[1], pixels.shape[0])
    return best_file(pixels_of(pixels), sheet(**place), size, unhurried(), wish)


@pytest.mark.parametrize("limit", [6_000, 14_000, 40_000])
@pytest.mark.parametrize("pixels", [PHOTO, LARGE], ids=["small", "large"])
def test_the_best_of_all_formats_wins_wherever_it_stands(pixels: np.ndarray, limit: int) -> None:
    limit = limit * pixels.size // PHOTO.size
    alone = {fmt: searched(fmt, pixels_of(pixels), limit).best for fmt in EVERY}  # type: ignore[arg-type]
    most = max(one.score for one in alone.values() if one)
    for order in (EVERY, EVERY[::-1]):
        best = chosen(pixels, formats=list(order), max_bytes=limit).best
        assert best is not None and len(best.data) <= limit
        assert best.score >= most - NEAR_TIE
        nearly = [fmt for fmt in order if alone[fmt] and alone[fmt].score >= most - NEAR_TIE]  # type: ignore[union-attr]
        assert best.format == nearly[0]


def test_a_lossless_file_that_fits_ends_the_contest() -> None:
    choice = chosen(MARK, formats=["png", "webp", "avif"], max_bytes=200_000)
    assert choice.best is not None and (choice.best.format, choice.best.settings) == ("png", Lossless())
    assert {one.format for one in choice.candidates} == {"png"}


def test_without_a_limit_the_first_format_is_taken_that_cannot_be_told_from_the_original() -> None:
    best = chosen(PHOTO, formats=["jpeg", "png"], max_bytes=None).best
    assert best is not None and best.format == "jpeg" and best.score >= LOSSLESS_SCORE
    best = chosen(PHOTO, formats=["gif", "png"], max_bytes=None).best
    assert best is not None and best.format == "png", "256 colours can be told"


def test_hopeless_formats_are_not_encoded_whole() -> None:
    """A photo as PNG under such a limit is far behind on its tiles."""
    choice = chosen(LARGE, formats=["png", "webp"], max_bytes=60_000)
    assert choice.best is not None and choice.best.format == "webp" and choice.best.score > 50 + FAR_BEHIND
    assert not any(one.format == "png" for one in choice.candidates)


@pytest.mark.parametrize("fmt", ["jpeg", "webp", "avif", "png"])
@pytest.mark.parametrize("limit", [25_000, 90_000])
def test_few_whole_files_are_enough_and_use_their_limit(fmt: str, limit: int) -> None:
    found = searched(fmt, pixels_of(LARGE), limit)  # type: ignore[arg-type]
    assert len(found.candidates) <= MOST_ENCODES
    assert found.best is None or len(found.best.data) <= limit
    if fmt == "jpeg":
        assert found.best is not None and len(found.best.data) >= 0.95 * limit


def test_an_avif_keeps_what_is_clear() -> None:
    found = searched("avif", pixels_of(MARK), None).best
    assert found is not None
    picture = opened(found.data)
    assert (picture.format, picture.size) == ("AVIF", (256, 256))
    assert not {"exif", "icc_profile", "xmp"} & picture.info.keys()
    back = np.asarray(picture.convert("RGBA")).astype(int)
    assert np.abs(back[..., 3] - MARK[..., 3]).mean() < 2 and found.score > LOSSLESS_SCORE


@pytest.mark.parametrize("limit", [None, 30_000, 3_000])
def test_a_gif_stands_still_and_is_clear_or_not(limit: int | None) -> None:
    found = searched("gif", pixels_of(MARK), limit).best
    assert found is not None and (limit is None or len(found.data) <= limit)
    picture = opened(found.data)
    assert (picture.format, picture.size, getattr(picture, "n_frames", 1)) == ("GIF", (256, 256), 1)
    back = np.asarray(picture.convert("RGBA"))
    assert set(np.unique(back[..., 3])) == {0, 255}
    assert ((back[..., 3] == 255) == (MARK[..., 3] >= 128)).mean() > 0.999


@pytest.mark.parametrize("fmt", ["jpeg", "png", "webp", "avif", "gif"])
def test_every_candidate_can_be_made_again_from_its_settings(fmt: str) -> None:
    rendered = pixels_of(PHOTO)
    found = searched(fmt, rendered, 16_000)  # type: ignore[arg-type]
    for one in found.candidates:
        assert len(encoded_as(pixels_of(PHOTO), one.format, one.settings)) == one.bytes
        assert one.seconds is not None and one.seconds >= 0
    assert found.best is None or encoded_as(rendered, found.best.format, found.best.settings) == found.best.data


def test_the_same_picture_gives_the_same_bytes() -> None:
    files = [chosen(LARGE, formats=["jpeg", "webp", "avif"], max_bytes=70_000).best for _ in range(2)]
    assert files[0] is not None and files[1] is not None and files[0].data == files[1].data


def test_somebody_may_fix_what_they_know_better() -> None:
    def best(wish: Wish, limit: int | None = 20_000) -> Choice:
        return chosen(PHOTO, wish, formats=["jpeg", "png", "avif"], max_bytes=limit)

    assert best(Wish(format="png")).best.format == "png"  # type: ignore[union-attr]
    full = best(Wish(format="jpeg", chroma="4:4:4"))
    assert {one.settings.chroma for one in full.candidates if isinstance(one.settings, JpegSettings)} == {"4:4:4"}
    exactly = best(Wish(format="jpeg", quality=40)).best
    assert exactly is not None and isinstance(exactly.settings, JpegSettings) and exactly.settings.quality == 40
    few = chosen(MARK, Wish(format="png", colours=12), formats=["png"], max_bytes=60_000).best
    assert few is not None and few.settings == PaletteSettings(colours=12, dither=getattr(few.settings, "dither", 0))
    assert len(opened(few.data).convert("RGBA").getcolors() or ()) <= 12
    assert best(Wish(format="avif", quality=30, chroma="4:2:0")).best.settings == AvifSettings(  # type: ignore[union-attr]
        quality=30, chroma="4:2:0"
    )
    heavy = best(Wish(format="jpeg", quality=95, chroma="4:4:4"), 4_000)
    assert heavy.best is None and heavy.problem == "over limit", "the limit still holds"
    assert Counter(one.format for one in heavy.candidates).keys() == {"jpeg"}


def test_a_wish_for_a_format_that_the_place_does_not_take_leaves_nothing() -> None:
    assert chosen(PHOTO, Wish(format="bmp"), formats=["jpeg"], max_bytes=20_000).problem == "no format"


@settings(max_examples=60, deadline=None)
@given(st.integers(2, 40), st.integers(1, 40), st.integers(0, 2**31))
def test_a_smaller_palette_has_at_most_so_many_colours_and_loses_little(many: int, most: int, seed: int) -> None:
    rng = np.random.default_rng(seed)
    colours = rng.integers(0, 256, (many, 4)).astype(np.uint8)
    picture = Indexed(rng.integers(0, many, (20, 30)).astype(np.uint8), colours)
    few, belongs = Palette(picture).of(most)
    assert len(few) == min(most, many) and len(belongs) == many
    if most >= many:
        assert np.abs(few[belongs].astype(int) - colours).max() == 0
    error = ((few[belongs].astype(float) - colours) ** 2).sum(1)[picture.indices].mean()
    one = ((colours.astype(float) - colours[picture.indices.ravel()].mean(0)) ** 2).sum(1)[picture.indices].mean()
    assert error <= one + 4, "never worse than one colour for all"


def test_steps_of_the_knob_are_fair_shares_of_a_bit() -> None:
    steps = [colours_at(step) for step in range(LAST_STEP + 1)]
    assert (steps[0], steps[-1]) == (4, 256) and steps == sorted(steps)


def test_a_palette_of_a_few_colours_is_exact() -> None:
    flat = Image.new("RGB", (300, 200), "#17443c")
    flat.paste("#f4d06f", (40, 40, 120, 160))
    flat.paste("#b4541a", (160, 20, 280, 120))
    pixels = np.asarray(flat.convert("RGBA"))
    data = encoded_as(pixels_of(pixels), "png", PaletteSettings(colours=4))
    assert np.array_equal(np.asarray(opened(data).convert("RGBA")), pixels)
