"""A loop as frames: when each is shown, for how long, and its pixels, one after the other."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from itertools import pairwise
from typing import NamedTuple

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.motion.document import Motion
from fitzle.core.motion.timing import at
from fitzle.core.plan.placed import Plan
from fitzle.core.render.painting import paint

MOST_FPS, MOST_FRAMES = 60.0, 1800


class Frame(NamedTuple):
    """One frame: its pixels (h, w, 4), straight alpha, and the seconds of the loop at which it is shown."""

    pixels: Pixels
    seconds: float


def frame_times(period: float, fps: float) -> list[float]:
    """The moments of all frames: evenly spread, the first at 0, at most MOST_FRAMES of them."""
    count = max(1, min(MOST_FRAMES, round(period * min(fps, MOST_FPS))))
    return [period * number / count for number in range(count)]


def delays(period: float, count: int, per_second: int) -> list[int]:
    """For how long each of so many frames is shown, in steps of which a second has `per_second` (GIF: 100).

    What a frame loses to rounding the next one gets, so that the whole lasts exactly as long as the steps allow.
    """
    ends = [round(period * per_second * number / count) for number in range(count + 1)]
    return [end - begin for begin, end in pairwise(ends)]


def frames(
    plan: Plan, motion: Motion, sources: Mapping[str, Source], fps: float, width_px: int | None = None
) -> Iterator[Frame]:
    """All frames, drawn as they are asked for: no two are held at once."""
    for seconds in frame_times(motion.period, fps):
        yield Frame(paint(at(plan, motion, seconds), sources, width_px), seconds)
