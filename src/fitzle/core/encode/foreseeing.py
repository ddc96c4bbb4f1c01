"""Where the search for a large picture begins: the same search on tiles of it costs a fraction."""

from __future__ import annotations

from collections.abc import Callable

from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.raster import Raster


def expected_position(
    encode: Callable[[Raster, int], bytes], raster: Raster, limit: int | None, low: int, high: int
) -> int | None:
    """The knob's position at which tiles of the raster take their share of the limit; None for a small raster."""
    sample = raster.sample
    if sample is None or limit is None:
        return None
    share = round(limit * raster.sampled_share)
    found = largest_under(lambda position: encode(sample, position), share, low, high).best
    return found.position if found else low


def expected_bytes(encode: Callable[[Raster], bytes], raster: Raster) -> float | None:
    """About how many bytes a file of the raster takes, by its tiles; None for a small raster."""
    sample = raster.sample
    return len(encode(sample)) / raster.sampled_share if sample else None
