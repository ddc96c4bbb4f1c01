"""When the frames of a loop are shown, and for how long."""

from __future__ import annotations

from itertools import pairwise

MOST_FPS, MOST_FRAMES = 60.0, 1800


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
