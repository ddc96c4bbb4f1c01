"""Stills that are proposed: each scene once, sharp, not amid a fade, with open eyes."""

import io
from collections.abc import Callable
from typing import Any

import av
import cv2
import numpy as np
import pytest
from demo.people import Looks, person, room, together

from fitzle.core.artwork.clips.opening import opened_clip
from fitzle.core.artwork.clips.proposing import Proposal, proposed_stills
from fitzle.core.artwork.sources import Pixels
from tests.make import photo

SIZE = (320, 180)
RATE = 25


def written(seconds: float, draw: Callable[[float], np.ndarray], size: tuple[int, int] = SIZE) -> bytes:
    """A clip whose frame at each moment is drawn by a function of the seconds."""
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as container:
        stream: Any = container.add_stream("libx264", rate=RATE)
        stream.width, stream.height = size
        stream.pix_fmt, stream.gop_size, stream.options = "yuv420p", 50, {"preset": "ultrafast", "crf": "18"}
        for number in range(round(seconds * RATE)):
            container.mux(stream.encode(av.VideoFrame.from_ndarray(draw(number / RATE), format="rgb24")))
        container.mux(stream.encode(None))
    return out.getvalue()


def proposals(data: bytes, seconds: float) -> list[Proposal]:
    with opened_clip(io.BytesIO(data)) as clip:
        return proposed_stills(clip, seconds)


def scene(number: int) -> np.ndarray:
    """A picture with texture and colours of its own."""
    rng = np.random.default_rng(number)
    tint = rng.uniform(0.25, 1.0, 3)
    picture = np.asarray(photo(*SIZE, seed=100 + number)).astype(float) * tint
    picture[20:160:8, 20:300] = rng.uniform(0, 255, 3)
    return np.clip(picture, 0, 255).astype(np.uint8)


SCENES = [scene(number) for number in range(6)]
LONG = 2.0  # seconds of a scene


def test_each_scene_gives_its_sharpest_frame() -> None:
    """In the second half of each scene the camera shakes; no still is taken there."""

    def draw(at: float) -> np.ndarray:
        picture = SCENES[int(at / LONG)]
        return np.asarray(cv2.blur(picture, (15, 1)) if at % LONG > LONG / 2 else picture)

    found = proposals(written(LONG * len(SCENES), draw), LONG * len(SCENES))
    assert {int(one.seconds / LONG) for one in found} == set(range(len(SCENES)))
    assert len(found) <= 12
    blurred = [one for one in found if one.seconds % LONG > LONG / 2 + 0.05]
    assert len(blurred) <= len(found) - len(SCENES)
    assert all(one.eyes is None for one in found)


def test_nothing_is_proposed_amid_a_fade() -> None:
    """Scenes of 2 s that melt into one another over 1.2 s."""
    melt = 1.2

    def draw(at: float) -> np.ndarray:
        number, within = int(at / LONG), at % LONG
        if within < LONG - melt or number + 1 >= len(SCENES):
            return SCENES[number]
        share = (within - (LONG - melt)) / melt
        return np.asarray(SCENES[number] * (1 - share) + SCENES[number + 1] * share).astype(np.uint8)

    found = proposals(written(LONG * len(SCENES), draw), LONG * len(SCENES))
    assert len(found) >= len(SCENES) - 1
    amid = [one for one in found if LONG - melt + 0.1 < one.seconds % LONG < LONG - 0.1 and one.seconds < LONG * 5]
    assert amid == []


@pytest.mark.parametrize("level", [0, 255])
def test_black_and_white_frames_are_left_out(level: int) -> None:
    def draw(at: float) -> np.ndarray:
        empty = np.full((SIZE[1], SIZE[0], 3), level, np.uint8)
        return SCENES[0] if 1 <= at < 2 else empty

    assert all(1 <= one.seconds < 2 for one in proposals(written(3, draw), 3))


def portrait(eyes_open: bool) -> Pixels:
    return together(person(640, 360, Looks(eyes_open=eyes_open), 0.5, 1.2), room(640, 360))[..., :3]


def test_open_eyes_are_preferred_to_closed_ones() -> None:
    """Somebody who blinks: eyes are open for 0.4 of every 0.9 seconds."""
    pictures = {eyes: portrait(eyes) for eyes in (True, False)}

    def draw(at: float) -> np.ndarray:
        return np.ascontiguousarray(pictures[at % 0.9 > 0.5])

    found = proposals(written(3.6, draw, (640, 360)), 3.6)
    assert found
    assert sum(one.eyes is True for one in found) >= len(found) * 0.75


def test_a_long_clip_is_looked_into_at_even_distances() -> None:
    found = proposals(written(90, lambda at: SCENES[int(at / 15)]), 90)
    assert {int(one.seconds / 15) for one in found} == set(range(len(SCENES)))


def test_a_clip_of_one_frame_gives_that_one() -> None:
    assert [one.seconds for one in proposals(written(1 / RATE, lambda _: SCENES[0]), 1 / RATE)] == [0]
