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
from fitzle.core.libvips import libvips
from fitzle.core.motion.files import animated_gif, animated_webp, apng
from fitzle.core.motion.frames import MOST_FRAMES, delays, frame_times, frames
from tests.core.test_motion import usual

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


def on(pixels: Pixels, ground: tuple[int, int, int] = (255, 255, 255)) -> np.ndarray:
    alpha = pixels[..., 3:] / 255
    return np.asarray(pixels[..., :3] * alpha + np.array(ground) * (1 - alpha))


def test_an_apng_is_the_frames_themselves() -> None:
    made = turning()
    data = apng(made, PERIOD)
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
    data = animated_gif(made, PERIOD, (255, 255, 255))
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
    data = animated_webp(made, PERIOD, 90)
    image = libvips().Image.webpload_buffer(data, n=-1)
    pages = np.asarray(image.numpy()).reshape(8, 48, 48, 4)
    assert sum(image.get("delay")) == 1000
    for mine, theirs in zip(made, pages, strict=True):
        assert np.abs(mine[..., 3].astype(int) - theirs[..., 3]).max() <= 2
        assert np.abs(on(mine) - on(theirs)).mean() < 3


def test_the_frames_of_a_piece_are_drawn_one_by_one() -> None:
    plan, motion, sources = usual()
    loop = list(frames(plan, motion, sources, 4, width_px=160))
    assert [frame.seconds for frame in loop] == frame_times(motion.period, 4) and len(loop) == 12
    assert {frame.pixels.shape for frame in loop} == {(90, 160, 4)}
    assert np.abs(loop[0].pixels.astype(int) - loop[6].pixels).max() > 60


def test_the_same_frames_give_the_same_bytes() -> None:
    made = turning(4)
    assert apng(made, 0.5) == apng(made, 0.5) and animated_webp(made, 0.5, 80) == animated_webp(made, 0.5, 80)
    assert animated_gif(made, 0.5, (0, 0, 0)) == animated_gif(made, 0.5, (0, 0, 0))
