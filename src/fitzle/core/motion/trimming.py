"""What a part of a clip weighs as the moving file of a place: foreseen from its moments while it is trimmed, or made.

Both are at the settings and the frame rate at which such files look well, so that a limit tells what is too long.
"""

from __future__ import annotations

import math
from collections import deque
from collections.abc import Iterator
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.clips.frames import still_of
from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.straight import straight
from fitzle.core.errors import ArtworkError
from fitzle.core.formats import MOVING, Format, holds_size
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.footage import LONGEST_FADE_S, SMOOTH_SHARE, Cut, FrameSource, footage_of_clip
from fitzle.core.motion.frame_bytes import frame_bytes
from fitzle.core.motion.ladders import highest, settings_at
from fitzle.core.motion.looking import grey_of
from fitzle.core.motion.played import clip_frames
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.weighing import QUICK
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size

FPS = 12.5
WELL = 0.85  # of the way up the ladder of settings
SPAN_S = 12.0  # of a clip that is looked at together: the part around a cut, not hours
MOST_RUNS, FEWEST_RUNS, RUN_PIXELS = 16, 8, 2_000_000
STILL, CODEC_NOISE, SEEN_CHANGE = 0.02, 3, 24  # of 255
RUN, VIDEO_RUN = 4, 5  # frames that follow each other: now and then a clip's own key frame changes more than movement
CENTRE = Point(0.5, 0.5)
EXACT = ("apng",)  # formats that keep the noise of a clip too

Grey = NDArray[np.uint8]


class Trimmed(NamedTuple):
    """What a clip of a `natural` size is made as: a file's format, its size in px and frames a second."""

    natural: Size
    format: Format
    size: Size
    fps: float

    @property
    def window(self) -> Rect:
        """What is seen of the clip, in its own px."""
        return fill_window(Rect(0, 0, *self.natural), self.size.ratio, CENTRE)


class Moment(NamedTuple):
    """A moment of a clip: what a frame weighs there by itself, and what the next one adds to it, in bytes."""

    seconds: float
    alone: int
    added: int


def trimmed_for(sheet: SpecSheet, natural: Size, fps: float) -> Trimmed | None:
    """What a clip of a size and frame rate becomes in a place; None where the place takes nothing made of frames."""
    size = delivered_size(sheet, natural, vector=False)
    made = [fmt for fmt in sheet.formats if fmt in MOVING and holds_size(fmt, *size)]
    if not made or not sheet.motion.allowed:
        return None
    return Trimmed(natural, made[0], size, min(FPS, fps, sheet.motion.max_fps or FPS))


def span_of(seconds: float) -> float:
    """Where the span begins that a moment of a clip belongs to."""
    return math.floor(seconds / SPAN_S) * SPAN_S


def moments_of(clip: OpenClip, begin: float, length: float, made: Trimmed) -> list[Moment]:
    """All frames of one span of a clip of `length` seconds, some of them weighed and the others by what changes."""
    end = min(length, begin + SPAN_S)
    times = [begin + number / made.fps for number in range(max(2, math.ceil((end - begin) * made.fps)))]
    long = VIDEO_RUN if made.format in QUICK else RUN
    most = max(FEWEST_RUNS, min(MOST_RUNS, RUN_PIXELS // (made.size.width * made.size.height)))
    starts = sorted({round(at) for at in np.linspace(0, max(0, len(times) - long), most)})
    changes, weighed, run = [0.0], {}, deque[Pixels](maxlen=long)
    before: Grey | None = None
    for at, frame in enumerate(_frames(clip, times, made)):
        small = grey_of(frame)
        changes += [_change(before, small)] if before is not None else []
        before = small
        run.append(frame)
        if at + 1 >= len(run) and (start := at + 1 - len(run)) in starts and len(run) == min(long, len(times)):
            weighed[start] = _weighed(list(run), made)
    if not weighed:
        raise ArtworkError("there is no picture in this part", advice="Choose another part.")
    return _spread(times, changes, weighed, made)


def _spread(
    times: list[float], changes: list[float], weighed: dict[int, tuple[int, float]], made: Trimmed
) -> list[Moment]:
    """What each frame adds: as much for what changes as the runs around it; where noise weighs too, as much as they."""
    starts, long = sorted(weighed), VIDEO_RUN if made.format in QUICK else RUN
    numbers = np.arange(len(changes))
    added = np.array([weighed[start][1] for start in starts])
    alone = np.interp(numbers, starts, [weighed[start][0] for start in starts])
    if made.format in EXACT:
        each = np.interp(numbers, starts, added)
    else:
        changed = np.array([np.mean(changes[start + 1 : start + long] or [0.0]) for start in starts])
        moving = changed > STILL
        rates = added[moving] / changed[moving] if moving.any() else np.zeros(1)
        rate = np.interp(numbers, np.array(starts)[moving] if moving.any() else [0], rates)
        each = np.minimum(rate * np.asarray(changes), max(*alone, *added))
    found = zip(times, alone, each, strict=False)
    return [Moment(round(time, 3), round(one), round(more)) for time, one, more in found]


def _weighed(frames: list[Pixels], made: Trimmed) -> tuple[int, float]:
    """The bytes of the first frame alone, and of each later one on average."""
    whole = _file(Reel(frames, len(frames) / made.fps), made)
    if made.format in QUICK:
        alone = len(_file(Reel(frames[:1], 1 / made.fps), made))
    else:
        alone = len(whole) - sum(frame_bytes(whole, made.format)[1:])
    return alone, max(0.0, (len(whole) - alone) / max(1, len(frames) - 1))


def _change(before: Grey, after: Grey) -> float:
    """How much of a picture changes: the mean of what differs by more than codecs do, at most SEEN_CHANGE a px."""
    differs = np.abs(before.astype(np.int16) - after)
    return float(np.minimum(np.where(differs > CODEC_NOISE, differs, 0), SEEN_CHANGE).mean())


def foreseen(moments: list[Moment], cut: Cut, made: Trimmed) -> int:
    """The bytes of the file of a cut, by moments of all spans that it touches, in rising order."""
    begin, end = cut.begin, cut.end if cut.end is not None else moments[-1].seconds
    count = _frame_count(begin, end, cut, made)
    times = begin + (end - begin) * np.arange(count) / count
    at = [one.seconds for one in moments]
    alone = float(np.interp(begin, at, [one.alone for one in moments]))
    added = np.interp(times[1:], at, [one.added for one in moments]).sum()
    return round(alone + float(added))


def measured(clip: OpenClip, cut: Cut, made: Trimmed) -> int:
    """The bytes of the file of a cut, made."""
    footage = footage_of_clip(clip, cut, made.size, made.fps)
    count = max(2, round(footage.period * made.fps))
    moments = (footage.begin + footage.period * number / count for number in range(count))
    return len(_file(Reel((_shown(footage.at(one), made) for one in moments), footage.period), made))


def _frame_count(begin: float, end: float, cut: Cut, made: Trimmed) -> int:
    length = (end - begin) / cut.speed
    if cut.closing == "back":
        length *= 2
    elif cut.closing == "smooth":
        length -= min(length * SMOOTH_SHARE, LONGEST_FADE_S)
    return max(2, round(length * made.fps))


def _frames(clip: OpenClip, times: list[float], made: Trimmed) -> Iterator[Pixels]:
    for frame in clip_frames(clip, times):
        yield _shown(FrameSource(still_of(clip, frame).pixels, made.natural), made)


def _shown(frame: FrameSource, made: Trimmed) -> Pixels:
    return straight(frame.pixels(made.window, made.size))


def _file(reel: Reel, made: Trimmed) -> bytes:
    settings = settings_at(made.format, round(WELL * highest(made.format)), made.fps)
    return moving_file(made.format, reel, settings, Playing())
