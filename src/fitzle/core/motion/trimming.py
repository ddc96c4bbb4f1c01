"""What a part of a clip weighs as the moving file of a place: foreseen from its moments while it is trimmed, or made.

Both are at the settings and the frame rate at which such files look well, so that a limit tells what is too long.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

import numpy as np

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
from fitzle.core.motion.played import clip_frames
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.weighing import QUICK
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.spec.sizing import delivered_size
from fitzle.core.units import Size

FPS = 12.5
WELL = 0.85  # of the way up the ladder of settings
SPAN_S = 4.0  # of a clip that is looked at together: the part around a cut, not hours
RUN = 4  # frames that are weighed together
WEIGHED_PIXELS = 48_000  # of a frame; larger ones are weighed smaller
MADE_PIXELS = 4_000_000  # of all frames that are encoded together: a drawing has some seconds
GIVING_WAY = 0.6  # of a whole frame: what each frame of a fade adds at least
CENTRE = Point(0.5, 0.5)


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
    alone: float
    added: float


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


def spans_of(cut: Cut) -> list[float]:
    """Where the spans begin that a cut with an end touches."""
    first, end = span_of(cut.begin), cut.end or 0.0
    return [first + number * SPAN_S for number in range(max(0, math.ceil((end - first) / SPAN_S)))]


def moments_of(clip: OpenClip, begin: float, length: float, made: Trimmed) -> list[Moment]:
    """The frames of one span of a clip of `length` seconds, weighed as they follow each other.

    Larger ones are weighed smaller; what they weigh at their own size two of them tell, where most changes.
    """
    end = min(length, begin + SPAN_S)
    times = [begin + number / made.fps for number in range(max(2, math.ceil((end - begin) * made.fps)))]
    small, found = _smaller(made), list[Moment]()
    run: list[Pixels] = []
    for time, frame in zip(times, _frames(clip, times, small), strict=False):
        run.append(frame)
        if len(run) == RUN:
            found += _moments(time, run, small)
            run = run[-1:]
    if len(run) > 1 or not found:
        found += _moments(times[-1], run, small)
    if not found:
        raise ArtworkError("there is no picture in this part", advice="Choose another part.")
    return _at_full_size(clip, found, small, made)


def _moments(last: float, run: list[Pixels], made: Trimmed) -> list[Moment]:
    """All but the last frame of a run that ends at a moment."""
    if not run:
        return []
    alone, added = _weighed(run, made)
    count = max(1, len(run) - 1)
    return [Moment(round(last - (count - number) / made.fps, 3), alone, added) for number in range(count)]


def _at_full_size(clip: OpenClip, found: list[Moment], small: Trimmed, made: Trimmed) -> list[Moment]:
    if small == made:
        return found
    busiest = max(found, key=lambda one: one.added).seconds
    pairs = (list(_frames(clip, [busiest, busiest + 1 / made.fps], size)) for size in (small, made))
    (alone, added), (full_alone, full_added) = (
        _weighed(pair, size) for pair, size in zip(pairs, (small, made), strict=True)
    )
    more, more_added = full_alone / max(1.0, alone), full_added / added if added else 1.0
    return [Moment(one.seconds, one.alone * more, one.added * more_added) for one in found]


def _smaller(made: Trimmed) -> Trimmed:
    factor = min(1.0, math.sqrt(WEIGHED_PIXELS / (made.size.width * made.size.height)))
    if factor == 1.0:
        return made
    return made._replace(size=Size(*(2 * max(4, round(side * factor / 2)) for side in made.size)))


def _weighed(frames: list[Pixels], made: Trimmed) -> tuple[float, float]:
    """The bytes of the first frame alone, and of each later one on average."""
    whole = _file(Reel(frames, len(frames) / made.fps), made)
    if made.format in QUICK:
        alone = len(_file(Reel(frames[:1], 1 / made.fps), made))
    else:
        alone = len(whole) - sum(frame_bytes(whole, made.format)[1:])
    return float(alone), max(0.0, (len(whole) - alone) / max(1, len(frames) - 1))


def foreseen(moments: list[Moment], cut: Cut, made: Trimmed) -> int:
    """The bytes of the file of a cut, by moments of all spans that it touches, in rising order."""
    begin, end = cut.begin, cut.end if cut.end is not None else moments[-1].seconds
    count = _frame_count(begin, end, cut, made)
    at = [one.seconds for one in moments]
    alone, added = [one.alone for one in moments], [one.added for one in moments]
    if cut.closing == "back":
        times = np.concatenate([np.linspace(begin, end, count // 2 + 1), np.linspace(end, begin, count - count // 2)])
        return round(float(np.interp(begin, at, alone) + np.interp(times[1:count], at, added).sum()))
    times = begin + np.arange(count) / made.fps * cut.speed
    each = np.interp(times, at, added)
    fade = _fade(begin, end, cut)
    if fade:  # two pictures change, and one gives way to the other
        both = each + np.interp(times + (end - begin) - fade * cut.speed, at, added)
        apart = float(each.sum())  # pictures between which nothing changes are the same
        giving_way = np.maximum(both, np.minimum(GIVING_WAY * np.interp(times, at, alone), apart))
        each = np.where(times - begin < fade * cut.speed, np.minimum(giving_way, max(alone)), each)
    return round(float(np.interp(begin, at, alone)) + float(each[1:].sum()))


def parts_of(cut: Cut, length: float, made: Trimmed) -> int:
    """In how many parts the file of a cut of a clip of `length` seconds is made to be weighed."""
    if made.format in QUICK:
        return 1
    frames = _frame_count(cut.begin, length if cut.end is None else cut.end, cut, made)
    return max(1, math.ceil(frames * made.size.width * made.size.height / MADE_PIXELS))


def measured(clip: OpenClip, cut: Cut, made: Trimmed, part: int = 0, parts: int = 1) -> int:
    """The bytes of the file of a cut, made; or what one of its parts adds to it."""
    footage = footage_of_clip(clip, cut, made.size, made.fps)
    count = max(2, round(footage.period * made.fps))
    first, end = count * part // parts, count * (part + 1) // parts
    numbers = range(max(0, first - 1), end)  # with the one before, on which the next ones lie
    moments = (footage.begin + footage.period * number / count for number in numbers)
    data = _file(Reel((_shown(footage.at(one), made) for one in moments), len(numbers) / made.fps), made)
    return len(data) if first == 0 else sum(frame_bytes(data, made.format)[1:])


def _frame_count(begin: float, end: float, cut: Cut, made: Trimmed) -> int:
    length = (end - begin) / cut.speed
    length = 2 * length if cut.closing == "back" else length - _fade(begin, end, cut)
    return max(2, round(length * made.fps))


def _fade(begin: float, end: float, cut: Cut) -> float:
    """For how many seconds of the loop its end fades into its beginning."""
    return min((end - begin) / cut.speed * SMOOTH_SHARE, LONGEST_FADE_S) if cut.closing == "smooth" else 0.0


def _frames(clip: OpenClip, times: list[float], made: Trimmed) -> Iterator[Pixels]:
    for frame in clip_frames(clip, times):
        yield _shown(FrameSource(still_of(clip, frame).pixels, made.natural), made)


def _shown(frame: FrameSource, made: Trimmed) -> Pixels:
    return straight(frame.pixels(made.window, made.size))


def _file(reel: Reel, made: Trimmed) -> bytes:
    settings = settings_at(made.format, round(WELL * highest(made.format)), made.fps)
    return moving_file(made.format, reel, settings, Playing())
