"""A strip of small frames over the whole length of a clip, each with the moment at which it is really shown."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import cv2
import numpy as np

from fitzle.core.artwork.clips.frames import Still, frames_from, still_of
from fitzle.core.artwork.clips.opening import OpenClip

COUNT = 40
HEIGHT_PX = 90
SPARSE = 0.5  # with fewer different key frames than this share, every frame is read instead
ALL_READ_BELOW_SECONDS = 90.0


def filmstrip(clip: OpenClip, seconds: float, count: int = COUNT, height_px: int = HEIGHT_PX) -> list[Still]:
    """At most `count` frames in order, no moment twice.

    Key frames alone are decoded (a tenth of the time); in a short clip with few of them every frame is.
    """
    wanted = [seconds * (number + 0.5) / count for number in range(count)]
    found = list(_key_frames(clip, wanted))
    if len(found) < SPARSE * count and seconds <= ALL_READ_BELOW_SECONDS:
        found = list(_all_frames(clip, wanted))
    return [_small(still, height_px) for still in found]


def _key_frames(clip: OpenClip, wanted: list[float]) -> Iterator[Still]:
    clip.decoder.skip_frame = "NONKEY"
    shown = -1
    try:
        for moment in wanted:
            frame = _key_frame(clip, moment)
            if frame is not None and frame.pts is not None and frame.pts > shown:
                shown = frame.pts
                yield still_of(clip, frame)
    finally:
        clip.decoder.skip_frame = "DEFAULT"


def _key_frame(clip: OpenClip, moment: float) -> Any | None:
    return next(frames_from(clip, clip.stamp(moment)), None)


def _all_frames(clip: OpenClip, wanted: list[float]) -> Iterator[Still]:
    """The frames that are shown at the wanted moments, in one reading."""
    left, before = list(wanted), None
    for frame in frames_from(clip, clip.start):
        due = [moment for moment in left if frame.pts is not None and clip.stamp(moment) < frame.pts]
        if due and before is not None:
            yield still_of(clip, before)
        left = left[len(due) :]
        before = frame
    if left and before is not None:
        yield still_of(clip, before)


def _small(still: Still, height_px: int) -> Still:
    height, width = still.pixels.shape[:2]
    size = (max(1, round(width * height_px / height)), height_px)
    return still._replace(
        pixels=np.asarray(cv2.resize(still.pixels, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
    )
