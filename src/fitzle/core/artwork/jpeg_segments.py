"""The segments of a JPEG (ITU T.81, annex B), walked without decoding."""

from __future__ import annotations

import struct
from collections.abc import Iterator

_STANDALONE = {0x01, *range(0xD0, 0xD8)}  # table B.1: markers without a length
_FRAMES = set(range(0xC0, 0xD0)) - {0xC4, 0xC8, 0xCC}  # starts of frame; the others are tables
START_OF_SCAN = 0xDA


def segments(data: bytes) -> Iterator[tuple[int, int]]:
    """(marker, offset) of each segment up to the first scan, which is the last one given."""
    at = 2
    while at + 2 <= len(data) and data[at] == 0xFF:
        marker = data[at + 1]
        if marker == 0xFF:
            at += 1
            continue
        yield marker, at
        if marker == START_OF_SCAN:
            return
        if marker in _STANDALONE:
            at += 2
        elif at + 4 <= len(data):
            at += 2 + int(struct.unpack(">H", data[at + 2 : at + 4])[0])
        else:
            return


def start_of_frame(data: bytes) -> int | None:
    """Where the segment begins that states the size."""
    return next((at for marker, at in segments(data) if marker in _FRAMES), None)
