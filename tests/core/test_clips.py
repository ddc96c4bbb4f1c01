"""Clips: what they are, exact frames by time, the strip; and what bad ones are told."""

import io
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import pytest

from fitzle.core.artwork.clips.filmstrip import filmstrip
from fitzle.core.artwork.clips.frames import frame_at, frame_before, next_frame, still_of
from fitzle.core.artwork.clips.opening import opened_clip
from fitzle.core.artwork.inspecting import inspected
from fitzle.core.artwork.limits import Limits
from fitzle.core.errors import ArtworkError, LimitError
from tests.clips import clip, frame_picture, number_in, sound_alone, turned

UNEVEN = [0, 40, 52, 200, 201, 400, 900, 1000, 1033]
FAST = {"deadline": "realtime", "cpu-used": "8"}
CLIPS = {
    "mp4": clip(),
    "mov": clip("mov", "prores_ks", pixels="yuv422p10le"),
    "webm": clip("webm", "libvpx-vp9", **FAST),
    "mkv": clip("matroska", "libx264", pixels="yuv420p10le"),
    "uneven": clip(stamps_ms=UNEVEN),
}


def facts_of(data: bytes, name: str = "clip.bin", **limits: Any) -> Any:
    return inspected(io.BytesIO(data), name, Limits(**limits))


@pytest.mark.parametrize(("name", "fmt"), [("mp4", "mp4"), ("mov", "mov"), ("webm", "webm"), ("mkv", "mkv")])
def test_a_clip_is_known_by_its_contents(name: str, fmt: str) -> None:
    facts = facts_of(CLIPS[name])
    assert (facts.kind, facts.format, facts.width, facts.height) == ("clip", fmt, 256, 144)
    assert facts.seconds == pytest.approx(2.0, abs=0.05)
    assert facts.fps == pytest.approx(25, abs=0.6)
    assert (facts.rotation, facts.has_alpha, facts.vector) == (0, False, False)


@pytest.mark.parametrize(
    ("seconds", "number"),
    [(0, 0), (0.039, 0), (0.04, 1), (0.0519, 1), (0.052, 2), (0.3, 3 + 1), (0.4, 5), (0.95, 6), (1.2, 8), (9e3, 8)],
)
def test_the_frame_is_the_one_that_is_shown_at_that_moment(seconds: float, number: int) -> None:
    """Rates vary: a frame stays until the next one begins, however long that takes."""
    with opened_clip(io.BytesIO(CLIPS["uneven"])) as open_clip:
        still = still_of(open_clip, frame_at(open_clip, seconds))
    assert number_in(still.pixels) == number
    assert still.seconds == pytest.approx(UNEVEN[number] / 1000, abs=1e-3)


@pytest.mark.parametrize("name", CLIPS)
def test_stepping_goes_through_every_frame_and_back(name: str) -> None:
    with opened_clip(io.BytesIO(CLIPS[name])) as open_clip:
        there, frame = [0], frame_at(open_clip, 0)
        while (frame := next_frame(open_clip, open_clip.seconds(frame.pts))) is not None:
            there.append(number_in(still_of(open_clip, frame).pixels))
        last = frame_at(open_clip, 1e6)
        back = [there[-1]]
        while (last := frame_before(open_clip, open_clip.seconds(last.pts))) is not None:
            back.append(number_in(still_of(open_clip, last).pixels))
    assert there == list(range(len(there))) and len(there) in (9, 50)
    assert back == there[::-1]


@pytest.mark.parametrize(("turns", "size"), [(1, (144, 256)), (2, (256, 144)), (3, (144, 256))])
def test_a_turned_clip_is_shown_upright(turns: int, size: tuple[int, int]) -> None:
    data = turned(CLIPS["mp4"], turns)
    facts = facts_of(data)
    assert (facts.width, facts.height, facts.rotation) == (*size, 90 * turns)
    assert "upright" in facts.warnings[0]
    with opened_clip(io.BytesIO(data)) as open_clip:
        pixels = still_of(open_clip, frame_at(open_clip, 1.0)).pixels
    assert number_in(np.rot90(pixels, turns)) == 25, "turned back it is the frame as it was kept"


def test_transparency_is_found_in_prores_and_webm() -> None:
    for data in (
        clip("mov", "prores_ks", pixels="yuva444p10le", profile="4444"),
        clip("mov", "qtrle", pixels="argb"),
    ):
        assert facts_of(data).has_alpha


def test_the_strip_has_distinct_moments_in_order_over_the_whole_length() -> None:
    with opened_clip(io.BytesIO(CLIPS["mp4"])) as open_clip:
        strip = filmstrip(open_clip, 2.0)
        assert filmstrip(open_clip, 2.0)[5].seconds == strip[5].seconds, "the clip can be used again"
    moments = [still.seconds for still in strip]
    assert len(strip) == 40 and moments == sorted(set(moments))
    assert (moments[0], moments[-1]) == (pytest.approx(0, abs=0.05), pytest.approx(1.96, abs=0.05))
    assert {still.pixels.shape for still in strip} == {(90, 160, 4)}


def test_the_strip_of_a_long_clip_is_made_of_key_frames() -> None:
    stamps = list(range(0, 120_000, 250))
    with opened_clip(io.BytesIO(clip(stamps_ms=stamps, key_every=8, **{"x264-params": "scenecut=0"}))) as open_clip:
        strip = filmstrip(open_clip, 120.0)
    assert len(strip) == 40
    assert all(round(still.seconds * 1000) % 2000 == 0 for still in strip)


def test_a_clip_that_states_no_length_is_measured() -> None:
    """A recording that was streamed has no length in its head."""
    data = clip("webm", "libvpx", written={"live": "1"}, **FAST)
    assert facts_of(data).seconds == pytest.approx(2.0, abs=0.1)


def test_a_clip_written_by_opencv_is_read(tmp_path: Path) -> None:
    """Its own copy of FFmpeg and the old MPEG-4 codec."""
    path = tmp_path / "other.mp4"
    writer = cv2.VideoWriter(str(path), cv2.VideoWriter.fourcc(*"mp4v"), 12.5, (256, 144))
    for number in range(25):
        writer.write(np.ascontiguousarray(frame_picture(number, (256, 144))[..., ::-1]))
    writer.release()
    facts = facts_of(path.read_bytes())
    assert (facts.format, facts.width, facts.height, facts.fps) == ("mp4", 256, 144, 12.5)
    assert facts.seconds == pytest.approx(2.0, abs=0.05)
    with path.open("rb") as file, opened_clip(file) as open_clip:
        assert number_in(still_of(open_clip, frame_at(open_clip, 1.0)).pixels) in (12, 13)


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (sound_alone(), "only sound"),
        (CLIPS["mp4"][:200], "damaged"),
        (CLIPS["mp4"][: len(CLIPS["mp4"]) // 2], "damaged"),
        (CLIPS["webm"][:60], "damaged"),
        (b"\x00\x00\x00\x18ftypmp42" + b"\x00" * 500, "damaged"),
        (b"\x1a\x45\xdf\xa3" + b"webm" * 40, "damaged"),
    ],
)
def test_bad_clips_are_told_what_is_wrong(data: bytes, words: str) -> None:
    with pytest.raises(ArtworkError, match=words) as caught:
        facts_of(data, "holiday.mp4")
    assert caught.value.message.startswith("holiday.mp4: ")


def test_clips_that_are_too_long_or_too_large_are_not_read() -> None:
    with pytest.raises(LimitError, match="too long"):
        facts_of(CLIPS["mp4"], max_seconds=1)
    with pytest.raises(LimitError, match="256 x 144"):
        facts_of(CLIPS["mp4"], max_pixels=1000)
