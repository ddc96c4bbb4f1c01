"""A clip for the sample workspace: a lesson's opening, with a pan, somebody who blinks, a fade and a shaken camera."""

from __future__ import annotations

import io
from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray
from PIL import Image

from demo.people import GUEST, person, room, together
from demo.photos import PHOTOS, photo

WIDTH, HEIGHT, RATE = 960, 540, 25
SCENE_SECONDS, FADE_SECONDS = 3.0, 0.6
SECONDS = 9.0
PAN_PX = 130
BLINK_SECONDS, BLINK_EVERY = 0.2, 1.1
Frame = NDArray[np.uint8]


def lesson_clip() -> bytes:
    """The clip as an MP4 (H.264)."""
    import av

    scenes = [_wide("workbench.jpg"), None, _wide("dusk-ride.jpg")]
    guests = {eyes: _guest(eyes) for eyes in (True, False)}
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as container:
        stream: Any = container.add_stream("libx264", rate=RATE)
        stream.width, stream.height, stream.pix_fmt, stream.gop_size = WIDTH, HEIGHT, "yuv420p", RATE
        stream.options = {"preset": "veryfast", "crf": "23"}
        for number in range(round(SECONDS * RATE)):
            frame = _frame(number / RATE, scenes, guests)
            container.mux(stream.encode(av.VideoFrame.from_ndarray(frame, format="rgb24")))
        container.mux(stream.encode(None))
    return out.getvalue()


def guest_photo() -> bytes:
    """A portrait of the guest in a room."""
    picture = together(person(1600, 1200, GUEST), room(1600, 1200, seed=5))
    out = io.BytesIO()
    Image.fromarray(picture).convert("RGB").save(out, "JPEG", quality=90)
    return out.getvalue()


def _frame(at: float, scenes: list[Frame | None], guests: dict[bool, Frame]) -> Frame:
    number = min(int(at / SCENE_SECONDS), len(scenes) - 1)
    own = _scene(number, at - number * SCENE_SECONDS, scenes, guests)
    left = (number + 1) * SCENE_SECONDS - at
    if left >= FADE_SECONDS or number + 1 >= len(scenes):
        return own
    following = _scene(number + 1, -left, scenes, guests)
    return np.asarray(cv2.addWeighted(own, left / FADE_SECONDS, following, 1 - left / FADE_SECONDS, 0), np.uint8)


def _scene(number: int, within: float, scenes: list[Frame | None], guests: dict[bool, Frame]) -> Frame:
    wide = scenes[number]
    if wide is None:
        return guests[within % BLINK_EVERY > BLINK_SECONDS]
    share = min(1.0, max(0.0, within / SCENE_SECONDS))
    x = round(PAN_PX * share)
    frame = wide[:, x : x + WIDTH]
    shaken = 1.2 < within < 1.9
    return np.asarray(cv2.blur(frame, (23, 3)) if shaken else frame, dtype=np.uint8)


def _wide(name: str) -> Frame:
    with Image.open(io.BytesIO(photo(PHOTOS[name], seed=3))) as picture:
        wide = picture.convert("RGB").resize((WIDTH + PAN_PX, round((WIDTH + PAN_PX) * picture.height / picture.width)))
    return np.asarray(wide)[-HEIGHT:]


def _guest(eyes_open: bool) -> Frame:
    looks = GUEST._replace(eyes_open=eyes_open)
    return together(person(WIDTH, HEIGHT, looks, 0.42, 1.15), room(WIDTH, HEIGHT, seed=5))[..., :3]
