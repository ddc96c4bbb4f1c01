"""SVGZ: an SVG packed with gzip (SVG 2, section 8.8)."""

from __future__ import annotations

import zlib

from fitzle.core.artwork.limits import Limits
from fitzle.core.errors import ArtworkError, LimitError
from fitzle.core.units import words_for_bytes

GZIP = b"\x1f\x8b"
_WITH_GZIP_HEADER = 31  # zlib: 15 bits of window, 16 for the header of gzip


def unpacked_svg(data: bytes, limits: Limits) -> bytes:
    """What a gzip file holds, other files as they are; raises ArtworkError, or LimitError before memory is used up."""
    if not data.startswith(GZIP):
        return data
    packed = zlib.decompressobj(_WITH_GZIP_HEADER)
    try:
        unpacked = packed.decompress(data, limits.max_svg_bytes + 1)
    except zlib.error as error:
        raise ArtworkError("the gzip archive is damaged", advice="Copy or export it again.") from error
    if len(unpacked) > limits.max_svg_bytes:
        raise LimitError(
            "what is packed in this file is too large", advice=f"At most {words_for_bytes(limits.max_svg_bytes)}."
        )
    if not packed.eof:
        raise ArtworkError("the file is cut off: its end is missing", advice="Copy or export it again.")
    return unpacked
