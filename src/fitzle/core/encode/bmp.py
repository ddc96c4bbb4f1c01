"""BMP: nothing to search; it is as large as its pixels."""

from __future__ import annotations

import io

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Encoded, Search
from fitzle.core.encode.settings import Uncompressed


def search_bmp(rendered: Rendered, limit: int | None, _budget: Budget) -> Search:
    """An uncompressed 24-bit BMP, where it is at most `limit` bytes; alpha must have been flattened before."""
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(rendered.raster.rgb).save(out, "BMP")
    found = Encoded(out.getvalue(), "bmp", Uncompressed(), 100.0)
    fits = limit is None or len(found.data) <= limit
    return Search(found if fits else None, [found.candidate])
