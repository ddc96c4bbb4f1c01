"""BMP: nothing to search; it is as large as its pixels."""

from __future__ import annotations

import io

from fitzle.core.encode.picture import Picture
from fitzle.core.encode.result import Encoded, Search


def encode_bmp(picture: Picture, limit: int | None) -> Search:
    """An uncompressed 24-bit BMP, where it is at most `limit` bytes; alpha must have been flattened before."""
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(picture.rgb).save(out, "BMP")
    found = Encoded(out.getvalue(), "bmp", "uncompressed", 100.0)
    fits = limit is None or len(found.data) <= limit
    return Search(found if fits else None, [found.attempt])
