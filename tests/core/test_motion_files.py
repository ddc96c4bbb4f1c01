"""Frames of a loop and files of them, read again by other libraries than wrote them."""

from __future__ import annotations

import io

import av
import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image, ImageSequence

from fitzle.core.artwork.sources import Pixels
from fitzle.core.formats import MOVING, Format
from fitzle.core.libvips import libvips
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.frames import MOST_FRAMES, delays, frame_times
from fitzle.core.motion.ladders import highest, settings_at
from fitzle.core.motion.reel import Reel

PERIOD = 1.0


@given(st.floats(0.1, 60), st.integers(1, 400), st.sampled_from([100, 1000]))
def test_delays_last_as_long_as_the_loop(period: float, count: int, steps: int) -> None:
    found = delays(period, count, steps)
    assert len(found) == count and sum(found) == round(period * steps)
    assert max(found) - min(found) <= 1, "no frame is longer than another by more than a step"


@given(st.floats(0.05, 60), st.floats(0.5, 500))
def test_frames_are_evenly_spread_and_bounded(period: float, fps: float) -> None:
    found = frame_times(period, fps)
    assert found[0] == 0 and found[-1] < period and 1 <= len(found) <= MOST_FRAMES
    assert np.allclose(np.diff([*found, period]), period / len(found))


def turning(count: int = 8, side: int = 48) -> list[Pixels]:
    """A bar that goes around, on a clear ground."""
    made = []
    for number in range(count):
        picture = Image.new("RGBA", (side, side))
        bar = Image.new("RGBA", (side // 2, 6), (180, 84, 26, 255)).rotate(360 * number / count, expand=True)
        picture.paste(bar, ((side - bar.width) // 2, (side - bar.height) // 2), bar)
        made.append(np.asarray(picture))
    return made


def made_file(fmt: Format, made: list[Pixels]) -> bytes:
    """As good as the format gets."""
    return moving_file(fmt, Reel(made, PERIOD), settings_at(fmt, highest(fmt), len(made)), Playing())


def on(pixels: Pixels, ground: tuple[int, int, int] = (255, 255, 255)) -> np.ndarray:
    alpha = pixels[..., 3:] / 255
    return np.asarray(pixels[..., :3] * alpha + np.array(ground) * (1 - alpha))


def test_an_apng_is_the_frames_themselves() -> None:
    made = turning()
    data = made_file("apng", made)
    with Image.open(io.BytesIO(data)) as picture:
        assert picture.n_frames == 8 and picture.info["loop"] == 0
    with av.open(io.BytesIO(data), format="apng") as container:
        seen = [frame.to_ndarray(format="rgba") for frame in container.decode(video=0)]
        lasts = float(container.streams.video[0].average_rate or 0)
    assert len(seen) == 8 and lasts == pytest.approx(8, rel=0.02)
    for mine, theirs in zip(made, seen, strict=True):
        assert np.abs(on(mine) - on(theirs)).max() <= 1


def test_a_gif_keeps_its_delays_its_shape_and_its_colours() -> None:
    made = turning()
    data = made_file("gif", made)
    with Image.open(io.BytesIO(data)) as picture:
        assert picture.n_frames == 8 and picture.info["loop"] == 0
        shown = [np.asarray(frame.convert("RGBA")) for frame in ImageSequence.Iterator(picture)]
        lasts = sum(frame.info["duration"] for frame in ImageSequence.Iterator(picture))
    assert lasts == 1000
    for mine, theirs in zip(made, shown, strict=True):
        there = mine[..., 3] >= 128
        assert np.array_equal(there, theirs[..., 3] > 0), "nothing of the frame before shows through"
        assert np.abs(on(mine)[there] - theirs[..., :3][there]).mean() < 6


def test_a_webp_keeps_alpha_and_looks() -> None:
    made = turning()
    data = made_file("webp", made)
    image = libvips().Image.webpload_buffer(data, n=-1)
    pages = np.asarray(image.numpy()).reshape(8, 48, 48, 4)
    assert sum(image.get("delay")) == 1000
    for mine, theirs in zip(made, pages, strict=True):
        assert np.abs(mine[..., 3].astype(int) - theirs[..., 3]).max() <= 2
        assert np.abs(on(mine) - on(theirs)).mean() < 3


def test_the_same_frames_give_the_same_bytes() -> None:
    for fmt in MOVING:
        one, other = (made_file(fmt, turning(4)) for _ in range(2))
        assert one == other
