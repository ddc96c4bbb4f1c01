"""BMP: nothing to search; it is as large as its pixels."""

from __future__ import annotations

import io

from fitzle.core.encode.line import Exact
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import Uncompressed


def encode_bmp(raster: Raster) -> bytes:
    """An uncompressed 24-bit BMP; alpha must have been flattened before."""
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(raster.rgb).save(out, "BMP")
    return out.getvalue()


BMP_EXACT = Exact("bmp", Uncompressed(), encode_bmp)
