"""MP4 (H.264) and WebM (VP9) without sound, for places that show a loop as a video."""

from __future__ import annotations

from fractions import Fraction
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any, NamedTuple

import numpy as np

from fitzle.core.artwork.clips.opening import HD_FROM_PX
from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.formats import Format
from fitzle.core.motion.reel import Reel


class _Codec(NamedTuple):
    """`highest` is the rate factor of the worst picture; 0 is the best."""

    name: str
    highest: int
    options: dict[str, str]
    container: dict[str, str]


# One thread, so that every machine gives the same bytes; the index first, so that playing begins at once.
_SAME = {"fflags": "bitexact"}
_CODECS = {
    "mp4": _Codec("libx264", 51, {"preset": "medium", "threads": "1"}, {"movflags": "faststart", **_SAME}),
    "webm": _Codec("libvpx-vp9", 63, {"b": "0", "deadline": "good", "cpu-used": "4", "threads": "1"}, _SAME),
}
TIME_BASE = Fraction(1, 90_000)


def video_file(fmt: Format, reel: Reel, settings: MovingSettings, ground: tuple[int, int, int]) -> bytes:
    """The file; what is clear is laid on the ground."""
    with TemporaryDirectory() as folder:  # an MP4 is written twice to have its index first
        path = Path(folder) / f"loop.{fmt}"
        _write(path, fmt, reel, settings, ground)
        return path.read_bytes()


def _write(path: Path, fmt: Format, reel: Reel, settings: MovingSettings, ground: tuple[int, int, int]) -> None:
    import av

    codec = _CODECS[fmt]
    rate = Fraction(len(reel) / reel.period).limit_denominator(1000)
    factor = round(codec.highest * (1 - (settings.quality or 0) / 100))
    with av.open(str(path), "w", format=fmt, options=codec.container) as target:
        video: Any = target.add_stream(codec.name, rate=rate)
        video.width, video.height, video.pix_fmt = *reel.size, "yuv420p"
        video.time_base = video.codec_context.time_base = TIME_BASE
        video.options = {**codec.options, "crf": str(factor)}
        ends = [round(reel.period * number / len(reel) / TIME_BASE) for number in range(len(reel) + 1)]
        wide = reel.size.height >= HD_FROM_PX
        for number, pixels in enumerate(reel):
            frame = av.VideoFrame.from_ndarray(_on(pixels, ground), format="rgb24")
            frame = frame.reformat(format="yuv420p", dst_colorspace="ITU709" if wide else "ITU601")
            frame.pts, frame.time_base = ends[number], TIME_BASE
            frame.duration = ends[number + 1] - ends[number]
            target.mux(video.encode(frame))
        target.mux(video.encode(None))


def _on(pixels: Pixels, ground: tuple[int, int, int]) -> Pixels:
    if pixels[..., 3].min() == 255:
        return np.ascontiguousarray(pixels[..., :3])
    share = pixels[..., 3:].astype(np.float32) / 255
    return np.rint(pixels[..., :3] * share + np.array(ground, np.float32) * (1 - share)).astype(np.uint8)
