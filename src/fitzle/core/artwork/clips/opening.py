"""Opening a clip: its picture stream with limits checked, and the decoder's complaints in plain words."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any, BinaryIO, NamedTuple

from fitzle.core.artwork.clips.wholeness import is_whole
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.sniff import SNIFFED_BYTES, sniff_format
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.formats import CLIPS, label_of

HD_FROM_PX = 720  # lines; from there on untagged pictures are BT.709, below BT.601 (usual practice of players)


class OpenClip(NamedTuple):
    """A container and its picture stream.

    `start` is the time stamp of the first frame; `whole` is False for a file whose end is missing.
    """

    container: Any
    stream: Any
    decoder: Any
    start: int
    whole: bool = True

    def seconds(self, stamp: int) -> float:
        """A time stamp in seconds from the first frame."""
        return float((stamp - self.start) * self.stream.time_base)

    def stamp(self, seconds: float) -> int:
        """The last time stamp that is not after this moment."""
        return self.start + int(seconds / self.stream.time_base + 1e-6)


@contextmanager
def opened_clip(file: BinaryIO, limits: Limits = DEFAULT_LIMITS) -> Iterator[OpenClip]:
    """The clip in a seekable file; raises ArtworkError (no clip, no picture in it, damaged) or LimitError."""
    import av

    file.seek(0)
    _check_kind(file.read(SNIFFED_BYTES))
    whole = is_whole(file)
    file.seek(0)
    try:
        with av.open(file, options={"probesize": "20000000"}, metadata_errors="replace") as container:
            stream = _picture_stream(container, limits)
            yield OpenClip(container, stream, _decoder(stream), int(stream.start_time or 0), whole)
    except av.FFmpegError as error:
        reason = str(error.strerror or error).lower()
        raise ArtworkError(
            f"the clip is damaged ({reason})", advice="Export it again, or choose another one."
        ) from error


def _check_kind(head: bytes) -> None:
    fmt = sniff_format(head)
    if fmt not in CLIPS:
        found = f"this is a {label_of(fmt)}, not a clip" if fmt else "this is not a clip that Fitzle knows"
        raise ArtworkError(found, advice="Choose an MP4, MOV or WebM.")


def _picture_stream(container: Any, limits: Limits) -> Any:
    streams = [stream for stream in container.streams.video if not _is_cover(stream)]
    if not streams:
        raise ArtworkError("there is no picture in this file, only sound", advice="Choose a clip with pictures.")
    stream = streams[0]
    if stream.codec_context is None:
        raise ArtworkError("the clip is damaged (its picture is kept in an unknown way)", advice="Export it again.")
    stream.thread_type = "AUTO"
    width, height = stream.codec_context.width, stream.codec_context.height
    if width < 1 or height < 1:
        raise ArtworkError("the clip does not say how large its picture is", advice="Export it again.")
    if width * height > limits.max_pixels or max(width, height) > limits.max_side_px:
        raise LimitError(f"the clip is too large: {width} x {height} px", advice="Export it smaller.")
    return stream


def _is_cover(stream: Any) -> bool:
    """Whether the stream is a picture attached to a sound file."""
    return "attached_pic" in str(getattr(stream, "disposition", "")).lower()


def _decoder(stream: Any) -> Any:
    """The decoder; only libvpx reads the second picture in which WebM keeps transparency."""
    import av

    if stream.metadata.get("alpha_mode") != "1" or stream.codec_context.name not in ("vp8", "vp9"):
        return stream.codec_context
    decoder = av.CodecContext.create({"vp8": "libvpx", "vp9": "libvpx-vp9"}[stream.codec_context.name], "r")
    decoder.extradata = stream.codec_context.extradata
    return decoder
