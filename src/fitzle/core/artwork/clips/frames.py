"""Frames by time stamp, upright, in sRGB. Times are in seconds from the first frame; rates may vary."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, NamedTuple

import numpy as np

from fitzle.core.artwork.clips.opening import HD_FROM_PX, OpenClip
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError

EARLIER_S = 0.5
UNSPECIFIED = 2  # ITU-T H.273, MatrixCoefficients


class Still(NamedTuple):
    """One frame: when it is shown, in seconds, and its pixels (h, w, 4), straight alpha."""

    seconds: float
    pixels: Pixels


def frame_at(clip: OpenClip, seconds: float) -> Any:
    """The frame that is shown at a moment: the last one that begins at or before it.

    Before the first frame it is the first, after the end the last. Raises ArtworkError when there is no frame at all.
    """
    wanted = clip.stamp(max(0.0, seconds))
    found = None
    for frame in frames_from(clip, wanted):
        if frame.pts is not None and frame.pts > wanted and found is not None:
            break
        found = frame
    if found is None:
        raise ArtworkError("the clip has no frame that can be shown", advice="Export it again.")
    return found


def next_frame(clip: OpenClip, seconds: float) -> Any | None:
    """The frame after the one that is shown at a moment; None at the end."""
    now = frame_at(clip, seconds)
    return next((frame for frame in frames_from(clip, now.pts) if frame.pts > now.pts), None)


def frame_before(clip: OpenClip, seconds: float) -> Any | None:
    """The frame before the one that is shown at a moment; None at the beginning."""
    now = frame_at(clip, seconds)
    before = None
    for frame in frames_from(clip, max(clip.start, now.pts - 1)):
        if frame.pts >= now.pts:
            break
        before = frame
    return before


def frames_from(clip: OpenClip, stamp: int) -> Iterator[Any]:
    """Frames in the order in which they are shown, from the last key frame at or before a stamp.

    Containers seek by decoding time: with frames that are stored out of order a key frame may be found that is shown
    only after the stamp; then an earlier one is taken.
    """
    back = 0
    while True:
        frames = _decoded_from(clip, max(clip.start, stamp - back))
        first = next(frames, None)
        if first is None:
            return
        if first.pts <= stamp or stamp - back <= clip.start:
            break
        back = max(2 * back, int(EARLIER_S / clip.stream.time_base))
    yield first
    yield from frames


def _decoded_from(clip: OpenClip, stamp: int) -> Iterator[Any]:
    """Frames from a key frame on.

    What cannot be decoded is left out, as players do: of a clip that was cut off or scratched the rest can be used. So
    are frames that say nothing about when they are shown.
    """
    import av

    clip.container.seek(stamp, stream=clip.stream, backward=True)
    clip.decoder.flush_buffers()
    for packet in clip.container.demux(clip.stream):
        try:
            yield from (frame for frame in clip.decoder.decode(packet) if frame.pts is not None)
        except av.InvalidDataError:
            continue


def still_of(clip: OpenClip, frame: Any) -> Still:
    """A frame as it is seen: turned upright, px made square, colours in sRGB."""
    return Still(round(clip.seconds(frame.pts), 6), upright(_pixels(frame), frame, clip))


def upright(pixels: Pixels, frame: Any, clip: OpenClip) -> Pixels:
    """The pixels as the clip's display matrix and the shape of its px say."""
    aspect = clip.stream.sample_aspect_ratio or clip.stream.codec_context.sample_aspect_ratio
    if aspect and aspect > 0 and aspect != 1:
        import cv2

        width = max(1, round(pixels.shape[1] * float(aspect)))
        pixels = np.asarray(cv2.resize(pixels, (width, pixels.shape[0]), interpolation=cv2.INTER_CUBIC), dtype=np.uint8)
    return np.ascontiguousarray(np.rot90(pixels, quarter_turns(frame)))


def quarter_turns(frame: Any) -> int:
    """Quarter turns counter-clockwise that make the frame upright."""
    return round((frame.rotation or 0) / 90) % 4


def _pixels(frame: Any) -> Pixels:
    matrix = "ITU709" if frame.colorspace == UNSPECIFIED and frame.height >= HD_FROM_PX else None
    return np.asarray(frame.reformat(format="rgba", src_colorspace=matrix).to_ndarray(), dtype=np.uint8)


def has_alpha(frame: Any) -> bool:
    """Whether the frame carries transparency."""
    return any(component.is_alpha for component in frame.format.components)
