"""What a finished file really is. Pictures are read by Pillow: another reader than the encoders that wrote them."""

from __future__ import annotations

import io
from typing import Any

import numpy as np

from fitzle.core.artwork.clips.opening import opened_clip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.artwork.completeness import is_complete
from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.lottie import read_lottie
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.errors import ArtworkError, FitzleError, LimitError
from fitzle.core.findings import Frozen
from fitzle.core.formats import CLIPS, FORMATS, label_of
from fitzle.core.units import Size, words_for_bytes

MOST_FRAMES_TIMED = 2000


class FileFacts(Frozen):
    """A file as a destination sees it; `transparent` says whether any pixel really is."""

    format: str
    width: int
    height: int
    bytes: int
    transparent: bool
    frames: int = 1
    seconds: float = 0.0

    @property
    def size(self) -> Size:
        """Width and height in px."""
        return Size(self.width, self.height)


def read_file_facts(data: bytes, name: str = "", limits: Limits = DEFAULT_LIMITS) -> FileFacts:
    """The facts of a file made anywhere; raises ArtworkError or LimitError about `name`."""
    try:
        return _read(data, limits)
    except FitzleError as error:
        raise error.about(name) if name else error from error


def _read(data: bytes, limits: Limits) -> FileFacts:
    if not data:
        raise ArtworkError("the file is empty")
    if len(data) > limits.max_bytes:
        raise LimitError(
            f"the file is too heavy: {words_for_bytes(len(data))}",
            advice=f"At most {words_for_bytes(limits.max_bytes)} are read.",
        )
    fmt = sniff_format(data)
    if fmt == "svg":
        facts = read_artwork(data, "", limits).facts
        return FileFacts(
            format=fmt,
            width=round(facts.width),
            height=round(facts.height),
            bytes=len(data),
            transparent=facts.transparency != "none",
        )
    if fmt == "lottie":
        return _of_facts(read_lottie(data, "", limits))
    if fmt in CLIPS:
        return _of_clip(data)
    pillow = FORMATS[fmt].pillow if fmt else None
    if fmt is None or pillow is None:
        found = f"this is a {label_of(fmt)}" if fmt else "this is not a picture that Fitzle knows"
        raise ArtworkError(found, advice="Check a PNG, JPEG, WebP, GIF, BMP, ICO, AVIF, SVG, Lottie, MP4 or WebM.")
    if not is_complete(fmt, data):
        raise ArtworkError("the file is cut off: its end is missing", advice="Export it again.")
    return _by_pillow(data, fmt, pillow, limits)


def _of_facts(facts: ArtworkFacts) -> FileFacts:
    return FileFacts(
        format=facts.format, width=round(facts.width), height=round(facts.height), bytes=facts.bytes,
        transparent=True, frames=facts.frames, seconds=facts.seconds or 0.0,
    )  # fmt: skip


def _of_clip(data: bytes) -> FileFacts:
    """A video, as PyAV reads it."""
    with opened_clip(io.BytesIO(data)) as clip:
        facts = probe(clip)
        return FileFacts(
            format=sniff_format(data) or "", width=facts.width, height=facts.height, bytes=len(data),
            transparent=False, frames=max(1, round(facts.seconds * (facts.fps or 1))), seconds=facts.seconds,
        )  # fmt: skip


def _by_pillow(data: bytes, fmt: str, pillow: str, limits: Limits) -> FileFacts:
    from PIL import Image

    try:
        with Image.open(io.BytesIO(data), formats=[pillow]) as picture:
            width, height = picture.size
            if width * height > limits.max_pixels:
                raise LimitError(f"the picture is too large: {width} x {height} px")
            frames = int(getattr(picture, "n_frames", 1))
            seconds = _seconds(picture, frames)
            picture.seek(0)
            return FileFacts(
                format=fmt,
                width=width,
                height=height,
                bytes=len(data),
                transparent=_transparent(picture),
                frames=frames,
                seconds=seconds,
            )
    except (OSError, ValueError, SyntaxError, EOFError, Image.DecompressionBombError) as error:
        raise ArtworkError(f"the picture data is damaged ({error})", advice="Export it again.") from error


def _seconds(picture: Any, frames: int) -> float:
    total = 0.0
    for index in range(min(frames, MOST_FRAMES_TIMED) if frames > 1 else 0):
        picture.seek(index)
        picture.load()  # WebP and AVIF say only then how long a frame is shown
        total += float(picture.info.get("duration", 0)) / 1000
    return total


def _transparent(picture: Any) -> bool:
    if "A" not in picture.getbands() and "transparency" not in picture.info:
        picture.load()  # a broken file is found out even where there is no alpha to look at
        return False
    return bool(np.asarray(picture.convert("RGBA"))[..., 3].min() < 255)
