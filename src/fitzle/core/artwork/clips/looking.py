"""Looking through a clip: of each frame looked at, how sharp it is, its light, its colours, and itself made small.

Sharpness is the variance of the Laplacian (Pech-Pacheco et al. 2000). Short clips are read through, long ones looked
into at even distances. Each frame is scaled down once and kept as a JPEG, for finding the same frame again by its time
stamp costs fifty times as much as looking at it, and raw ones would take hundreds of megabytes.
"""

from __future__ import annotations

from collections.abc import Iterator
from itertools import islice
from typing import Any, NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.clips.frames import frames_from, upright
from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.artwork.sources import Pixels

READ_THROUGH_SECONDS = 75.0
LOOKS_A_SECOND = 6.0
WINDOWS, WINDOW_FRAMES = 60, 10  # of long clips: places looked into, and frames there
SMALL_PX = 640  # the longer side of what is kept of a frame: enough to tell eyes
JPEG_QUALITY = 92
SIGN_SIZE = (16, 9)  # a frame's colours at this size stand for it

Sign = NDArray[np.float32]


class Look(NamedTuple):
    """What is remembered of a frame: when it is shown, how sharp it is, its light and spread (0 to 1), its sign.

    `kept` is the frame made small, as it is seen, in a JPEG.
    """

    seconds: float
    sharpness: float
    light: float
    spread: float
    sign: Sign
    kept: bytes

    def pixels(self) -> Pixels:
        """The frame at `SMALL_PX`, upright, (h, w, 3)."""
        coded = np.frombuffer(self.kept, np.uint8)
        return np.asarray(cv2.imdecode(coded, cv2.IMREAD_COLOR_RGB), dtype=np.uint8)


def looks_at(clip: OpenClip, seconds: float) -> Iterator[Look]:
    """Looks at a clip of this length, in the order of time."""
    from av.video.reformatter import VideoReformatter

    scaler = VideoReformatter()  # kept for all frames: a new one works out its filters each time
    frames = _read_through(clip) if seconds <= READ_THROUGH_SECONDS else _windows(clip, seconds)
    for frame in frames:
        yield _look(clip, frame, _small(scaler, frame))


def _read_through(clip: OpenClip) -> Iterator[Any]:
    due = -1.0
    for frame in frames_from(clip, clip.start):
        if frame.pts is not None and clip.seconds(frame.pts) >= due:
            due = clip.seconds(frame.pts) + 1 / LOOKS_A_SECOND
            yield frame


def _windows(clip: OpenClip, seconds: float) -> Iterator[Any]:
    shown = -1
    for number in range(WINDOWS):
        moment = clip.stamp(seconds * (number + 0.5) / WINDOWS)
        for frame in islice(frames_from(clip, moment), WINDOW_FRAMES):
            if frame.pts is not None and frame.pts > shown:
                shown = frame.pts
                yield frame


def _small(scaler: Any, frame: Any) -> Pixels:
    scale = min(1.0, SMALL_PX / max(frame.width, frame.height))
    width, height = (max(16, round(side * scale)) for side in (frame.width, frame.height))
    small = scaler.reformat(frame, format="rgb24", width=width, height=height)
    return np.asarray(small.to_ndarray(), dtype=np.uint8)


def _look(clip: OpenClip, frame: Any, small: Pixels) -> Look:
    grey = cv2.cvtColor(small, cv2.COLOR_RGB2GRAY)
    sign = cv2.resize(small, SIGN_SIZE, interpolation=cv2.INTER_AREA).astype(np.float32) / np.float32(255)
    edges = cv2.Laplacian(cv2.GaussianBlur(grey, (3, 3), 0), cv2.CV_16S)
    _, sharpness = _mean_and_spread(edges)
    light, spread = _mean_and_spread(grey)
    return Look(clip.seconds(frame.pts), sharpness**2, light / 255, spread / 255, sign, _kept(clip, frame, small))


def _mean_and_spread(values: NDArray[Any]) -> tuple[float, float]:
    """Mean and standard deviation; OpenCV's takes a twentieth of the time of NumPy's."""
    mean, spread = cv2.meanStdDev(values)
    return float(mean[0, 0]), float(spread[0, 0])


def _kept(clip: OpenClip, frame: Any, small: Pixels) -> bytes:
    seen = cv2.cvtColor(upright(small, frame, clip), cv2.COLOR_RGB2BGR)
    return cv2.imencode(".jpg", seen, [cv2.IMWRITE_JPEG_QUALITY, JPEG_QUALITY])[1].tobytes()
