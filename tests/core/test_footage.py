"""Clips and moving pictures as sources: exact frames, cuts, loops that close, and what cannot be played."""

from __future__ import annotations

import io
import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from fitzle.core.errors import ArtworkError, FitzleError, LimitError, ValueOutOfRange
from fitzle.core.geometry.rect import Rect
from fitzle.core.motion.footage import Cut, footage_of
from fitzle.core.units import Size
from tests.clips import clip, number_in, sound_alone, turned
from tests.core.test_lottie import wheel
from tests.make import photo, saved

CLIP = clip()  # two seconds, 25 frames a second; each frame says its number


def number_at(footage: Any, seconds: float) -> int:
    return number_in(footage.full_picture(seconds))


@pytest.mark.parametrize("fps", [25, 12.5, 5])
def test_each_moment_shows_the_frame_that_covers_it(fps: float) -> None:
    footage = footage_of(CLIP, "talk.mp4", Cut(0.4, 1.4), fps=fps)
    assert footage.period == pytest.approx(1.0)
    count = round(fps)
    for number in range(count):
        assert number_at(footage, number / count) == int(round((0.4 + number / count) * 25, 6))


def test_an_uneven_clip_is_resampled_by_time() -> None:
    stamps = [0, 40, 52, 200, 201, 400, 900, 1000, 1033]
    footage = footage_of(clip(stamps_ms=stamps), "u.mp4", Cut(0, 1.0), fps=10)
    shown = [number_at(footage, number / 10) for number in range(9)]
    covering = [max(index for index, stamp in enumerate(stamps) if stamp <= number * 100) for number in range(9)]
    assert shown == covering


def test_faster_and_backwards() -> None:
    double = footage_of(CLIP, "t.mp4", Cut(0, 1.6, speed=2))
    assert double.period == pytest.approx(0.8)
    assert number_at(double, 0.4) == pytest.approx(20, abs=1)
    back = footage_of(CLIP, "t.mp4", Cut(0, 1, closing="back"))
    shown = [number_at(back, number / 25) for number in range(round(back.period * 25))]
    assert shown == [*range(25), *range(23, 0, -1)], "no frame is shown twice where it turns"
    assert number_at(back, back.period + 0.01) == 0


def test_a_smooth_loop_has_no_jump_at_its_end() -> None:
    """The last frame fades into what comes before the first: the step over the seam is like any other."""
    cut, smooth = (footage_of(CLIP, "t.mp4", Cut(0.2, 1.8, closing=closing)) for closing in ("cut", "smooth"))  # type: ignore[arg-type]
    assert smooth.period < cut.period and smooth.begin > 0
    step = 1 / 25

    def jump(one: Any, seconds: float) -> float:
        before, after = one.full_picture(seconds - step), one.full_picture(seconds)
        return float(np.abs(before.astype(int) - after).mean())

    inside = max(jump(smooth, step * number) for number in range(2, 20))
    assert jump(smooth, smooth.period) <= 1.5 * inside
    assert number_at(smooth, smooth.begin + step) == pytest.approx(0.2 * 25 + smooth.begin * 25, abs=2)


def test_it_is_upright_small_and_sampled_between_px() -> None:
    footage = footage_of(turned(CLIP, 1), "phone.mp4", Cut(), Size(36, 64))
    assert footage.natural == Size(144, 256)
    source = footage.at(0.5)
    assert (source.width, source.height) == (144, 256) and source.kept.shape[:2] == (64, 36)
    one, other = (source.pixels(Rect(x, 20, 40, 40), Size(80, 80)) for x in (20.0, 20.4))
    assert one.shape == (80, 80, 4) and not np.array_equal(one, other)


def moving(fmt: str, durations: list[int], **options: Any) -> bytes:
    frames = [Image.new("RGBA", (40, 30), (40 * index, 90, 200, 255)) for index in range(len(durations))]
    out = io.BytesIO()
    frames[0].save(out, fmt, save_all=True, append_images=frames[1:], duration=durations, loop=0, **options)
    return out.getvalue()


@pytest.mark.parametrize("fmt", ["GIF", "PNG", "WEBP"])
def test_moving_pictures_keep_their_own_times(fmt: str) -> None:
    footage = footage_of(moving(fmt, [100, 300, 200]), "m", Cut(), fps=20)
    assert footage.period == pytest.approx(0.6, abs=0.01)
    shown = [int(footage.full_picture(seconds)[15, 20, 0]) for seconds in (0.05, 0.2, 0.35, 0.55)]
    assert [round(one / 40) for one in shown] == [0, 1, 1, 2]


def test_frames_without_a_delay_are_shown_as_players_do() -> None:
    assert footage_of(moving("GIF", [0, 0, 0, 0]), "m.gif", Cut()).period == pytest.approx(0.4, abs=0.05)


@pytest.mark.parametrize(
    ("cut", "says"),
    [
        (Cut(1.5, 1.0), "no part from 1.5 to 1"), (Cut(0, 9), "lasts 2"), (Cut(-1, 1), "no part"),
        (Cut(0, 1, speed=0), "not a speed"), (Cut(float("nan"), 1), "not a part"),
    ],
)  # fmt: skip
def test_a_cut_that_cannot_be_is_told_in_words(cut: Cut, says: str) -> None:
    with pytest.raises(ValueOutOfRange, match=says) as error:
        footage_of(CLIP, "talk.mp4", cut)
    assert error.value.message.startswith("talk.mp4")


@pytest.mark.parametrize("data", [saved(photo(80, 50), "JPEG"), b"words", sound_alone(), CLIP[:200]])
def test_what_does_not_play_is_told_in_words(data: bytes) -> None:
    with pytest.raises(FitzleError):
        footage_of(data, "x", Cut())


def test_a_clip_of_hours_is_cut_and_one_of_one_frame_stands_still() -> None:
    slow = clip(stamps_ms=[0, 4 * 3600 * 1000 - 1000])
    with pytest.raises(ValueOutOfRange, match="too long for a moving picture"):
        footage_of(slow, "hours.mp4", Cut())
    assert footage_of(slow, "hours.mp4", Cut(10, 12), Size(64, 36)).period == pytest.approx(2)
    one = clip(stamps_ms=[0])
    assert footage_of(one, "one.mp4", Cut()).period > 0


def test_a_full_disk_is_told_in_words(monkeypatch: pytest.MonkeyPatch, tmp_path: Path) -> None:
    import resource

    before = resource.getrlimit(resource.RLIMIT_FSIZE)
    resource.setrlimit(resource.RLIMIT_FSIZE, (100_000, before[1]))
    try:
        with pytest.raises(ArtworkError, match="no room for the frames"):
            footage_of(CLIP, "talk.mp4", Cut())
    finally:
        resource.setrlimit(resource.RLIMIT_FSIZE, before)


def test_clear_places_lend_no_colour_to_what_is_beside_them() -> None:
    """Scaled without its alpha a cut-out had a dark rim in every frame."""
    frames = []
    for left in (4, 8):
        pixels = np.zeros((60, 60, 4), np.uint8)
        pixels[10:50, left : left + 40] = (240, 200, 60, 255)
        frames.append(Image.fromarray(pixels))
    out = io.BytesIO()
    frames[0].save(out, "PNG", save_all=True, append_images=frames[1:], duration=100, disposal=1, blend=0)
    small = footage_of(out.getvalue(), "sticker.png", Cut(), Size(23, 23)).at(0.0).kept
    edge = small[(small[..., 3] > 20) & (small[..., 3] < 235)]
    assert len(edge) and edge[:, 0].min() >= 225, "edges are half clear, not dark"


def test_what_was_cut_out_of_a_moving_picture_stands_still() -> None:
    """Its facts tell of frames, its source has one: the loop lasted no time, and making it divided by that."""
    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.fit.alone import Asked, piece_of
    from fitzle.core.fit.deciding import decide, plan_fit
    from fitzle.core.fit.making import make_file
    from fitzle.core.fit.request import FitArtwork, FitRequest
    from tests.make import sheet

    artwork = read_artwork(saved(photo(80, 50), "PNG"), "cut.png")
    facts = artwork.facts.model_copy(update={"frames": 3})
    place = sheet(size={"width": 40, "height": 30}, formats=["gif"], motion={"allowed": True})
    request = FitRequest(piece_of(artwork, Asked()), place, "p", {"artwork": FitArtwork(facts, "x")})
    choice = make_file(decide(plan_fit(request), {"artwork": artwork.source}), {"artwork": artwork.source})
    assert choice.best and choice.best.format == "gif" and choice.moving is None
    with Image.open(io.BytesIO(choice.best.data)) as picture:
        assert getattr(picture, "n_frames", 1) == 1


def test_the_part_that_closes_best_is_found() -> None:
    """A disc that goes round once in 1.2 s between shots of something else: any part of that length of it closes."""
    from fitzle.core.motion.looping import best_loop

    out = io.BytesIO()
    frames = rounds()
    frames[0].save(out, "WEBP", save_all=True, append_images=frames[1:], duration=40, lossless=True)
    found = best_loop(out.getvalue(), "round.webp", Cut(), 1.2)
    assert found.end == pytest.approx(found.begin + 1.2, abs=1e-3)
    assert 1.1 <= found.begin <= 2.0, "inside of the shot in which it goes round"
    with pytest.raises(ValueOutOfRange, match="no part of 9 s"):
        best_loop(out.getvalue(), "round.webp", Cut(), 9)


def rounds() -> list[Image.Image]:
    """4 s, 25 frames a second: from 1.2 to 3.2 s a disc goes round once in 1.2 s."""
    frames = []
    for number in range(100):
        picture = Image.new("RGB", (96, 64), (40, 60 + number // 2, 80))
        if 30 <= number < 80:
            turn = 2 * np.pi * (number - 30) / 30
            x, y = round(48 + 30 * np.cos(turn)), round(32 + 20 * np.sin(turn))
            picture.paste((250, 220, 90), (x - 8, y - 8, x + 8, y + 8))
        else:
            picture.paste((200, 90, 40), (number % 60, 10, number % 60 + 20, 40))
        frames.append(picture)
    return frames


def test_every_frame_of_even_delays_is_shown_once() -> None:
    """Delays that were summed were a hair beyond the moment, and a frame was shown twice for another."""
    footage = footage_of(moving("WEBP", [80] * 6), "m.webp", Cut(), fps=12.5)
    shown = [round(int(footage.full_picture(number * 0.08)[15, 20, 0]) / 40) for number in range(6)]
    assert shown == list(range(6))


def test_what_moves_beyond_its_first_frame_is_not_cut_off() -> None:
    """It was shown in the box of its first frame."""
    from fitzle.core.artwork.reading import read_artwork
    from fitzle.core.fit.alone import Asked, piece_of
    from fitzle.core.fit.deciding import decide, plan_fit
    from fitzle.core.fit.keys import fit_keys
    from fitzle.core.fit.moving import loop_of
    from fitzle.core.fit.request import FitArtwork, FitRequest
    from tests.make import sheet

    frames = []
    for left in (10, 60, 110):
        picture = Image.new("RGBA", (160, 160), (0, 0, 0, 0))
        picture.paste((20, 120, 110, 255), (left, left, left + 40, left + 40))
        frames.append(picture)
    out = io.BytesIO()
    frames[0].save(out, "WEBP", save_all=True, append_images=frames[1:], duration=100, lossless=True)
    artwork = read_artwork(out.getvalue(), "goes.webp")
    keys = []
    for motion in ({"allowed": True}, {"allowed": False}):
        place = sheet(size={"width": 80, "height": 80}, formats=["webp"], motion=motion, transparency="allowed")
        known = {"artwork": FitArtwork(artwork.facts, "x")}
        planned = plan_fit(FitRequest(piece_of(artwork, Asked()), place, "p", known))
        keys.append(fit_keys(planned.resolved))
        if motion["allowed"]:
            loop = loop_of(decide(planned, {"artwork": artwork.source}), {"artwork": artwork.source})
    seen = [int((loop.picture(moment)[..., 3] > 200).sum()) for moment in (0.05, 0.15, 0.25)]
    assert min(seen) > 0.8 * max(seen) > 100, "as much of it in every frame"
    assert keys[0].proof != keys[1].proof and keys[0].file != keys[1].file


def test_a_clip_of_240_frames_a_second_is_sampled_by_time() -> None:
    footage = footage_of(clip(stamps_ms=[round(number * 1000 / 240) for number in range(240)]), "fast.mp4", Cut())
    for seconds in (0.1, 0.5, 0.9):
        shown = number_in(footage.at(seconds).kept)
        assert shown == pytest.approx(240 * seconds, abs=10)
    assert footage.fps > 200 and footage.period == pytest.approx(1, abs=0.05)


def test_a_picture_of_20_000_frames_is_refused_in_words() -> None:
    image = b"\x2c\x00\x00\x00\x00\x01\x00\x01\x00\x00\x02\x02\x44\x01\x00"
    control = b"\x21\xf9\x04\x00\x01\x00\x00\x00"
    head = b"GIF89a\x01\x00\x01\x00\x80\x00\x00\x00\x00\x00\xff\xff\xff"
    with pytest.raises(LimitError, match="20,000 frames") as caught:
        footage_of(head + (control + image) * 20_000 + b";", "endless.gif", Cut())
    assert "endless.gif" in caught.value.message and "10,000" in caught.value.message


def lottie(**more: Any) -> bytes:
    """A wheel that rolls across."""
    document = wheel()
    way = [{"t": 0, "s": [60, 120]}, {"t": 60, "s": [260, 120]}]
    document["layers"][0]["ks"]["p"] = {"a": 1, "k": way}
    return json.dumps(document | more).encode()


def test_a_drawn_animation_plays_at_the_size_that_is_wanted() -> None:
    footage = footage_of(lottie(), "wheel.json", Cut(), wanted=Size(640, 480))
    assert footage.at(0).kept.shape[:2] == (480, 640) and footage.natural == Size(320, 240)
    first, later = footage.at(0).kept, footage.at(footage.period / 3).kept
    assert np.abs(first.astype(int) - later).mean() > 0.5, "it rolls"


@pytest.mark.parametrize(
    ("more", "says"),
    [
        ({"w": 0}, "not valid"), ({"assets": [{"id": "a", "p": "http://x.example/a.png"}]}, "from outside"),
        ({"layers": [{"ty": 4, "x": "var $bm_rt = 1;"}]}, "expressions"), ({"layers": [{"ty": 4}] * 10_000}, "10000"),
    ],
)  # fmt: skip
def test_a_hostile_animation_is_refused_before_it_is_drawn(more: dict[str, Any], says: str) -> None:
    with pytest.raises(FitzleError, match=says):
        footage_of(lottie(**more), "bad.json", Cut())
