"""How many bytes each frame of a moving file takes, by walking over its blocks; nothing is decoded."""

from __future__ import annotations

import struct
from collections.abc import Callable

from fitzle.core.formats import Format

_GIF_HEADER, _GIF_TABLE_SAID = 13, 0x80
_GIF_EXTENSION, _GIF_IMAGE, _GIF_CONTROL = 0x21, 0x2C, 0xF9


def frame_bytes(data: bytes, fmt: Format) -> list[int]:
    """The bytes of each frame in the order of the file, of a whole GIF (GIF89a), APNG or WebP; what belongs to all
    frames is in none.
    """
    return _WALKS[fmt](data)


def _gif(data: bytes) -> list[int]:
    at = _GIF_HEADER + _table_bytes(data[10])
    found, begun = [], at
    while at < len(data) and data[at] in (_GIF_EXTENSION, _GIF_IMAGE):
        if data[at] == _GIF_EXTENSION:
            begun = at if data[at + 1] == _GIF_CONTROL else begun
            at = _after_blocks(data, at + 2)
            continue
        at = _after_blocks(data, at + 10 + _table_bytes(data[at + 9]) + 1)
        found.append(at - begun)
        begun = at
    return found


def _table_bytes(packed: int) -> int:
    return 3 * 2 ** ((packed & 7) + 1) if packed & _GIF_TABLE_SAID else 0


def _after_blocks(data: bytes, at: int) -> int:
    while at < len(data) and data[at]:
        at += data[at] + 1
    return at + 1


def _apng(data: bytes) -> list[int]:
    found: list[int] = []
    at = 8
    while at + 12 <= len(data):
        length, kind = struct.unpack(">I4s", data[at : at + 8])
        if kind == b"fcTL":
            found.append(0)
        if found and kind in (b"fcTL", b"IDAT", b"fdAT"):
            found[-1] += length + 12
        at += length + 12
    return found


def _webp(data: bytes) -> list[int]:
    found: list[int] = []
    at = 12
    while at + 8 <= len(data):
        kind, length = struct.unpack("<4sI", data[at : at + 8])
        if kind == b"ANMF":
            found.append(length + 8)
        at += 8 + length + length % 2
    return found


_WALKS: dict[str, Callable[[bytes], list[int]]] = {"gif": _gif, "apng": _apng, "webp": _webp}
