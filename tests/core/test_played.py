"""Frames that are watched: a few at a time, as a whole loop would show them; what is kept, and what is dropped."""

import io
from functools import partial

import numpy as np
import pytest
from benchmarks.moving_piece import decided_piece
from PIL import Image

from fitzle.core.errors import ValueOutOfRange
from fitzle.core.fit.loop import Loop
from fitzle.core.fit.moving import loop_of
from fitzle.core.fit.played import MOST_PLAYED_PX, played_frames, played_strip
from fitzle.core.kept import Kept
from fitzle.core.motion.played import frames_at, playing_time


@pytest.fixture(scope="module")
def loop() -> Loop:
    return loop_of(*decided_piece())


def test_frames_come_in_parts_as_they_would_all_together(loop: Loop) -> None:
    count = played_frames(loop.period)
    whole = played_strip(loop, 160, 0, 8)
    height = whole.shape[0] // 8
    for number in range(8):
        part = played_strip(loop, 160, number, 1)
        assert np.array_equal(part, whole[number * height : (number + 1) * height])
        assert np.array_equal(part, loop.picture(loop.period * number / count, 160))
    assert played_strip(loop, 160, count - 1, 8).shape[0] == height, "there is none after the last"


@pytest.mark.parametrize(("first", "count"), [(-1, 1), (10_000, 1), (0, 0), (0, 17)])
def test_frames_that_there_are_none_of_are_refused(loop: Loop, first: int, count: int) -> None:
    with pytest.raises(ValueOutOfRange, match="no such frames"):
        played_strip(loop, 160, first, count)


def test_a_long_loop_is_watched_smaller_than_it_is(loop: Loop) -> None:
    longer = loop._replace(period=600.0)
    height, width = played_strip(longer, 2400, 0, 1).shape[:2]
    assert width * height * played_frames(600.0) <= MOST_PLAYED_PX
    assert played_strip(loop, 2400, 0, 1).shape[1] == loop.plan.size.width, "never larger than it is"


@pytest.mark.parametrize("fmt", ["GIF", "WEBP", "PNG"])
def test_the_time_of_a_round_is_that_of_all_frames(fmt: str) -> None:
    delays = [30, 50, 100, 0, 20, 300, 40, 70]
    frames = [Image.new("RGB", (40, 30), (30 * number, 90, 120)) for number in range(len(delays))]
    out = io.BytesIO()
    frames[0].save(out, fmt, save_all=True, append_images=frames[1:], duration=delays)
    seconds, count = playing_time(out.getvalue())
    assert (seconds, count) == (pytest.approx(0.71), 8), "a frame that lasts no time is shown for a tenth of a second"
    [shown] = frames_at(out.getvalue(), [0.29])
    assert abs(int(shown[0, 0, 0]) - 120) < 12, "the fifth, which begins at 0.28 s"


def test_what_was_asked_for_longest_ago_is_dropped_first() -> None:
    kept, made = Kept[int](10, float), list[int]()

    def make(value: int) -> int:
        made.append(value)
        return value

    for value in (4, 5, 4, 3, 4, 5):
        assert kept.of(value, partial(make, value)) == value
    assert made == [4, 5, 3, 5], "the five made room for the three, the four had been asked for since"
    for _ in range(2):
        assert kept.of("heavy", partial(make, 11)) == 11
    assert made[-2:] == [11, 11], "too heavy to be kept"
    assert kept.of(4, partial(make, 4)) == 4 and made[-1] == 11, "and it made no room"
