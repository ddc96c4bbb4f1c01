"""Clips for tests, written by libx264, libvpx and ProRes; every frame carries its own number."""

from __future__ import annotations

import io
from fractions import Fraction
from typing import Any

import av
import numpy as np

BIT_PX = 16  # a frame's number stands in its first row of squares, least bit first
BITS = 8


def frame_picture(number: int, size: tuple[int, int]) -> Any:
    """Frame `number` (h, w, 3): its number in bits above a bar that grows."""
    width, height = size
    picture = np.full((height, width, 3), (40, 80, 120), np.uint8)
    picture[BIT_PX:, : 1 + number * 3 % width] = (200, 60, 30)
    for bit in range(BITS):
        picture[:BIT_PX, BIT_PX * bit : BIT_PX * (bit + 1)] = 255 if number >> bit & 1 else 0
    return picture


def number_in(pixels: Any) -> int:
    """The number that a frame (h, w, 4) carries."""
    row = pixels[BIT_PX // 2, BIT_PX // 2 :: BIT_PX, 0][:BITS]
    return sum(int(value > 128) << bit for bit, value in enumerate(row))


def clip(
    fmt: str = "mp4",
    codec: str = "libx264",
    stamps_ms: list[int] | None = None,
    size: tuple[int, int] = (256, 144),
    pixels: str = "yuv420p",
    key_every: int = 25,
    written: dict[str, str] | None = None,
    **options: str,
) -> bytes:
    """A clip whose frames are shown at these moments; `written` is for the container, the rest for the codec."""
    out = io.BytesIO()
    with av.open(out, "w", format=fmt, options=written or {}) as container:
        stream: Any = container.add_stream(codec, rate=25)
        stream.width, stream.height = size
        stream.pix_fmt, stream.gop_size, stream.options = pixels, key_every, options
        stream.codec_context.time_base = stream.time_base = Fraction(1, 1000)
        for number, stamp in enumerate(stamps_ms or list(range(0, 2000, 40))):
            frame = av.VideoFrame.from_ndarray(frame_picture(number, size), format="rgb24")
            frame.pts, frame.time_base = stamp, Fraction(1, 1000)
            container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
    return out.getvalue()


def sound_alone() -> bytes:
    """An MP4 without a picture."""
    out = io.BytesIO()
    with av.open(out, "w", format="mp4") as container:
        stream: Any = container.add_stream("aac", rate=44100)
        frame = av.AudioFrame.from_ndarray(np.zeros((1, 4096), np.float32), format="fltp", layout="mono")
        frame.sample_rate = 44100
        container.mux(stream.encode(frame))
        container.mux(stream.encode(None))
    return out.getvalue()


def turned(data: bytes, turns: int) -> bytes:
    """An MP4 whose display matrix turns it by so many quarters clockwise (ISO/IEC 14496-12, 8.3.2)."""
    one, minus = 0x00010000, 0xFFFF0000
    matrix = {1: (0, one, 0, minus, 0, 0), 2: (minus, 0, 0, 0, minus, 0), 3: (0, minus, 0, one, 0, 0)}[turns]
    at = data.index(b"tkhd") + 4 + 40
    numbers = [*matrix, 0, 0, 0x40000000]
    return data[:at] + b"".join(number.to_bytes(4, "big") for number in numbers) + data[at + 36 :]
