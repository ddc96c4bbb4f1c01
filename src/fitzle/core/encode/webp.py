"""WebP: lossless for drawn pictures where it fits, else lossy."""

from __future__ import annotations

import io
from functools import partial

from fitzle.core.encode.budget import Budget
from fitzle.core.encode.foreseeing import expectation, surely_over
from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.rendered import Rendered
from fitzle.core.encode.result import Candidate, Encoded, Search
from fitzle.core.encode.settings import Lossless, LossySettings

HIGHEST_QUALITY, LOWEST_QUALITY = 95, 1
EFFORT = 4
LARGE_PIXELS = 4_000_000  # from there on a search would otherwise take longer than it may:
QUICK_EFFORT = 2  # a third of the time, two in a hundred bytes more; and colour is halved plainly, in a third too


def search_webp(rendered: Rendered, limit: int | None, budget: Budget) -> Search:
    """The best-looking WebP of at most `limit` bytes."""
    raster, candidates = rendered.raster, list[Candidate]()
    if raster.drawn and not surely_over(_lossless, raster, limit):
        lossless = Encoded(_lossless(raster), "webp", Lossless(), 100.0)
        candidates.append(lossless.candidate)
        if limit is None or len(lossless.data) <= limit:
            return Search(lossless, candidates)
    lossy = partial(_lossy, quick=raster.width * raster.height >= LARGE_PIXELS)
    expected = expectation(lossy, raster, limit, LOWEST_QUALITY, HIGHEST_QUALITY)
    found, tried = largest_under(
        partial(lossy, raster),
        limit,
        LOWEST_QUALITY,
        HIGHEST_QUALITY,
        expected=expected,
        budget=budget,
    )
    candidates += [Candidate("webp", LossySettings(quality=entry.position), len(entry.data)) for entry in tried]
    if not found:
        return Search(None, candidates)
    best = Encoded(found.data, "webp", LossySettings(quality=found.position), raster.score(found.data))
    return Search(best, [best.candidate if entry.settings == best.settings else entry for entry in candidates])


def _lossless(raster: Raster) -> bytes:
    from PIL import Image

    out = io.BytesIO()
    Image.fromarray(raster.bands).save(out, "WEBP", lossless=True, quality=80, method=4)
    return out.getvalue()


def _lossy(raster: Raster, quality: int, *, quick: bool = False) -> bytes:
    effort = QUICK_EFFORT if quick else EFFORT
    return bytes(raster.vips.webpsave_buffer(Q=quality, effort=effort, smart_subsample=not quick, keep="none"))
