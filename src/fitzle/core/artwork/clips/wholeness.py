"""Whether a clip's file ends where it says: a decoder does not miss what is cut off before it comes there."""

from __future__ import annotations

import io
import struct
from typing import BinaryIO

_EBML_HEAD, _SEGMENT = 0x1A45DFA3, 0x18538067  # RFC 8794, 11.2.1 and RFC 9559, 5.1


def is_whole(file: BinaryIO) -> bool:
    """False where boxes or the segment reach beyond the end of a seekable file; where nothing is stated, True."""
    end = file.seek(0, io.SEEK_END)
    file.seek(0)
    ebml = file.read(4) == _EBML_HEAD.to_bytes(4, "big")
    file.seek(0)
    return _segment_fits(file, end) if ebml else _boxes_fit(file, end)


def _boxes_fit(file: BinaryIO, end: int) -> bool:
    """ISO/IEC 14496-12, 4.2: boxes follow one another; a size of 0 reaches to the end, 1 means 64 bits."""
    at = 0
    while at + 8 <= end:
        file.seek(at)
        head = file.read(16)
        size = int(struct.unpack(">I", head[:4])[0])
        if size == 1 and len(head) == 16:
            size = int(struct.unpack(">Q", head[8:])[0])
        if size < 8:
            return True  # to the end, or nonsense that the decoder will speak about
        at += size
    return at <= end


def _segment_fits(file: BinaryIO, end: int) -> bool:
    while file.tell() < end:
        identity, size = _number(file, keep_mark=True), _number(file, keep_mark=False)
        if identity is None or size is None:
            return True
        if identity == _SEGMENT:
            return file.tell() + size <= end
        file.seek(size, io.SEEK_CUR)
    return True


def _number(file: BinaryIO, *, keep_mark: bool) -> int | None:
    """A number of variable length (RFC 8794, 4); None for an unknown size or at the end."""
    first = file.read(1)
    if not first or not first[0]:
        return None
    count = 8 - first[0].bit_length()
    rest = file.read(count)
    value = int.from_bytes(first + rest, "big")
    if keep_mark:
        return value
    bits = 7 * (count + 1)
    value &= (1 << bits) - 1
    return None if value == (1 << bits) - 1 else value
