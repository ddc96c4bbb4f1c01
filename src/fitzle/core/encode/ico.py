"""ICO with exact sizes: PNG entries, and uncompressed ones below 48 px for old readers.

The directory is made of ICONDIR and ICONDIRENTRY; the uncompressed entry a BITMAPINFOHEADER of twice the
height, bottom-up BGRA rows and a one-bit mask.
"""

from __future__ import annotations

import struct

import numpy as np

from fitzle.core.encode.png import lossless_png
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import IconEntry

UNCOMPRESSED_BELOW_PX = 48


def encode_ico(raster: Raster, settings: IconEntry) -> bytes:
    """An ICO with this one picture."""
    return ico_file([raster], settings.packed == "png")


def icon_entries(raster: Raster) -> list[IconEntry]:
    """How the picture may lie in it; first what readers of its size take."""
    entries = [IconEntry(packed="uncompressed"), IconEntry(packed="png")]
    return entries if max(raster.width, raster.height) < UNCOMPRESSED_BELOW_PX else entries[::-1]


def ico_file(rasters: list[Raster], compressed: bool) -> bytes:
    """The bytes of an ICO with one entry for each raster, in this order."""
    return _joined(rasters, [compressed] * len(rasters))


def icon_file(rasters: list[Raster]) -> bytes:
    """An ICO with an entry for each raster, as readers of its size take it."""
    return _joined(rasters, [max(raster.width, raster.height) >= UNCOMPRESSED_BELOW_PX for raster in rasters])


def _joined(rasters: list[Raster], compressed: list[bool]) -> bytes:
    entries = [
        lossless_png(raster, full_colour=True) if packed else _uncompressed(raster)
        for raster, packed in zip(rasters, compressed, strict=True)
    ]
    directory = struct.pack("<HHH", 0, 1, len(entries))
    offset = len(directory) + 16 * len(entries)
    for raster, entry in zip(rasters, entries, strict=True):
        directory += struct.pack("<BBBBHHII", raster.width % 256, raster.height % 256, 0, 0, 1, 32, len(entry), offset)
        offset += len(entry)
    return directory + b"".join(entries)


def _uncompressed(raster: Raster) -> bytes:
    header = struct.pack("<IiiHHIIiiII", 40, raster.width, raster.height * 2, 1, 32, 0, 0, 0, 0, 0, 0)
    upside_down = raster.pixels[::-1]
    clear = np.packbits(upside_down[..., 3] == 0, axis=1)
    row_bytes = (raster.width + 31) // 32 * 4
    mask = np.zeros((raster.height, row_bytes), dtype=np.uint8)
    mask[:, : clear.shape[1]] = clear
    return header + upside_down[..., [2, 1, 0, 3]].tobytes() + mask.tobytes()
