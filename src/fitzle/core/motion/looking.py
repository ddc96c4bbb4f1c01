"""How a moving file looks beside the frames that it was made of, and how smoothly they follow each other."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.straight import premultiplied, straight
from fitzle.core.encode.raster import Raster
from fitzle.core.motion.files import matted
from fitzle.core.motion.played import frames_at
from fitzle.core.motion.reel import Reel
from fitzle.core.units import Size

SCORED_FRAMES = 10
WORST_SHARE = 0.1
SMOOTHNESS_SHARE = 0.15  # of 100 points that a loop in which everything jumps loses
SMOOTH_STEP = 0.04  # of the diagonal from frame to frame: what is looked at is still followed
CHOPPY_FPS = 10.0  # below that even small steps are seen one by one
MOVED = 8  # of 255: what differs less stands still
FLOW_LONG_SIDE_PX, LEAST_FLOW_PX = 240, 96
STEPS_LOOKED_AT = 40
FASTEST_SHARE = 0.25  # of the steps, the largest ones: a loop may rest for most of its time


class Looks(NamedTuple):
    """SSIMULACRA2 over sampled frames: `mean`, and of the `worst` tenth; `smoothness` of 0 to 100."""

    mean: float
    worst: float
    smoothness: float

    @property
    def sharp(self) -> float:
        """What its frames look like: halfway between mean and worst."""
        return (self.mean + self.worst) / 2

    @property
    def score(self) -> float:
        """In one figure: what its frames look like, less what is lost to jumping."""
        return max(0.0, self.sharp - SMOOTHNESS_SHARE * (100 - self.smoothness))


def looks_of(
    data: bytes,
    reel: Reel,
    smoothness: float,
    ground: tuple[int, int, int] | None = None,
    most: int = SCORED_FRAMES,
    *,
    within: float = 0.5,
) -> Looks:
    """A file against the reel that it was made of; `ground` where its edges are mixed with one (GIF).

    It is looked at `within` its frames: in their middle, or where they begin (0) when it has no frames of its own; one
    of smaller frames as large as the reel is, as a page shows it.
    """
    numbers = reel.spread(most)
    moments = [(number + within) * reel.period / len(reel) for number in numbers]
    scores = sorted(
        Raster(_on(reel[number], ground)).score_of(_on(resized(shown, reel.size), ground))
        for number, shown in zip(numbers, frames_at(data, moments), strict=True)
    )
    lowest = scores[: math.ceil(len(scores) * WORST_SHARE)]
    return Looks(round(float(np.mean(scores)), 1), round(float(np.mean(lowest)), 1), smoothness)


def resized(pixels: Pixels, size: Size) -> Pixels:
    """At another size, straight alpha: smaller by area, larger between px, as browsers do."""
    import cv2

    if pixels.shape[:2] == (size.height, size.width):
        return pixels
    clear = pixels[..., 3].min() < 255  # then what is clear must not lend its colour to its neighbours
    way = cv2.INTER_AREA if size.width < pixels.shape[1] else cv2.INTER_LINEAR
    found = cv2.resize(premultiplied(pixels) if clear else pixels, size, interpolation=way)
    return straight(np.asarray(found, dtype=np.uint8)) if clear else np.asarray(found, dtype=np.uint8)


def largest_step(reel: Reel) -> float:
    """How far what moves fastest moves from frame to frame, in shares of the diagonal (dense flow, DIS)."""
    import cv2

    flow = cv2.DISOpticalFlow.create(cv2.DISOPTICAL_FLOW_PRESET_FAST)
    every = max(1, len(reel) // STEPS_LOOKED_AT)
    steps, diagonal = [], math.hypot(*_grey(reel[0]).shape)
    for one in range(0, len(reel) - 1, every):
        before, after = _roomy(_grey(reel[one])), _roomy(_grey(reel[one + 1]))
        moved = np.abs(before.astype(np.int16) - after) > MOVED
        if not moved.any():
            steps.append(0.0)
            continue
        length = np.linalg.norm(flow.calc(before, after, None), axis=2)
        steps.append(float(np.percentile(length[moved], 90)) / diagonal)
    fastest = sorted(steps)[-max(1, math.ceil(len(steps) * FASTEST_SHARE)) :] if steps else [0.0]
    return float(np.mean(fastest))


def smoothness_of(step: float, fps: float) -> float:
    """0 to 100 from the largest step between frames and how many there are in a second; still is smooth."""
    if step <= 0:
        return 100.0
    return round(100 * min(1.0, SMOOTH_STEP / step) * min(1.0, fps / CHOPPY_FPS), 1)


def differences(reel: Reel) -> list[float]:
    """Between each frame and the next, the first after the last, on average over px, of 255."""
    numbers = [*range(len(reel)), 0]
    return [
        float(np.abs(_grey(reel[one]).astype(np.int16) - _grey(reel[other])).mean()) for one, other in pairwise(numbers)
    ]


def _on(pixels: Pixels, ground: tuple[int, int, int] | None) -> Pixels:
    return pixels if ground is None else matted(pixels, ground)


def _roomy(grey: NDArray[np.uint8]) -> NDArray[np.uint8]:
    """With its edges repeated up to what dense flow needs: on smaller pictures OpenCV's ends the process."""
    import cv2

    height, width = grey.shape
    below, beside = max(0, LEAST_FLOW_PX - height), max(0, LEAST_FLOW_PX - width)
    return np.asarray(cv2.copyMakeBorder(grey, 0, below, 0, beside, cv2.BORDER_REPLICATE), dtype=np.uint8)


def _grey(pixels: Pixels) -> NDArray[np.uint8]:
    import cv2

    height, width = pixels.shape[:2]
    factor = min(1.0, FLOW_LONG_SIDE_PX / max(width, height))
    seen = pixels[..., :3].astype(np.float32) * (pixels[..., 3:] / 255) + 128 * (1 - pixels[..., 3:] / 255)
    grey = cv2.cvtColor(np.rint(seen).astype(np.uint8), cv2.COLOR_RGB2GRAY)
    small = cv2.resize(
        grey, (max(1, round(width * factor)), max(1, round(height * factor))), interpolation=cv2.INTER_AREA
    )
    return np.asarray(small, dtype=np.uint8)
