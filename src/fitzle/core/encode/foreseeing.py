"""What the search for a large picture can expect: the same search on tiles of it costs a fraction."""

from __future__ import annotations

import time
from collections.abc import Callable
from functools import cache

from fitzle.core.encode.knob import Expected, largest_under
from fitzle.core.encode.raster import Raster

SAFE_SHARE = 0.7  # of the limit: what tiles put there stays below it whole
SURELY_OVER = 1.3  # times the limit by its tiles: not worth encoding whole
SURELY_OVER_DRAWN = 4.0  # flat areas weigh nothing, the seams of tiles across them do


def expectation(
    encode: Callable[[Raster, int], bytes], raster: Raster, limit: int | None, low: int, high: int
) -> Expected | None:
    """Where a search on the raster likely ends, and how long one encoding takes; None for a small raster."""
    sample = raster.sample
    if sample is None or limit is None:
        return None
    seconds = list[float]()

    def timed(position: int) -> bytes:
        began = time.perf_counter()
        data = encode(sample, position)
        seconds.append(time.perf_counter() - began)
        return data

    share = limit * raster.sampled_share

    def position_under(part: float) -> int:
        found = largest_under(timed, round(part * share), low, high).best
        return found.position if found else low

    likely = position_under(1.0)
    return Expected(likely, cache(lambda: position_under(SAFE_SHARE)), max(seconds) / raster.sampled_share)


def surely_over(encode: Callable[[Raster], bytes], raster: Raster, limit: int | None) -> bool:
    """Whether the tiles of a large raster say that its file will be over the limit by far."""
    sample = raster.sample
    if sample is None or limit is None:
        return False
    margin = SURELY_OVER_DRAWN if raster.drawn else SURELY_OVER
    return len(encode(sample)) > margin * limit * raster.sampled_share
