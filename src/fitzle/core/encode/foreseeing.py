"""What the search for a large picture can expect: the same search on tiles of it costs a fraction."""

from __future__ import annotations

import time
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import lru_cache

import numpy as np

from fitzle.core.encode.knob import Guide, Setting, largest_under
from fitzle.core.encode.line import Line
from fitzle.core.encode.raster import Raster

NEAR_ENOUGH = 0.93  # of the limit: whole files correct what tiles say by more than that
DRAFTED_ENOUGH = 0.98  # drafts are exact but for what packing takes off, and of that
DRAFTED_HIGH = 1.005  # times what tiles say: a file a little too light is one encode, one too heavy two
EMPTY_PX = 16
SURELY_OVER = 1.3  # times the limit by its tiles: not worth encoding whole
SURELY_OVER_LOSSLESS = 1.45  # whose tiles are packed worse in a hurry
SURELY_OVER_DRAWN = 4.0  # flat areas weigh nothing, the seams of tiles across them do


class Foresight:
    """One line on the tiles of a large raster: where its search likely ends, and how that would look."""

    _enough = NEAR_ENOUGH

    def __init__(self, line: Line, raster: Raster, sample: Raster, limit: int) -> None:
        self._line, self._raster, self._sample, self._limit = line, raster, sample, limit
        self._share = raster.sampled_share
        self._hurry = line.hurry if _drafted(line, raster) else 1.0  # larger ones are packed hardly better
        self._files: dict[int, bytes] = {}
        self._longest_s = 0.0

    @property
    def seconds(self) -> float:
        """What one encoding of the whole raster takes, by its area."""
        return self._longest_s / self._share

    def position(self, part: float = 1.0) -> int:
        """The highest position whose file has at most so large a part of the limit."""
        own = overhead(self._line)
        rest = (part * self._limit - own) * self._share / self._hurry
        limit = max(1, round(own + rest))
        return self._highest_under(limit, self._guide())

    def _highest_under(self, limit: int, guide: Guide | None = None) -> int:
        line, known = self._line, [Setting(at, data) for at, data in self._files.items()]
        found = largest_under(
            self._encoded, limit, line.low, line.high, enough=self._enough, known=known, guide=guide
        ).best
        return found.position if found else line.low

    def bytes_at(self, position: int) -> float:
        """What the whole file has there, by its tiles."""
        own = overhead(self._line)
        return own + max(0.0, len(self._encoded(position)) - own) * self._hurry / self._share

    def fits(self, margin: float = SURELY_OVER) -> bool:
        """Whether the lightest file of the line may be under the limit."""
        return self.bytes_at(self._line.low) <= margin * self._limit

    def where_grown(self, position: int, times: float) -> int:
        """Where the tiles weigh so many times what they weigh at a position."""
        limit = max(1, round(len(self._encoded(position)) * times))
        return self._highest_under(limit)

    def times_packed_well(self, position: int, size: int) -> float:
        """What a file of the tiles that is packed well weighs in parts of the one that the search goes by."""
        return size / len(self._encoded(position))

    def score(self) -> float:
        """The score of the tiles where the search likely ends."""
        return self._sample.score(self._encoded(self.position()))

    def _encoded(self, position: int) -> bytes:
        if position not in self._files:
            began = time.perf_counter()
            self._files[position] = self._line.encode(self._weighed, position)
            self._longest_s = max(self._longest_s, time.perf_counter() - began)
        return self._files[position]

    def _guide(self) -> Guide | None:
        return None

    @property
    def _weighed(self) -> Raster:
        return self._sample


class Drafts(Foresight):
    """One line on whole files that are made roughly: dearer than tiles, and so near that one file is mostly enough.

    What packing well takes off a draft is learnt from the tiles: where these say that the search ends, and once more
    where the drafts say so.
    """

    _enough = DRAFTED_ENOUGH

    def __init__(self, seen: Foresight, line: Line, raster: Raster, sample: Raster, limit: int) -> None:
        super().__init__(line, raster, sample, limit)
        self._share, self._seen = 1.0, seen
        first = seen.position()
        with ThreadPoolExecutor(1) as beside:
            drafted = beside.submit(self._encoded, first)
            self._hurry = self._learnt(first)
            drafted.result()
        if (then := self.position()) != first:
            self._hurry = self._learnt(then)

    def _learnt(self, position: int) -> float:
        """What a file packed well weighs in parts of its draft, by the tiles."""
        packed_well = len(self._line.encode(self._sample.finished, position))
        return DRAFTED_HIGH * self._seen.times_packed_well(position, packed_well)

    def _guide(self) -> Guide:
        return self._guided  # not kept: what holds its own method is freed late, and the raster with it

    def _guided(self, draft: Setting, limit: int) -> int:
        """Where drafts reach the limit if they grow from this one as tiles do."""
        return self._seen.where_grown(draft.position, limit / len(draft.data))

    @property
    def _weighed(self) -> Raster:
        return self._raster.draft


def refined(seen: Foresight, line: Line, raster: Raster, limit: int) -> Foresight:
    """What is foreseen by drafts where the line has them for so large a raster, else as it was."""
    sample = raster.sample
    if sample is None or not _drafted(line, raster):
        return seen
    return Drafts(seen, line, raster, sample, limit)


def _drafted(line: Line, raster: Raster) -> bool:
    return bool(raster.width * raster.height < line.drafted_below)


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
    margin = SURELY_OVER_DRAWN if raster.drawn else SURELY_OVER_LOSSLESS
    return len(encode(sample)) > margin * limit * raster.sampled_share
