"""A part of a clip or of a drawn animation as a moving picture of its own: artwork for any place that takes motion."""

from __future__ import annotations

import math

from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.artwork.lottie_player import LottiePlayer
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.errors import ValueOutOfRange
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.footage import Cut, Footage, footage_of, footage_of_clip
from fitzle.core.motion.played import playing_time
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.search import HELD_PIXELS
from fitzle.core.units import Size

LONGEST_LOOP_S = 15.0
SMOOTH_FPS, LONG_LOOP_FPS, LONG_LOOP_S = 25.0, 12.5, 5.0
QUALITY = 92  # hardly told from the clip: what places take is made of it
LONGEST_SIDE_PX = 1600


def check_loop(cut: Cut, seconds: float) -> None:
    """Raises ValueOutOfRange for a part that a clip of so many seconds does not have, or that is too long."""
    end = seconds if cut.end is None else cut.end
    if not 0 <= cut.begin < end <= seconds + 0.05:
        raise ValueOutOfRange(
            f"there is no part from {cut.begin:.2f} to {end:.2f} s", advice=f"The clip lasts {seconds:.2f} s."
        )
    length = (end - cut.begin) / cut.speed
    if length > LONGEST_LOOP_S:
        raise ValueOutOfRange(
            f"a loop of {length:.1f} s is too long",
            advice=f"At most {LONGEST_LOOP_S:g} s: move its ends closer together.",
        )


def loop_of_clip(clip: OpenClip, cut: Cut) -> bytes:
    """The loop as an animated WebP, as large as the memory of its encoder allows."""
    facts = probe(clip)
    check_loop(cut, facts.seconds)
    fps = _fps(cut, facts.seconds, facts.fps)
    size = _size(Size(facts.width, facts.height), cut, facts.seconds, fps)
    return _written(footage_of_clip(clip, cut, size, fps), size, fps)


def loop_of_drawing(data: bytes, name: str, cut: Cut) -> bytes:
    """The loop of a Lottie animation, with its alpha."""
    seconds, frames = playing_time(data)
    check_loop(cut, seconds)
    fps = _fps(cut, seconds, frames / seconds)
    size = _size(LottiePlayer(data).natural, cut, seconds, fps)
    return _written(footage_of(data, name, cut, size, fps), size, fps)


def _fps(cut: Cut, seconds: float, own: float | None) -> float:
    usual = SMOOTH_FPS if _length(cut, seconds) <= LONG_LOOP_S else LONG_LOOP_FPS
    return min(usual, (own or usual) * cut.speed)


def _size(natural: Size, cut: Cut, seconds: float, fps: float) -> Size:
    """No larger than it is, with even sides, so that a video of it can be made too."""
    frames = max(2.0, _length(cut, seconds) * fps * (2 if cut.closing == "back" else 1))
    most = math.sqrt(HELD_PIXELS / frames / (natural.width * natural.height))
    factor = min(1.0, most, LONGEST_SIDE_PX / max(natural))
    return Size(*(max(2, 2 * int(side * factor / 2)) for side in natural))


def _length(cut: Cut, seconds: float) -> float:
    return ((seconds if cut.end is None else cut.end) - cut.begin) / cut.speed


def _written(footage: Footage, size: Size, fps: float) -> bytes:
    import cv2
    import numpy as np

    count = max(2, round(footage.period * fps))
    moments = (footage.begin + footage.period * number / count for number in range(count))
    frames = (
        np.asarray(cv2.resize(footage.at(moment).kept, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
        for moment in moments
    )
    reel = Reel(frames, footage.period)
    return moving_file("webp", reel, MovingSettings(fps=round(reel.fps, 3), quality=QUALITY), Playing())
