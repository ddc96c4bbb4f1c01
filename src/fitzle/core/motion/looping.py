"""The part of a clip that closes best: its end looks like its beginning and goes the same way."""

from __future__ import annotations

import numpy as np

from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.motion.footage import Cut, Footage, footage_of, footage_of_clip
from fitzle.core.units import Size

LOOKED_AT_FPS = 12.5
LOOKED_AT_PX = Size(96, 96)
AROUND_S = 10.0  # of a clip: a better loop is looked for so far before and after the one that there is
LEAST_MOVEMENT = 0.5  # of 255, on average: of what stands still every part closes, and none is worth anything


def best_loop(data: bytes, name: str, cut: Cut, length: float) -> Cut:
    """The cut of so many seconds (of the loop) inside of `cut` with the least difference between the frame after its
    last one and its first, and between the movement there; of parts that close alike the one that moves most.

    Raises ValueOutOfRange where the cut is shorter than that.
    """
    whole = footage_of(data, name, cut._replace(closing="cut"), LOOKED_AT_PX, LOOKED_AT_FPS)
    return _closest(whole, name, cut, length)


def better_loop(clip: OpenClip, name: str, begin: float, end: float, seconds: float) -> Cut:
    """The part of an open clip that closes best, as long as the one from `begin` to `end` and near it.

    `seconds` is the clip's length. Raises ValueOutOfRange where there is no other part so long.
    """
    around = Cut(begin=max(0.0, begin - AROUND_S), end=min(seconds, end + AROUND_S))
    return _closest(footage_of_clip(clip, around, LOOKED_AT_PX, LOOKED_AT_FPS), name, around, end - begin)


def _closest(whole: Footage, name: str, cut: Cut, length: float) -> Cut:
    count = round(whole.period * LOOKED_AT_FPS)
    steps = round(length * LOOKED_AT_FPS)
    if not 2 <= steps < count - 1:
        raise ValueOutOfRange(
            f"there is no part of {length:g} s in {whole.period:.2f} s", advice="Ask for a shorter one.", subject=name
        )
    frames = np.stack([_grey(whole.at(number / LOOKED_AT_FPS).kept) for number in range(count)])
    moves = np.diff(frames, axis=0)
    moved = np.abs(moves).mean(axis=(1, 2))

    def badness(begin: int) -> tuple[float, float]:
        seam = float(np.abs(frames[begin + steps] - frames[begin]).mean())
        turn = float(np.abs(moves[begin + steps] - moves[begin]).mean())
        inside = float(moved[begin : begin + steps].mean())
        return round((seam + turn) / max(inside, LEAST_MOVEMENT), 3), -inside

    best = min(range(count - steps - 1), key=badness)
    begin = cut.begin + best / LOOKED_AT_FPS * cut.speed
    return cut._replace(begin=round(begin, 3), end=round(begin + length * cut.speed, 3))


def _grey(pixels: np.ndarray) -> np.ndarray:
    return np.asarray(pixels[..., :3].mean(axis=2), dtype=np.float32)
