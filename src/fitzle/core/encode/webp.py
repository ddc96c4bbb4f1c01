"""WebP: lossless for drawn pictures where it fits, else lossy."""

from __future__ import annotations

import io

from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.picture import Picture
from fitzle.core.encode.result import Attempt, Encoded, Search

HIGHEST_QUALITY, LOWEST_QUALITY = 95, 1
EFFORT = 4


def encode_webp(picture: Picture, limit: int | None) -> Search:
    """The best-looking WebP of at most `limit` bytes."""
    tried: list[Attempt] = []
    if picture.drawn:
        lossless = Encoded(_lossless(picture), "webp", "lossless", 100.0)
        tried.append(lossless.attempt)
        if limit is None or len(lossless.data) <= limit:
            return Search(lossless, tried)
    picture.expect_scoring()
    found, settings = largest_under(lambda quality: _lossy(picture, quality), limit, LOWEST_QUALITY, HIGHEST_QUALITY)
    tried += [Attempt("webp", f"quality {entry.position}", len(entry.data)) for entry in settings]
    if not found:
        return Search(None, tried)
    return Search(Encoded(found.data, "webp", f"quality {found.position}", picture.score(found.data)), tried)


def _lossless(picture: Picture) -> bytes:
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(picture.bands).save(out, "WEBP", lossless=True, quality=80, method=4)
    return out.getvalue()


def _lossy(picture: Picture, quality: int) -> bytes:
    return bytes(picture.vips.webpsave_buffer(Q=quality, effort=EFFORT, smart_subsample=True, keep="none"))
