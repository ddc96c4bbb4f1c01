"""Whether a file ends where its format says: decoders fill the rest of a cut-off picture with grey and say nothing."""

from __future__ import annotations

import struct

from fitzle.core.artwork.jpeg_segments import START_OF_SCAN, segments, start_of_frame

BLOCK_PX = 64  # of one channel; each takes at least one bit of the scan (ITU T.81, annex F: a code has a bit or more)


def is_complete(fmt: str, data: bytes) -> bool:
    """False when the file was cut off. Formats without an end mark are judged by their stated length."""
    check = _CHECKS.get(fmt)
    try:
        return bool(check(data)) if check else True
    except (struct.error, IndexError):
        return False


def _png(data: bytes) -> bool:
    at = 8
    while at + 12 <= len(data):
        length, kind = struct.unpack(">I4s", data[at : at + 8])
        at += 12 + length
        if kind == b"IEND":
            return bool(at <= len(data))
    return False


def _jpeg(data: bytes) -> bool:
    scan = next((at for marker, at in segments(data) if marker == START_OF_SCAN), None)
    frame = start_of_frame(data)
    if scan is None or frame is None or data.find(b"\xff\xd9", scan) < 0:
        return False
    height, width = struct.unpack(">HH", data[frame + 5 : frame + 9])
    return bool((len(data) - scan) * 8 >= width * height / BLOCK_PX)


def _gif(data: bytes) -> bool:
    return data.rstrip(b"\x00").endswith(b";")


def _webp(data: bytes) -> bool:
    return len(data) >= int(struct.unpack("<I", data[4:8])[0]) + 8


def _bmp(data: bytes) -> bool:
    offset = int(struct.unpack("<I", data[10:14])[0])
    width, height, _, bits, packing = struct.unpack("<iiHHI", data[18:34])
    if packing in (1, 2):  # run-length encoded: no fixed length
        return True
    row = (abs(width) * bits + 31) // 32 * 4
    return bool(len(data) >= offset + row * abs(height))


def _ico(data: bytes) -> bool:
    count = struct.unpack("<H", data[4:6])[0]
    ends = [sum(struct.unpack("<II", data[14 + 16 * entry : 22 + 16 * entry])) for entry in range(count)]
    return bool(count > 0 and max(ends) <= len(data))


def _boxes(data: bytes) -> bool:
    """ISO/IEC 14496-12, 4.2: boxes follow one another; a size of 0 reaches to the end, 1 means 64 bits."""
    at = 0
    while at + 8 <= len(data):
        size = int(struct.unpack(">I", data[at : at + 4])[0])
        if size == 0:
            return True
        if size == 1:
            size = int(struct.unpack(">Q", data[at + 8 : at + 16])[0])
        if size < 8:
            return False
        at += size
    return at == len(data)


_CHECKS = {
    "png": _png, "apng": _png, "jpeg": _jpeg, "gif": _gif, "webp": _webp, "bmp": _bmp, "ico": _ico, "avif": _boxes,
    "heic": _boxes,
}  # fmt: skip
