"""What encoders offer: files that lose nothing, and lines with one knob between small and good."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, NamedTuple

from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import Settings
from fitzle.core.formats import Format


class Line(NamedTuple):
    """One knob of one encoder, everything else fixed: bytes grow with its position in [low, high].

    `settings` says what a position means, `encode_as` makes the file that settings stand for. `hurry` is what a file
    weighs in parts of the one that is made of a rough raster. `drafted_below` px a whole file made roughly takes so
    little time that the search goes by such drafts, and tiles only say where they begin. Below `low_of_photos` another
    line always looks better, unless the picture is drawn.
    """

    format: Format
    name: str
    low: int
    high: int
    settings: Callable[[int], Settings]
    encode_as: Callable[[Raster, Any], bytes]
    hurry: float = 1.0
    drafted_below: int = 0
    low_of_photos: int = 0

    def encode(self, raster: Raster, position: int) -> bytes:
        """The file at a position."""
        return self.encode_as(raster, self.settings(position))

    def of_photos(self) -> Line:
        """The line without the positions that no photo needs."""
        return self._replace(low=max(self.low, self.low_of_photos))

    def fixed(self, position: int) -> Line:
        """The line with its knob at one position alone."""
        at = min(max(position, self.low), self.high)
        return self._replace(low=at, high=at)


class Exact(NamedTuple):
    """A file that loses nothing; the drawing itself where `encode` is None."""

    format: Format
    settings: Settings
    encode: Callable[[Raster], bytes] | None
