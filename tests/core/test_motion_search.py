"""The best moving file: never over a limit, looks measured on the file, exact times, formats that compete."""

from __future__ import annotations

import io
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import av
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw, ImageSequence

from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.budget import Budget
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.errors import ArtworkError
from fitzle.core.formats import MOVING
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.frame_bytes import frame_bytes
from fitzle.core.motion.ladders import highest, settings_at
from fitzle.core.motion.lighter_gif import lighter_gif
from fitzle.core.motion.looking import differences, largest_step, looks_of, smoothness_of
from fitzle.core.motion.palette import in_palette, shared_palette
from fitzle.core.motion.played import frames_at, playing_time
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.search import RATES, Asked, best_moving, rates
from fitzle.core.motion.weighing import sample_of, weight_of
from fitzle.core.preflight.file_facts import read_file_facts
from fitzle.core.units import Size
from tests.make import photo

SIZE = Size(160, 60)
FLAT = Playing()


def ball(fps: float = 25, period: float = 1.0, clear: bool = False, size: Size = SIZE) -> Iterator[Pixels]:
    """A ball that goes around over a flat ground, or over nothing."""
    for number in range(max(2, round(fps * period))):
        turn = 2 * np.pi * number / round(fps * period)
        picture = Image.new("RGBA", size, (0, 0, 0, 0) if clear else "#17443c")
        x, y = size.width * (0.5 + 0.3 * np.cos(turn)), size.height * (0.5 + 0.3 * np.sin(turn))
        ImageDraw.Draw(picture).ellipse((x - 9, y - 9, x + 9, y + 9), fill="#f6b73c")
        yield np.asarray(picture)


def pan(fps: float = 25, period: float = 1.0) -> Iterator[Pixels]:
    """A photo that goes by: every px changes."""
    wide = np.asarray(photo(13, 3).convert("RGB").resize((260, 60), Image.Resampling.BICUBIC).convert("RGBA"))
    count = max(2, round(fps * period))
    for number in range(count):
        left = round(50 + 49 * np.sin(2 * np.pi * number / count + 0.37))
        yield np.ascontiguousarray(wide[:, left : left + SIZE.width])


@pytest.mark.parametrize("fmt", MOVING)
@pytest.mark.parametrize("position", [0, 5, -1])
def test_every_setting_lasts_as_long_as_the_loop_for_another_reader(fmt: Any, position: int) -> None:
    reel = Reel(ball(7, 1.3), 1.3)
    at = position if position >= 0 else highest(fmt)
    data = moving_file(fmt, reel, settings_at(fmt, at, reel.fps), FLAT)
    facts = read_file_facts(data)
    assert facts.format == fmt and facts.size == SIZE
    assert facts.seconds == pytest.approx(1.3, abs=0.006), "to a step of the format, over all frames"
    assert playing_time(data)[0] == pytest.approx(1.3, abs=0.006)
    if fmt in ("gif", "apng"):
        with av.open(io.BytesIO(data), format=fmt) as container:
            assert sum(1 for _ in container.decode(video=0)) == facts.frames


def test_a_file_s_time_is_read_for_webp_and_avif_too() -> None:
    """Pillow says only once a frame is loaded how long it is shown: `check` took files of any length."""
    for fmt in ("webp", "avif"):
        data = moving_file(fmt, Reel(ball(10, 2), 2), MovingSettings(fps=10, quality=60), FLAT)  # type: ignore[arg-type]
        assert read_file_facts(data).seconds == pytest.approx(2.0, abs=0.01)


@settings(max_examples=25)
@given(
    st.sampled_from([*MOVING, "all"]), st.sampled_from([ball, pan]), st.integers(600, 60_000), st.booleans()
)  # fmt: skip
def test_no_file_is_over_its_limit(fmt: str, draw: Any, limit: int, once: bool) -> None:
    formats: Any = MOVING if fmt == "all" else [fmt]
    asked = Asked(formats, limit, max_fps=12.5, playing=Playing(loop=1 if once else 0))
    found = best_moving(lambda fps: draw(fps, 0.6), 0.6, 9600, asked, Budget(6))
    if found.choice.best is None:
        assert found.choice.problem == "over limit" and found.choice.candidates
        assert min(one.bytes for one in found.choice.candidates) > limit
        return
    assert len(found.choice.best.data) <= limit
    assert read_file_facts(found.choice.best.data).format == found.choice.best.format
    assert found.looks and 0 <= found.looks.worst <= found.looks.mean <= 100


def test_a_looser_limit_never_looks_much_worse_and_uses_what_it_has() -> None:
    scores = []
    for limit in (8_000, 25_000, 120_000):
        found = best_moving(lambda fps: pan(fps, 1.0), 1.0, 9600, Asked(["gif"], limit))
        assert found.choice.best and found.looks
        scores.append(found.looks.score)
    assert scores == sorted(scores) and scores[-1] > scores[0] + 8


def finely(fps: float = 25, period: float = 1.0) -> Iterator[Pixels]:
    """A photo of 320x120 px that goes by, in fine grain: too much for little files."""
    wide = np.asarray(photo(13, 3).convert("RGB").resize((420, 120), Image.Resampling.BICUBIC).convert("RGBA"))
    count = max(2, round(fps * period))
    for number in range(count):
        left = round(50 + 12 * np.sin(2 * np.pi * number / count + 0.37))
        yield np.ascontiguousarray(wide[:, left : left + 320])


def test_what_would_be_damaged_is_made_smaller_where_the_place_takes_that() -> None:
    asked = Asked(["gif"], 20_000, max_fps=12.5)
    full = best_moving(finely, 1.0, 38_400, asked)
    small = best_moving(finely, 1.0, 38_400, asked._replace(smaller=[Size(240, 90), Size(160, 60)]))
    assert small.choice.best and small.looks
    assert len(small.choice.best.data) <= 20_000
    size = small.choice.best.size(Size(320, 120))
    assert size in (Size(240, 90), Size(160, 60))
    assert read_file_facts(small.choice.best.data).size == size, "the file is what its settings say"
    assert small.choice.best.settings.words.count("px") == 1
    before = full.looks.score if full.looks else 0.0
    assert small.looks.score > before, "looked at as large as it was drawn"


def test_frames_that_are_the_same_do_not_hide_what_others_weigh() -> None:
    """A loop that rests at its turns: pairs that share a frame were weighed as if most of them changed nothing."""
    reel, told = Reel(finely(8), 1.0), settings_at("gif", highest("gif"), 8)
    real = len(moving_file("gif", reel, told, FLAT))
    assert 0.7 <= weight_of("gif", sample_of(reel), told, FLAT) / real <= 1.4


def test_what_looks_well_is_not_made_smaller() -> None:
    asked = Asked(["webp"], 400_000, smaller=[Size(80, 30)])
    found = best_moving(lambda fps: pan(fps, 0.6), 0.6, 9600, asked)
    assert found.choice.best and found.choice.best.size(SIZE) == SIZE
    assert all(one.settings.size is None for one in found.choice.candidates if isinstance(one.settings, MovingSettings))


def test_the_order_of_the_sheet_breaks_near_ties_and_looks_decide_else() -> None:
    lossless = best_moving(lambda fps: ball(fps, 1), 1.0, 9600, Asked(["gif", "apng"], None)).choice.best
    assert lossless and lossless.format == "apng"
    tight = best_moving(lambda fps: pan(fps, 1), 1.0, 9600, Asked(["apng", "avif"], 24_000)).choice.best
    assert tight and tight.format == "avif"


def test_frame_rates_are_those_that_the_place_and_the_memory_take() -> None:
    assert rates(3, 50_000, None) == list(RATES)
    assert rates(3, 50_000, 15) == [15, *[rate for rate in RATES if rate < 15]]
    assert rates(60, 1_000_000, None)[0] == 1.0, "60 frames of 60 megapixels are what memory holds"
    assert all(rate <= 5 for rate in rates(3, 50_000, 5))
    for period in (3, 60):
        frames = rates(period, 4096 * 4096, None)[0] * period
        assert frames <= 3.7, "a minute of large frames was 4 GB in the encoder's memory"


def test_weights_are_foreseen_from_pairs() -> None:
    """Tiles of pictures in which only one thing moves were five times too heavy, or empty."""
    for draw in (ball, pan):
        reel = Reel(draw(25, 2.0), 2.0)
        sample = sample_of(reel)
        for fmt in ("gif", "apng", "webp"):
            told = settings_at(fmt, highest(fmt) - 2, reel.fps)  # type: ignore[arg-type]
            real = len(moving_file(fmt, reel, told, FLAT))  # type: ignore[arg-type]
            assert 0.7 <= weight_of(fmt, sample, told, FLAT) / real <= 1.4, (draw.__name__, fmt)  # type: ignore[arg-type]


@pytest.mark.parametrize("fmt", ["gif", "apng", "webp"])
def test_the_bytes_of_frames_are_all_but_what_is_common(fmt: Any) -> None:
    reel = Reel(pan(10, 1), 1)
    data = moving_file(fmt, reel, settings_at(fmt, highest(fmt), 10), FLAT)
    sizes = frame_bytes(data, fmt)
    assert len(sizes) == 10 and min(sizes) > 100
    assert 0 < len(data) - sum(sizes) < 1200


def test_looks_are_measured_on_the_file_at_its_own_times() -> None:
    reel = Reel(pan(12.5, 1.2), 1.2)
    best = looks_of(moving_file("apng", reel, settings_at("apng", highest("apng"), 12.5), FLAT), reel, 100)
    assert best.mean == best.worst == best.score == 100
    poor = looks_of(moving_file("webp", reel, MovingSettings(fps=12.5, quality=2), FLAT), reel, 40)
    assert poor.worst <= poor.mean < 60 and poor.score < (poor.mean + poor.worst) / 2
    late = list(frames_at(moving_file("gif", reel, settings_at("gif", 15, 12.5), FLAT), [0.0, 5.0]))
    assert np.abs(late[1].astype(int) - reel[len(reel) - 1]).mean() < 8, "after its end a file shows its last frame"


def test_larger_steps_are_less_smooth() -> None:
    steps = [largest_step(Reel(pan(fps, 1), 1)) for fps in (50, 25, 8)]
    assert 0 < steps[0] < steps[1] < steps[2]
    assert smoothness_of(0, 5) == 100 and smoothness_of(0.08, 25) == 50
    assert smoothness_of(0.02, 5) == 50, "few frames are seen one by one however small the steps"
    assert largest_step(Reel([next(ball())] * 5, 1)) == 0


@settings(max_examples=60)
@given(st.integers(1, 130), st.integers(1, 130))
def test_steps_of_a_picture_of_any_size_are_told(width: int, height: int) -> None:
    """Dense flow of OpenCV ended the process for pictures of 16 px."""
    rng = np.random.default_rng(width * 1000 + height)
    frames = [rng.integers(0, 255, (height, width, 4), dtype=np.uint8) for _ in range(3)]
    assert 0 <= largest_step(Reel(frames, 1.0)) < 10


def test_a_palette_stands_for_clear_and_half_clear_places() -> None:
    reel = Reel(ball(8, 1, clear=True), 1)
    palette = shared_palette(reel, 16)
    shown = np.asarray(in_palette(reel[3], palette).convert("RGBA"))
    assert len(palette) <= 16 and shown[0, 0, 3] == 0
    assert np.abs(shown[..., 3].astype(int) - reel[3][..., 3]).mean() < 2


def test_a_sticker_keeps_its_alpha_frame_by_frame() -> None:
    reel = Reel(ball(10, 1, clear=True), 1)
    for at in (4, highest("apng")):
        data = moving_file("apng", reel, settings_at("apng", at, 10), FLAT)
        with Image.open(io.BytesIO(data)) as picture:
            shown = [np.asarray(frame.convert("RGBA")) for frame in ImageSequence.Iterator(picture)]
        for mine, theirs in zip(reel, shown, strict=True):
            assert np.array_equal(mine[..., 3] > 127, theirs[..., 3] > 127), "nothing of the frame before remains"


def test_frames_that_follow_each_other_differ_and_the_last_one_meets_the_first() -> None:
    found = differences(Reel(ball(12, 1), 1))
    assert len(found) == 12 and max(found) < 3 * min(found), "a loop that goes round has no jump at its end"


def test_a_reel_says_when_there_is_nothing_in_it() -> None:
    with pytest.raises(ArtworkError, match="no frame"):
        Reel([], 1.0)


def test_without_gifsicle_or_with_a_broken_one_the_file_stays_as_it_was(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    data = moving_file("gif", Reel(pan(10, 1), 1), settings_at("gif", highest("gif"), 10), FLAT)
    assert len(lighter_gif(data, 80)) < 0.9 * len(data)
    monkeypatch.setenv("PATH", str(tmp_path))
    assert lighter_gif(data, 80) == data
    broken = tmp_path / "gifsicle"
    broken.write_text("#!/bin/sh\nexit 3\n")
    broken.chmod(0o755)
    assert lighter_gif(data, 80) == data


def test_settings_are_told_in_words() -> None:
    assert settings_at("gif", 0, 12.5).words == "12.5 frames a second, 8 colours, tolerance 32, packed freely (200)"
    assert settings_at("webp", 0, 25).words == "25 frames a second, quality 3"
    assert json.loads(settings_at("apng", highest("apng"), 25).model_dump_json())["colours"] is None


@pytest.mark.parametrize("limit", [9_000, 60_000])
def test_a_search_that_is_ended_gives_the_best_it_has(limit: int) -> None:
    """Where nothing fits at the first frame rate it goes on to the lowest one: better than no file at all."""
    budget, heard, unhurried = Budget(60), list[str](), list[str]()

    def tell(words: str) -> None:
        heard.append(words)
        if words.startswith("Comparing"):
            budget.end()

    asked = Asked(["gif", "webp", "apng"], limit)
    found = best_moving(lambda fps: pan(fps, 1), 1.0, 9600, asked, budget, tell).choice
    best_moving(lambda fps: pan(fps, 1), 1.0, 9600, asked, Budget(60), unhurried.append)
    assert found.best and len(found.best.data) <= limit and found.ended_early
    assert drawn(heard) <= 2 and drawn(heard) <= drawn(unhurried)


def drawn(words: list[str]) -> int:
    """At how many frame rates the loop was drawn."""
    return sum(one.startswith("Drawing") for one in words)
