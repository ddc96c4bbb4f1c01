"""What a part of a clip weighs as the moving file of a place, made: at the settings and the frame rate at which such
files look well, so that a limit tells what is too long.
"""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

from fitzle.core.artwork.clips.frames import still_of
from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.straight import straight
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
MADE_PIXELS = 4_000_000  # of all frames that are encoded together: a drawing has some seconds
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


def trimmed_for(sheet: SpecSheet, natural: Size, fps: float) -> Trimmed | None:
    """What a clip of a size and frame rate becomes in a place; None where the place takes nothing made of frames."""
    size = delivered_size(sheet, natural, vector=False)
    made = [fmt for fmt in sheet.formats if fmt in MOVING and holds_size(fmt, *size)]
    if not made or not sheet.motion.allowed:
        return None
    return Trimmed(natural, made[0], size, min(FPS, fps, sheet.motion.max_fps or FPS))


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
    data = file_of(Reel((_shown(footage.at(one), made) for one in moments), len(numbers) / made.fps), made)
    return len(data) if first == 0 else sum(frame_bytes(data, made.format)[1:])


def _frame_count(begin: float, end: float, cut: Cut, made: Trimmed) -> int:
    length = (end - begin) / cut.speed
    length = 2 * length if cut.closing == "back" else length - _fade(begin, end, cut)
    return max(2, round(length * made.fps))


def _fade(begin: float, end: float, cut: Cut) -> float:
    """For how many seconds of the loop its end fades into its beginning."""
    return min((end - begin) / cut.speed * SMOOTH_SHARE, LONGEST_FADE_S) if cut.closing == "smooth" else 0.0


def frames_of(clip: OpenClip, times: list[float], made: Trimmed) -> Iterator[Pixels]:
    """What is seen of a clip at some moments (in rising order), (h, w, 4) at the made size, straight alpha."""
    for frame in clip_frames(clip, times):
        yield _shown(FrameSource(still_of(clip, frame).pixels, made.natural), made)


def _shown(frame: FrameSource, made: Trimmed) -> Pixels:
    return straight(frame.pixels(made.window, made.size))


def file_of(reel: Reel, made: Trimmed) -> bytes:
    """The file of some frames at the settings at which such files look well."""
    settings = settings_at(made.format, round(WELL * highest(made.format)), made.fps)
    return moving_file(made.format, reel, settings, Playing())
