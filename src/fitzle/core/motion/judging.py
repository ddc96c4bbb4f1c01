"""The figures that rules about moving pictures go by, measured on the frames."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.result import MovingReading, ReadingTime
from fitzle.core.motion.choreography import SECONDS_A_WORD, SECONDS_TO_FIND
from fitzle.core.motion.document import Motion
from fitzle.core.motion.looking import largest_step
from fitzle.core.motion.reel import Reel
from fitzle.core.plan.placed import PlacedWords, Plan

# WCAG 2.2, success criterion 2.3.1 and the definition of "general flash and red flash threshold".
GENERAL_CHANGE, DARKER_BELOW = 0.1, 0.8  # of relative luminance
RED_CHANGE, SATURATED_RED = 20.0, 0.8
FIELD_PX = 341 * 256  # ten degrees of sight at the usual distance; a quarter of it may flash
FIELD_SHARE = 0.25
LOOKED_AT_PX = 64  # of the long side: what flashes over a quarter of the field is seen in that
_GREY = 128.0


def moving_reading(reel: Reel, plan: Plan | None = None, motion: Motion | None = None) -> MovingReading:
    """All figures of a loop; with its plan and motion also for how long its words can be read."""
    small = np.stack([_small(pixels) for pixels in reel])
    linear = np.where(small <= 0.04045, small / 12.92, ((small + 0.055) / 1.055) ** 2.4)
    area = reel.size.width * reel.size.height / (small.shape[1] * small.shape[2])
    return MovingReading(
        seconds=round(reel.period, 3),
        frames=len(reel),
        flashes=_most_in_a_second(_general(linear), area, reel.fps),
        red_flashes=_most_in_a_second(_red(linear), area, reel.fps),
        first_frame=_first_frame(reel),
        step=round(largest_step(reel), 4),
        reading=_reading(plan, motion) if plan and motion else (),
    )


class _Signal(NamedTuple):
    """What may flash, frame by frame (n, h, w): its value, the change that counts, and where a change may count."""

    value: NDArray[np.float64]
    change: float
    counts: NDArray[np.bool_]


def _general(linear: NDArray[np.float64]) -> _Signal:
    luminance = linear @ np.array([0.2126, 0.7152, 0.0722])
    return _Signal(luminance, GENERAL_CHANGE, luminance < DARKER_BELOW)


def _red(linear: NDArray[np.float64]) -> _Signal:
    red, others = linear[..., 0], linear[..., 1] + linear[..., 2]
    saturated = red / np.maximum(red + others, 1e-6) >= SATURATED_RED
    return _Signal(np.maximum(red - others, 0) * 320, RED_CHANGE, saturated)


def _most_in_a_second(signal: _Signal, area_px: float, fps: float) -> float:
    """The most flashes in any second of the loop that goes round: a flash is a change and one back again."""
    events = _changes(signal, area_px)
    count = len(signal.value)
    window = max(1, round(fps))
    most = 0
    for begin in range(count):
        inside = [sign for at, sign in events if begin <= at < begin + window]
        most = max(most, _turns(inside))
    return most / 2


def _changes(signal: _Signal, area_px: float) -> list[tuple[int, int]]:
    """When enough of the picture at once has become lighter (1) or darker (-1), over two rounds of the loop.

    A px counts once it has changed enough in one direction, however many frames that took.
    """
    enough = FIELD_SHARE * FIELD_PX / area_px
    frames = len(signal.value)
    reached = np.zeros(signal.value.shape[1:])
    counted = np.zeros(signal.value.shape[1:], np.int8)
    found: list[tuple[int, int]] = []
    for at in range(1, 2 * frames):
        before, now = (at - 1) % frames, at % frames
        change = signal.value[now] - signal.value[before]
        reached = np.where(np.sign(change) * np.sign(reached) < 0, change, reached + change)
        may = signal.counts[now] | signal.counts[before]
        for sign in (1, -1):
            new = (sign * reached >= signal.change) & may & (counted != sign)
            if new.sum() >= enough:
                found.append((at, sign))
            counted[new] = sign
    return found


def _turns(signs: Sequence[int]) -> int:
    """How many changes remain when those in the same direction one after the other count as one."""
    return sum(1 for index, sign in enumerate(signs) if index == 0 or signs[index - 1] != sign)


def _small(pixels: Pixels) -> NDArray[np.float64]:
    import cv2

    height, width = pixels.shape[:2]
    factor = min(1.0, LOOKED_AT_PX / max(width, height))
    alpha = pixels[..., 3:].astype(np.float32) / 255
    seen = pixels[..., :3] * alpha + _GREY * (1 - alpha)
    size = (max(1, round(width * factor)), max(1, round(height * factor)))
    return np.asarray(cv2.resize(seen, size, interpolation=cv2.INTER_AREA), dtype=np.float64) / 255


def _first_frame(reel: Reel) -> float:
    """How much the first frame shows of what the fullest one does: contours, as a share."""
    shown = [_contours(reel[number]) for number in reel.spread(40)]
    return round(shown[0] / max(shown), 3) if max(shown) > 0 else 1.0


def _contours(pixels: Pixels) -> float:
    small = _small(pixels)
    return float(np.abs(np.diff(small, axis=0)).sum() + np.abs(np.diff(small, axis=1)).sum())


def _reading(plan: Plan, motion: Motion) -> tuple[ReadingTime, ...]:
    found = []
    for part in plan.parts:
        if not isinstance(part, PlacedWords):
            continue
        own = motion.parts.get(part.part)
        begin = own.come.start + own.come.length if own and own.come else 0.0
        end = own.go.start if own and own.go else motion.period
        count = len(" ".join(part.layout.lines).split())
        needed = SECONDS_TO_FIND + SECONDS_A_WORD * count
        words = " ".join(part.layout.lines)
        found.append(ReadingTime(part=part.part, words=words, there=round(end - begin, 2), needed=round(needed, 2)))
    return tuple(found)
