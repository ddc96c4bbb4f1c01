"""Searches have a bound: what they leave out, what they foresee from tiles, and what they say when they end early."""

from collections.abc import Callable

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.choosing import best_file
from fitzle.core.encode.foreseeing import foresight, refined, surely_over
from fitzle.core.encode.jpeg import JPEG_LINES
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.line import Line
from fitzle.core.encode.png import PNG_LINES, encode_png, lossless_png
from fitzle.core.encode.raster import COMPARED_PIXELS, Raster
from fitzle.core.encode.settings import PaletteSettings
from fitzle.core.encode.tiles import TILE_PX, tiled
from fitzle.core.encode.webp import WEBP_LINES
from fitzle.core.preflight.registry import judged, label_of_finding
from fitzle.core.preflight.rule import Evidence
from fitzle.core.units import Size
from tests.fits import pixels as pixels_of
from tests.fits import searched, unhurried
from tests.make import disc, opened, photo, sheet

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
def test_a_search_ends_within_its_budget_by_three_encodes_at_most(seconds: float, all_: float, limit: int) -> None:
    """The first one is always tried; where nothing fits a safe one and the lowest: else there would be no file."""
    clock = Clock()
    budget = Budget(all_, clock)
    turning = largest_under(slow_encoder(clock, seconds), limit, 1, 100, budget=budget)
    assert clock.now <= max(all_, seconds) + 2 * seconds + 1e-9
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
    [("png", 40_000), ("png", 30_000), ("jpeg", 40_000), ("jpeg", 9_000), ("webp", 40_000), ("webp", 9_000)],
)
def test_without_time_there_still_is_a_file_under_the_limit(fmt: str, limit: int) -> None:
    place = sheet(formats=[fmt], max_bytes=limit)
    choice = best_file(pixels_of(PHOTO), place, Size(320, 200), used_up())
    assert choice.best is not None and len(choice.best.data) <= limit
    assert len(choice.candidates) <= 4
    assert choice.ended_early or len(choice.candidates) == 1


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
    place = sheet(formats=["png"], max_bytes=14_000)
    choice = best_file(pixels_of(LARGE), place, Size(1000, 800), unhurried())
    assert len(choice.candidates) <= 2
    assert choice.problem in ("over limit", "useless")
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
    """What is lighter than its limit is never given up; a photo is at a fifth below its weight."""
    raster = Raster(pixels)
    weight = len(lossless_png(raster))
    assert not surely_over(lossless_png, raster, weight)
    assert surely_over(lossless_png, raster, round(weight * 0.65 if pixels is LARGE else weight * 0.15))


WEBP = WEBP_LINES[0]


@pytest.mark.parametrize("limit", [15_000, 60_000])
def test_where_a_search_begins_is_foreseen_from_tiles(limit: int) -> None:
    """Tiles have seams, which cost bytes: what they foresee is on the safe side, and not far from where it ends."""
    raster = Raster(LARGE)
    seen = foresight(WEBP, raster, limit)
    assert seen is not None and seen.fits()
    assert 0.5 * limit <= len(WEBP.encode(raster, seen.position())) <= 1.05 * limit
    assert 0.3 * limit <= len(WEBP.encode(raster, seen.position(0.7))) <= limit
    assert seen.seconds > 0


@pytest.mark.parametrize("line", PNG_LINES, ids=[line.name for line in PNG_LINES])
@pytest.mark.parametrize("limit", [90_000, 160_000])
def test_drafts_of_a_palette_find_the_place_that_one_good_file_confirms(line: Line, limit: int) -> None:
    """Tiles alone were wrong by a quarter and had it packed well three times."""
    raster = Raster(LARGE)
    seen = foresight(line, raster, limit)
    assert seen is not None
    exact = refined(seen, line, raster, limit)
    found = len(line.encode(raster, exact.position()))
    over, under = (len(line.encode(raster, min(exact.position() + step, line.high))) for step in (3, 0))
    assert 0.93 * limit <= found <= 1.04 * limit or over > limit >= under or exact.position() == line.high
    assert abs(exact.bytes_at(exact.position()) / found - 1) < 0.04


def test_what_has_no_drafts_keeps_what_its_tiles_say() -> None:
    raster = Raster(LARGE)
    seen = foresight(WEBP, raster, 60_000)
    assert seen is not None and refined(seen, WEBP, raster, 60_000) is seen


def test_bytes_that_grow_slowly_are_followed_by_the_last_two_files() -> None:
    """With a guess of the growth alone it took a file for every other position."""
    turning = largest_under(lambda at: b"x" * (10_000 + 20 * at), 11_500, 0, 100, start=5, enough=0.999)
    assert turning.best is not None and turning.best.position in range(74, 76)
    assert len(turning.tried) <= 4


@pytest.mark.parametrize("line", JPEG_LINES, ids=[line.name for line in JPEG_LINES])
@pytest.mark.parametrize("quality", [8, 20, 60])
def test_headers_weigh_once_and_not_once_for_each_tile(line: Line, quality: int) -> None:
    """Of a soft picture under a hard limit they are half of what tiles have: it was given up as hopeless."""
    raster = Raster(np.asarray(photo(160, 40).resize((2000, 500)).convert("RGBA")))
    seen = foresight(line, raster, 9_000)
    assert seen is not None
    assert 0.7 <= seen.bytes_at(quality) / len(line.encode(raster, quality)) <= 1.5


class Foreseen:
    """An expectation that says where it was asked; a file has likely `per_step` bytes for each step of the knob."""

    def __init__(self, limit: int, per_step: float, seconds: float = 1.0) -> None:
        self.limit, self.per_step, self.seconds = limit, per_step, seconds

    def position(self, part: float = 1.0) -> int:
        return int(part * self.limit / self.per_step)

    def bytes_at(self, position: int) -> float:
        return position * self.per_step


@settings(max_examples=100)
@given(st.floats(0.6, 1.8), st.integers(1_500, 9_000))
def test_the_second_guess_corrects_what_tiles_were_wrong_by(wrong_by: float, limit: int) -> None:
    """Where tiles are wrong by one factor everywhere the second file uses 97 % of the limit and is under it."""
    foreseen = Foreseen(limit, 10 / wrong_by)
    turning = largest_under(lambda position: b"x" * (10 * position), limit, 1, 1000, expected=foreseen, most=2)
    assert turning.best is not None and 0.97 * limit <= len(turning.best.data) <= limit
    assert len(turning.tried) <= 2


def test_in_a_hurry_a_search_begins_where_it_is_safe_and_goes_down_only_as_far_as_it_must() -> None:
    """A photo whose first try was a little too heavy fell to the lowest quality: 11 points instead of 55."""

    def ended(seconds: float, weight: int = 100) -> list[int]:
        clock = Clock()
        encode = slow_encoder(clock, 1.0)
        turning = largest_under(
            lambda position: encode(position) * (weight // 100), 4_500, 1, 100, expected=Foreseen(4_500, 90.0),
            budget=Budget(seconds, clock),
        )  # fmt: skip
        assert turning.best is not None and len(turning.best.data) <= 4_500
        return [one.position for one in turning.tried]

    assert ended(1.5) == [35], "safe at once"
    assert ended(2.2)[:1] == [50], "time to correct it"
    assert ended(1.5, weight=300) == [35, 1], "what is safe was not"
    assert ended(2.2, weight=200)[-1] in range(1, 23)


def test_what_is_known_of_a_line_is_not_encoded_again() -> None:
    asked: list[int] = []

    def encode(position: int) -> bytes:
        asked.append(position)
        return b"x" * (100 * position)

    first = largest_under(encode, 4_950, 1, 100, most=3)
    found = largest_under(encode, 4_950, 1, 100, most=3, known=first.tried)
    assert found.best is not None and first.best is not None and found.best.position >= first.best.position
    assert len(set(asked)) == len(asked)


def test_small_pictures_are_not_foreseen_but_tried() -> None:
    raster = Raster(PHOTO)
    assert raster.sample is None and raster.sampled_share == 1.0
    assert not surely_over(lossless_png, raster, 10)
    assert foresight(WEBP, raster, 9_000) is None


def test_a_budget_says_what_is_left_without_remembering_a_question() -> None:
    clock = Clock()
    budget = Budget(3.0, clock)
    clock.now = 4.0
    assert (budget.left, budget.ended_early) == (-1.0, False)


@pytest.mark.parametrize(
    "settings", [PaletteSettings(colours=60, dither=1), PaletteSettings(colours=60, smoothed=True)]
)
def test_large_palettes_are_packed_quickly_and_lose_nothing_by_it(
    settings: PaletteSettings, monkeypatch: pytest.MonkeyPatch
) -> None:
    raster = Raster(LARGE)
    best = encode_png(raster, settings)
    monkeypatch.setattr("fitzle.core.encode.png.QUICK_FROM_PIXELS", 1)
    quick = encode_png(raster, settings)
    assert np.array_equal(np.asarray(opened(quick).convert("RGB")), np.asarray(opened(best).convert("RGB")))
    assert len(best) <= len(quick) <= 1.25 * len(best)


def test_a_score_on_tiles_puts_files_in_the_same_order_as_the_whole() -> None:
    raster = Raster(LARGE)
    assert raster.width * raster.height > COMPARED_PIXELS
    scores = []
    for limit in (12_000, 60_000):
        found = searched("jpeg", pixels_of(LARGE), limit).best
        assert found is not None
        scores.append((raster.score(found.data), raster.compared_score(found.data)))
    assert scores == sorted(scores)
    assert [tiles for _, tiles in scores] == sorted({tiles for _, tiles in scores}), "in the same order, no two alike"
