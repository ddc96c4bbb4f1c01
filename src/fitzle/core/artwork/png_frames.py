"""How many frames a PNG states (PNG 3rd edition, 11.3.5.1: the chunk acTL, before the first IDAT)."""

from __future__ import annotations

import struct

HEAD_BYTES = 100_000


def png_frames(data: bytes) -> int:
    """The number of frames; 1 for a PNG that does not move."""
    head = data[:HEAD_BYTES]
    at = head.find(b"acTL", 8, max(0, head.find(b"IDAT")) or len(head))
    if at < 0 or at + 8 > len(head):
        return 1
    return max(1, int(struct.unpack(">I", head[at + 4 : at + 8])[0]))
