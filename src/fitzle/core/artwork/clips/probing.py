"""What a clip is: its size as it is seen, its length, its rate."""

from __future__ import annotations

from typing import NamedTuple

from fitzle.core.artwork.clips.frames import Still, frame_at, has_alpha, quarter_turns, still_of
from fitzle.core.artwork.clips.opening import OpenClip
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.errors import LimitError

POSTER_SHARE = 0.1  # of its length: past a fade in, before what is shown later gives anything away


class ClipFacts(NamedTuple):
    """Upright size in px, length in seconds, mean frames a second (0: one frame), own rotation clockwise in degrees."""

    width: int
    height: int
    seconds: float
    fps: float
    rotation: int
    has_alpha: bool
    codec: str
    poster: Still
    whole: bool = True


def probe(clip: OpenClip, limits: Limits = DEFAULT_LIMITS) -> ClipFacts:
    """The facts; one or two frames are decoded. Raises ArtworkError, or LimitError for a clip that is too long."""
    seconds, count = _length(clip)
    if seconds > limits.max_seconds:
        raise LimitError(
            f"the clip is too long: {seconds / 60:.0f} minutes",
            advice=f"At most {limits.max_seconds / 60:.0f} minutes.",
        )
    frame = frame_at(clip, seconds * POSTER_SHARE)
    poster = still_of(clip, frame)
    height, width = poster.pixels.shape[:2]
    turned = -90 * quarter_turns(frame) % 360
    fps = float(clip.stream.average_rate) if clip.stream.average_rate else count / seconds if seconds else 0.0
    return ClipFacts(
        width, height, round(seconds, 3), round(fps, 3), turned, has_alpha(frame), clip.decoder.name, poster, clip.whole
    )


def _length(clip: OpenClip) -> tuple[float, int]:
    """Seconds and number of frames.

    Writers of uneven clips state a length that ends before the last frame is shown: the last packets are looked at.
    Where nothing states the length, all packets are read through (not decoded).
    """
    stream = clip.stream
    if stream.duration:
        stated = float(stream.duration * stream.time_base)
    elif clip.container.duration:
        stated = clip.container.duration / 1_000_000
    else:
        return _end_of_packets(clip, clip.start)
    return max(stated, _end_of_packets(clip, clip.stamp(stated))[0]), int(stream.frames)


def _end_of_packets(clip: OpenClip, stamp: int) -> tuple[float, int]:
    """When the last packet ends, and how many there are, from the last key frame at or before a stamp."""
    clip.container.seek(stamp, stream=clip.stream, backward=True)
    last, count, step = clip.start, 0, 0
    for packet in clip.container.demux(clip.stream):
        if packet.pts is None:
            continue
        count += 1
        step = packet.duration or step
        last = max(last, packet.pts)
    return clip.seconds(last + step), count
