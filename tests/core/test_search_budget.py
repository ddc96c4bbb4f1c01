"""Searches have a bound: what they leave out, what they foresee from tiles, and what they say when they end early."""

from collections.abc import Callable

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import best_file
from fitzle.core.encode.foreseeing import expected_bytes, expected_position
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.png import lossless_png
from fitzle.core.encode.raster import COMPARED_PIXELS, Raster
from fitzle.core.encode.registry import ENCODERS
from fitzle.core.encode.tiles import TILE_PX, tiled
from fitzle.core.encode.webp import HIGHEST_QUALITY, LOWEST_QUALITY, _lossy
from fitzle.core.preflight.registry import judged, label_of_finding
from fitzle.core.preflight.rule import Evidence
from fitzle.core.units import Size
from tests.fits import pixels as pixels_of
from tests.fits import unhurried
from tests.make import disc, photo, sheet

PHOTO = np.asarray(photo(320, 200).convert("RGBA"))
LARGE = np.asarray(photo(1000, 800, seed=3).convert("RGBA"))
DRAWN = np.asarray(disc(1200, margin=90, ground="#f4efe4").convert("RGBA"))


class Clock:
    """Seconds that pass only when somebody says so."""

    def __init__(self) -> None:
        self.now = 0.0

    def __call__(self) -> float:
        return self.now


def used_up() -> Budget:
    """A budget that has nothing left."""
    clock = Clock()
    budget = Budget(1.0, clock)
    clock.now = 2.0
    return budget


def slow_encoder(clock: Clock, seconds: float) -> Callable[[int], bytes]:
    """A codec whose files have a hundred bytes for each step of the knob, and that takes its time."""

    def encode(position: int) -> bytes:
        clock.now += seconds
        return b"x" * (100 * position)

    return encode


def test_a_budget_counts_from_when_it_is_made_and_remembers_that_it_said_no() -> None:
    clock = Clock()
    clock.now = 5.0
    budget = Budget(3.0, clock)
    clock.now = 7.0
    assert (budget.used, budget.allows(1.0), budget.ended_early) == (2.0, True, False)
    assert not budget.allows(1.5)
    assert budget.allows() and budget.ended_early


@settings(max_examples=200)
@given(st.floats(0.01, 4), st.floats(0.1, 12), st.integers(100, 12_000))
def test_a_search_ends_within_its_budget_by_two_encodes_at_most(seconds: float, all_: float, limit: int) -> None:
    """The first one is always tried, and the lowest one where nothing fits: without them there would be no file."""
    clock = Clock()
    budget = Budget(all_, clock)
    turning = largest_under(slow_encoder(clock, seconds), limit, 1, 100, budget=budget)
    assert clock.now <= max(all_, seconds) + seconds + 1e-9
    assert turning.best is not None and len(turning.best.data) <= limit
    assert len(turning.tried) == round(clock.now / seconds)


def test_a_search_with_time_comes_nearer_than_one_without() -> None:
    found = [
        largest_under(slow_encoder(clock := Clock(), 1.0), 4_950, 1, 100, budget=Budget(s, clock)) for s in (2, 60)
    ]
    hurried, patient = (one.best.position for one in found if one.best)
    assert hurried <= patient
    assert patient >= 48


@pytest.mark.parametrize(
    ("fmt", "limit"),
    [("png", 40_000), ("png", 18_000), ("jpeg", 40_000), ("jpeg", 9_000), ("webp", 40_000), ("webp", 9_000)],
)
def test_without_time_there_still_is_a_file_under_the_limit(fmt: str, limit: int) -> None:
    place = sheet(formats=[fmt], max_bytes=limit)
    choice = best_file(pixels_of(PHOTO), place, Size(320, 200), used_up())
    assert choice.best is not None and len(choice.best.data) <= limit
    assert len(choice.candidates) <= 4
    assert choice.ended_early == (len(choice.candidates) > 1)


def test_a_format_that_comes_first_does_not_take_the_time_of_the_next() -> None:
    """A PNG of a photo is hopeless under such a limit, and slow; the JPEG after it looked half as good for that."""
    clock = Clock()
    budget = Budget(9.0, clock)
    assert budget.share(3).seconds == 3.0
    clock.now = 4.0
    assert budget.share(2).seconds == 2.5
    clock.now = 11.0
    assert not budget.share(1).allows()


def test_time_that_one_format_used_up_is_told_of_the_whole_search() -> None:
    place = sheet(formats=["png", "jpeg"], max_bytes=9_000)
    choice = best_file(pixels_of(PHOTO), place, Size(320, 200), used_up())
    assert choice.ended_early and choice.best is not None


def test_what_is_hopeless_is_not_smoothed_too() -> None:
    place = sheet(formats=["png"], max_bytes=4_000)
    choice = best_file(pixels_of(PHOTO), place, Size(320, 200), unhurried())
    assert choice.problem == "over limit"
    assert not any(getattr(one.settings, "smoothed", False) for one in choice.candidates)
    assert judged(Evidence(place, choice=choice), "file"), "and that is said"


def test_a_search_that_ended_early_says_so_in_plain_words() -> None:
    place = sheet(formats=["jpeg"], max_bytes=9_000)
    choice = best_file(pixels_of(PHOTO), place, Size(320, 200), used_up())
    [note] = [one for one in judged(Evidence(place, choice=choice), "file") if one.limit is None]
    assert "ended after 1 s with the best of" in note.message
    assert "a better one may exist" in note.message
    assert (note.severity, label_of_finding(note)) == ("note", "search ended early")


def test_a_search_with_time_says_nothing_of_it() -> None:
    place = sheet(formats=["jpeg"], max_bytes=9_000)
    choice = best_file(pixels_of(PHOTO), place, Size(320, 200), unhurried())
    assert not choice.ended_early
    assert not [one for one in judged(Evidence(place, choice=choice), "file") if one.limit is None]


@settings(max_examples=60, deadline=None)
@given(st.integers(1, 900), st.integers(1, 900), st.integers(TILE_PX**2, 400_000))
def test_tiles_keep_their_own_px_from_all_over_the_picture(height: int, width: int, most: int) -> None:
    rows, columns = np.mgrid[:height, :width].astype(np.uint16)
    picture = np.dstack([rows & 255, rows >> 8, columns & 255, columns >> 8]).astype(np.uint8)
    kept = tiled(picture, most)
    if height * width <= most:
        assert kept is picture
        return
    assert kept.shape[0] * kept.shape[1] <= height * width
    y, x = kept[..., 0] + 256 * kept[..., 1].astype(int), kept[..., 2] + 256 * kept[..., 3].astype(int)
    assert (np.diff(y[:, 0]) > 0).all() and (np.diff(x[0]) > 0).all(), "in order, none twice"
    assert (y == y[:, :1]).all() and (x == x[:1]).all()
    for places, length in ((y[:, 0], height), (x[0], width)):
        if len(places) < length:
            assert len(places) % TILE_PX == 0 and (places[::TILE_PX] % TILE_PX == 0).all(), "whole tiles"
            assert abs(places.mean() - length / 2) <= TILE_PX, "as many from either end"


@pytest.mark.parametrize("pixels", [LARGE, DRAWN], ids=["photo", "drawn"])
def test_the_weight_of_a_large_picture_is_foreseen_from_its_tiles(pixels: np.ndarray) -> None:
    raster = Raster(pixels)
    expected = expected_bytes(lossless_png, raster)
    assert expected is not None
    assert len(lossless_png(raster)) == pytest.approx(expected, rel=0.15 if pixels is LARGE else 1.0)


@pytest.mark.parametrize("limit", [15_000, 60_000])
def test_where_a_search_begins_is_foreseen_from_tiles(limit: int) -> None:
    """Tiles have seams, which cost bytes: what they foresee is on the safe side, and not far from where it ends."""
    raster = Raster(LARGE)
    expected = expected_position(_lossy, raster, limit, LOWEST_QUALITY, HIGHEST_QUALITY)
    assert expected is not None
    assert 0.5 * limit <= len(_lossy(raster, expected)) <= 1.05 * limit


def test_small_pictures_are_not_foreseen_but_tried() -> None:
    raster = Raster(PHOTO)
    assert raster.sample is None and raster.sampled_share == 1.0
    assert expected_bytes(lossless_png, raster) is None
    assert expected_position(_lossy, raster, 9_000, 1, 95) is None


def test_a_score_on_tiles_puts_files_in_the_same_order_as_the_whole() -> None:
    raster = Raster(LARGE)
    assert raster.width * raster.height > COMPARED_PIXELS
    scores = []
    for limit in (12_000, 60_000):
        found = ENCODERS["jpeg"](pixels_of(LARGE), limit, unhurried()).best
        assert found is not None
        scores.append((raster.score(found.data), raster.compared_score(found.data)))
    assert scores == sorted(scores)
    assert [tiles for _, tiles in scores] == sorted({tiles for _, tiles in scores}), "in the same order, no two alike"
