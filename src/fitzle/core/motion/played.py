"""What a moving file shows at which moment, by its own timing: pictures by Pillow, clips by PyAV, Lottie by ThorVG."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from typing import Any

import numpy as np
from PIL import Image, ImageSequence

from fitzle.core.artwork.clips.frames import frames_from, still_of
from fitzle.core.artwork.clips.opening import OpenClip, opened_clip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.lottie import read_lottie
from fitzle.core.artwork.lottie_player import LottiePlayer
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import LimitError
from fitzle.core.formats import CLIPS
from fitzle.core.libvips import libvips
from fitzle.core.units import Size

NO_DELAY_S = 0.1
EPSILON_S = 1e-6  # what summing delays may be beyond a moment
MOST_FRAMES_READ = 10_000
TELLING = ("gif", "webp")  # whose delays can be read without making px of their frames


def frames_at(data: bytes, moments: Sequence[float], size: Size | None = None) -> Iterator[Pixels]:
    """What a file shows at moments in rising order, straight alpha; the last frame after its end.

    Drawings are drawn at `size`, pictures and clips come in their own.
    """
    fmt = sniff_format(data)
    if fmt == "lottie":
        player = LottiePlayer(data, size)
        yield from (player.at(moment) for moment in moments)
    elif fmt in CLIPS:
        with opened_clip(io.BytesIO(data)) as clip:
            for frame in clip_frames(clip, moments):
                yield still_of(clip, frame).pixels
    else:
        yield from _picture_frames(data, moments)


def playing_time(data: bytes) -> tuple[float, int]:
    """Seconds of one round, and frames; a frame that is said to last no time is shown for NO_DELAY_S, as players do."""
    fmt = sniff_format(data)
    if fmt == "lottie":
        read_lottie(data, "", DEFAULT_LIMITS)
        player = LottiePlayer(data)
        return player.seconds, max(1, round(player.frames))
    if fmt in CLIPS:
        with opened_clip(io.BytesIO(data)) as clip:
            facts = probe(clip)
            return facts.seconds, max(1, round(facts.seconds * (facts.fps or 1)))
    with Image.open(io.BytesIO(data)) as picture:
        count = int(getattr(picture, "n_frames", 1))
        if count > MOST_FRAMES_READ:
            raise LimitError(f"it has {count:,} frames", advice=f"At most {MOST_FRAMES_READ:,} are played.")
        told = _told_delays(data) if fmt in TELLING else []
        if len(told) == count:
            return sum(delay or NO_DELAY_S for delay in told), count
        return sum(map(_shown_for, ImageSequence.Iterator(picture))), count


def _told_delays(data: bytes) -> list[float]:
    """For how many seconds each frame is shown, without making px of them; empty where the file does not tell."""
    pyvips = libvips()
    try:
        picture = pyvips.Image.new_from_buffer(data, "")
        return [delay / 1000 for delay in picture.get("delay")] if "delay" in picture.get_fields() else []
    except pyvips.Error:
        return []


def plays(data: bytes) -> bool:
    """Whether a file has more than one frame; False for what cannot be read."""
    fmt = sniff_format(data)
    if fmt == "lottie" or fmt in CLIPS:
        return True
    try:
        with Image.open(io.BytesIO(data)) as picture:
            return int(getattr(picture, "n_frames", 1)) > 1
    except (OSError, ValueError, SyntaxError):
        return False


def clip_frames(clip: OpenClip, moments: Sequence[float]) -> Iterator[Any]:
    """For each moment, in rising order, the frame that is shown then; what comes between is not made px of."""
    waiting, shown = list(moments), None
    for frame in frames_from(clip, clip.stamp(moments[0])):
        while shown is not None and waiting and waiting[0] < clip.seconds(frame.pts) - EPSILON_S:
            waiting.pop(0)
            yield shown
        if not waiting:
            return
        shown = frame
    for _ in waiting:
        if shown is not None:
            yield shown


def _picture_frames(data: bytes, moments: Sequence[float]) -> Iterator[Pixels]:
    with Image.open(io.BytesIO(data)) as picture:
        waiting, until, shown = list(moments), 0.0, np.zeros((1, 1, 4), np.uint8)
        for frame in ImageSequence.Iterator(picture):
            until += _shown_for(frame)
            if not waiting:
                return
            if waiting[0] < until - EPSILON_S or frame.tell() == getattr(picture, "n_frames", 1) - 1:
                shown = np.asarray(frame.convert("RGBA"))
            while waiting and waiting[0] < until - EPSILON_S:
                waiting.pop(0)
                yield shown
        for _ in waiting:
            yield shown


def _shown_for(frame: Image.Image) -> float:
    frame.load()  # WebP and AVIF say only then how long a frame is shown
    return float(frame.info.get("duration", 0)) / 1000 or NO_DELAY_S
