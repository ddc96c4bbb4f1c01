"""What the search for a large picture can expect: the same search on tiles of it costs a fraction."""

from __future__ import annotations

import math
import time
from collections.abc import Callable
from functools import lru_cache

import numpy as np

from fitzle.core.encode.knob import largest_under
from fitzle.core.encode.line import Line
from fitzle.core.encode.raster import Raster

NEAR_ENOUGH = 0.93  # of the limit: whole files correct what tiles say by more than that
NEAR = math.log(2)
EMPTY_PX = 16
SURELY_OVER = 1.3  # times the limit by its tiles: not worth encoding whole
SURELY_OVER_DRAWN = 4.0  # flat areas weigh nothing, the seams of tiles across them do


class Foresight:
    """One line on the tiles of a large raster: where its search likely ends, and how that would look."""

    def __init__(self, line: Line, raster: Raster, sample: Raster, limit: int) -> None:
        self._line, self._raster, self._sample, self._limit = line, raster, sample, limit
        self._files: dict[int, bytes] = {}
        self._longest_s = 0.0

    @property
    def seconds(self) -> float:
        """What one encoding of the whole raster takes, by its area."""
        return self._longest_s / self._raster.sampled_share

    def position(self, part: float = 1.0) -> int:
        """The highest position whose file has at most so large a part of the limit."""
        line, own = self._line, overhead(self._line)
        rest = (part * self._limit - own) * self._raster.sampled_share / line.hurry
        limit = max(1, round(own + rest))
        found = largest_under(
            self._encoded, limit, line.low, line.high, start=self._nearest(limit), enough=NEAR_ENOUGH
        ).best
        return found.position if found else line.low

    def bytes_at(self, position: int) -> float:
        """What the whole file has there, by its tiles."""
        own = overhead(self._line)
        return own + max(0.0, len(self._encoded(position)) - own) * self._line.hurry / self._raster.sampled_share

    def fits(self, margin: float = SURELY_OVER) -> bool:
        """Whether the lightest file of the line may be under the limit."""
        return self.bytes_at(self._line.low) <= margin * self._limit

    def score(self) -> float:
        """The score of the tiles where the search likely ends."""
        return self._sample.score(self._encoded(self.position()))

    def _encoded(self, position: int) -> bytes:
        if position not in self._files:
            began = time.perf_counter()
            self._files[position] = self._line.encode(self._sample, position)
            self._longest_s = max(self._longest_s, time.perf_counter() - began)
        return self._files[position]

    def _nearest(self, limit: int) -> int | None:
        """Where to begin: at the known file whose weight is nearest, where one is near at all."""
        apart = {at: abs(math.log(len(data) / limit)) for at, data in self._files.items()}
        nearest = min(apart, key=lambda at: apart[at], default=None)
        return nearest if nearest is not None and apart[nearest] < NEAR else None


@lru_cache(maxsize=64)
def overhead(line: Line) -> int:
    """The bytes that a file of a line has before any picture: a few hundred, which tiles have as well as the whole."""
    grey = np.full((EMPTY_PX, EMPTY_PX, 4), 128, np.uint8)
    grey[..., 3] = 255
    return len(line.encode(Raster(grey, rough=True), line.low))


def foresight(line: Line, raster: Raster, limit: int | None) -> Foresight | None:
    """A line's foresight; None for a small raster, and without a limit."""
    sample = raster.sample
    return None if sample is None or limit is None else Foresight(line, raster, sample, limit)


def surely_over(encode: Callable[[Raster], bytes], raster: Raster, limit: int | None) -> bool:
    """Whether the tiles of a large raster say that its file will be over the limit by far."""
    sample = raster.sample
    if sample is None or limit is None:
        return False
    margin = SURELY_OVER_DRAWN if raster.drawn else SURELY_OVER
    return len(encode(sample)) > margin * limit * raster.sampled_share
