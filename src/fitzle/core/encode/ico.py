"""ICO with exact sizes: PNG entries, and uncompressed ones below 48 px for old readers.

The directory is made of ICONDIR and ICONDIRENTRY; the uncompressed entry a BITMAPINFOHEADER of twice the
height, bottom-up BGRA rows and a one-bit mask.
"""

from __future__ import annotations

import struct

import numpy as np

from fitzle.core.encode.picture import Picture
from fitzle.core.encode.png import lossless_png
from fitzle.core.encode.result import Encoded, Search

LARGEST_SIDE_PX = 256
UNCOMPRESSED_BELOW_PX = 48


def encode_ico(picture: Picture, limit: int | None) -> Search:
    """An ICO with this one picture, where it is at most 256 px and `limit` bytes."""
    if max(picture.width, picture.height) > LARGEST_SIDE_PX:
        return Search(None, [])
    found = [
        Encoded(ico_file([picture], compressed), "ico", words, 100.0)
        for compressed, words in ((False, "uncompressed entry"), (True, "PNG entry"))
    ]
    if max(picture.width, picture.height) >= UNCOMPRESSED_BELOW_PX:
        found.reverse()
    fitting = [entry for entry in found if limit is None or len(entry.data) <= limit]
    return Search(fitting[0] if fitting else None, [entry.attempt for entry in found])


def ico_file(pictures: list[Picture], compressed: bool) -> bytes:
    """The bytes of an ICO with one entry for each picture, in this order."""
    entries = [
        lossless_png(picture, full_colour=True) if compressed else _uncompressed(picture) for picture in pictures
    ]
    directory = struct.pack("<HHH", 0, 1, len(entries))
    offset = len(directory) + 16 * len(entries)
    for picture, entry in zip(pictures, entries, strict=True):
        directory += struct.pack(
            "<BBBBHHII", picture.width % 256, picture.height % 256, 0, 0, 1, 32, len(entry), offset
        )
        offset += len(entry)
    return directory + b"".join(entries)


def _uncompressed(picture: Picture) -> bytes:
    header = struct.pack("<IiiHHIIiiII", 40, picture.width, picture.height * 2, 1, 32, 0, 0, 0, 0, 0, 0)
    upside_down = picture.pixels[::-1]
    clear = np.packbits(upside_down[..., 3] == 0, axis=1)
    row_bytes = (picture.width + 31) // 32 * 4
    mask = np.zeros((picture.height, row_bytes), dtype=np.uint8)
    mask[:, : clear.shape[1]] = clear
    return header + upside_down[..., [2, 1, 0, 3]].tobytes() + mask.tobytes()
