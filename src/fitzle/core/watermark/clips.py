"""A mark laid into every frame of a clip; its sound is kept as it is, nothing else of what the camera wrote."""

from __future__ import annotations

import io
from collections.abc import Iterator, Sequence
from fractions import Fraction
from typing import Any

import numpy as np

from fitzle.core.artwork.clips.frames import frames_from, still_of
from fitzle.core.artwork.clips.opening import HD_FROM_PX, OpenClip, opened_clip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.artwork.sources import Pixels
from fitzle.core.units import Size
from fitzle.core.watermark.looking import check_length
from fitzle.core.watermark.placing import Placed, Stamp, corner_box, placed
from fitzle.core.watermark.stamping import Stamped, laid

QUALITY, PRESET = "18", "veryfast"  # rate factor of H.264: hardly told from the original
TIME_BASE = Fraction(1, 90_000)


def stamped_clip(data: bytes, marks: Sequence[Pixels], stamp: Stamp) -> Stamped:
    """The clip as an MP4 (H.264) with a mark in its corner; which version, its first frame decides.

    Raises ArtworkError, or LimitError for a clip that is too long.
    """
    with opened_clip(io.BytesIO(data)) as clip:
        facts = probe(clip)
        check_length(facts.seconds)
        size = Size(facts.width - facts.width % 2, facts.height - facts.height % 2)  # what H.264 can hold
        box = corner_box(size, Size(marks[0].shape[1], marks[0].shape[0]), stamp)
        first = facts.poster.pixels
        behind = first[round(box.y) : round(box.bottom), round(box.x) : round(box.right)]
        mark = placed(marks, stamp, behind, box)
        out = io.BytesIO()
        _write(out, data, clip, size, mark)
    return Stamped(out.getvalue(), "mp4", mark.version, mark.contrast)


def _write(out: io.BytesIO, data: bytes, clip: OpenClip, size: Size, mark: Placed) -> None:
    import av

    with av.open(out, "w", format="mp4") as target, av.open(io.BytesIO(data)) as sound:
        video: Any = target.add_stream("libx264", rate=clip.stream.average_rate or 25)
        video.width, video.height, video.pix_fmt, video.time_base = size.width, size.height, "yuv420p", TIME_BASE
        video.codec_context.time_base = TIME_BASE
        video.options = {"crf": QUALITY, "preset": PRESET}
        heard = next(iter(sound.streams.audio), None)
        kept = target.add_stream_from_template(heard) if heard else None
        for seconds, pixels in _frames(clip, size):
            frame = av.VideoFrame.from_ndarray(np.ascontiguousarray(laid(pixels, mark)[..., :3]), format="rgb24")
            wide = size.height >= HD_FROM_PX
            frame = frame.reformat(format="yuv420p", dst_colorspace="ITU709" if wide else "ITU601")
            frame.pts, frame.time_base = round(seconds / TIME_BASE), TIME_BASE
            target.mux(video.encode(frame))
        target.mux(video.encode(None))
        for packet in sound.demux(heard) if heard else ():
            if packet.dts is not None:
                packet.stream = kept
                target.mux(packet)


def _frames(clip: OpenClip, size: Size) -> Iterator[tuple[float, Pixels]]:
    """All frames, upright, with their seconds."""
    for frame in frames_from(clip, clip.start):
        still = still_of(clip, frame)
        yield still.seconds, still.pixels[: size.height, : size.width]
