"""A PNG of at most 256 colours, written as it is found (W3C PNG, 3rd edition, sections 5, 7 and 11).

Rows are not filtered: of 40 pictures in a palette, filters made one lighter. Written here instead of by the optimiser
because that keeps all other threads waiting while it packs.
"""

from __future__ import annotations

import struct
import zlib

import deflate
import numpy as np
from numpy.typing import NDArray

SIGNATURE = b"\x89PNG\r\n\x1a\n"
INDEXED = 3  # colour type
DEPTHS = (1, 2, 4, 8)  # bits of an index
NO_FILTER = 0


def indexed_png(indices: NDArray[np.uint8], colours: NDArray[np.uint8], level: int) -> bytes:
    """The file of indices (h, w) into colours (n, 4), straight alpha, packed by libdeflate at `level` (1 to 12)."""
    height, width = indices.shape
    indices, colours = _sorted(indices, colours)
    depth = next(bits for bits in DEPTHS if len(colours) <= 1 << bits)
    chunks = [_chunk(b"IHDR", struct.pack(">IIBBBBB", width, height, depth, INDEXED, 0, 0, 0))]
    chunks.append(_chunk(b"PLTE", colours[:, :3].tobytes()))
    if clear := int((colours[:, 3] < 255).sum()):
        chunks.append(_chunk(b"tRNS", colours[:clear, 3].tobytes()))
    chunks.append(_chunk(b"IDAT", deflate.zlib_compress(_rows(indices, depth), level)))
    return SIGNATURE + b"".join(chunks) + _chunk(b"IEND", b"")


def _sorted(indices: NDArray[np.uint8], colours: NDArray[np.uint8]) -> tuple[NDArray[np.uint8], NDArray[np.uint8]]:
    """Only colours that are used, opaque ones at the end: the chunk of alphas ends before them."""
    used = np.flatnonzero(np.bincount(indices.ravel(), minlength=len(colours)))
    order = used[np.argsort(colours[used, 3] == 255, kind="stable")]
    if len(order) == len(colours) and (order[:-1] < order[1:]).all():
        return indices, colours
    position = np.zeros(len(colours), np.uint8)
    position[order] = np.arange(len(order))
    return position[indices], colours[order]


def _rows(indices: NDArray[np.uint8], depth: int) -> bytes:
    """Each row with its filter byte before it, several indices to a byte where they are short."""
    if depth < 8:
        bits = np.unpackbits(indices[..., None], axis=-1)[..., 8 - depth :]
        indices = np.packbits(bits.reshape(len(indices), -1), axis=1)
    return np.pad(indices, ((0, 0), (1, 0)), constant_values=NO_FILTER).tobytes()


def _chunk(kind: bytes, data: bytes) -> bytes:
    return struct.pack(">I", len(data)) + kind + data + struct.pack(">I", zlib.crc32(kind + data))
