"""What holds for a clip of any rate: the frame shown at a moment, steps there and back, the strip's moments."""

import io
from bisect import bisect_right

import pytest
from hypothesis import example, given, settings
from hypothesis import strategies as st

from fitzle.core.artwork.clips.filmstrip import filmstrip
from fitzle.core.artwork.clips.frames import frame_at, frame_before, next_frame, still_of
from fitzle.core.artwork.clips.opening import opened_clip
from tests.clips import clip, number_in

FEW = settings(max_examples=15, deadline=None)
SMALL = (128, 48)
gaps = st.lists(st.integers(1, 700), min_size=0, max_size=24)
keys = st.integers(1, 12)


def stamps_of(found: list[int]) -> list[int]:
    stamps = [0]
    for gap in found:
        stamps.append(stamps[-1] + gap)
    return stamps


@FEW
@given(found=gaps, key_every=keys, at=st.floats(0, 1))
@example(found=[1, 1, 49], key_every=3, at=0.5)  # the key frame that a seek finds is shown only later
def test_the_frame_at_a_moment_is_the_last_that_has_begun(found: list[int], key_every: int, at: float) -> None:
    stamps = stamps_of(found)
    moment = at * (stamps[-1] + 50) / 1000
    with opened_clip(io.BytesIO(clip(stamps_ms=stamps, size=SMALL, key_every=key_every))) as open_clip:
        still = still_of(open_clip, frame_at(open_clip, moment))
    wanted = bisect_right(stamps, int(moment * 1000 + 1e-3)) - 1
    assert number_in(still.pixels) == wanted
    assert still.seconds == pytest.approx(stamps[wanted] / 1000, abs=1e-3)


@FEW
@given(found=gaps, key_every=keys, at=st.floats(0, 1))
def test_a_step_there_and_back_leads_to_the_same_frame(found: list[int], key_every: int, at: float) -> None:
    stamps = stamps_of(found)
    with opened_clip(io.BytesIO(clip(stamps_ms=stamps, size=SMALL, key_every=key_every))) as open_clip:
        here = frame_at(open_clip, at * stamps[-1] / 1000)
        stamp, number = here.pts, number_in(still_of(open_clip, here).pixels)
        there = next_frame(open_clip, open_clip.seconds(stamp))
        if number == len(stamps) - 1:
            assert there is None
            return
        assert there is not None
        assert number_in(still_of(open_clip, there).pixels) == number + 1
        back = frame_before(open_clip, open_clip.seconds(there.pts))
        assert back is not None
        assert (back.pts, number_in(still_of(open_clip, back).pixels)) == (stamp, number)


@FEW
@given(found=gaps, key_every=keys, count=st.integers(1, 40))
def test_the_strip_shows_real_frames_in_order_none_twice(found: list[int], key_every: int, count: int) -> None:
    stamps = stamps_of(found)
    with opened_clip(io.BytesIO(clip(stamps_ms=stamps, size=SMALL, key_every=key_every))) as open_clip:
        strip = filmstrip(open_clip, (stamps[-1] + 40) / 1000, count, height_px=48)
    moments = [still.seconds for still in strip]
    assert 1 <= len(strip) <= count
    assert moments == sorted(set(moments))
    for still in strip:
        assert still.pixels.shape == (48, 128, 4)
        assert still.seconds == pytest.approx(stamps[number_in(still.pixels)] / 1000, abs=1e-3)
