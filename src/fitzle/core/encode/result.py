"""What the search for a file tried and found."""

from __future__ import annotations

from typing import NamedTuple

from fitzle.core.spec.sheet import Format


class Attempt(NamedTuple):
    """One encoding that was made: format, settings in words, bytes."""

    format: Format
    settings: str
    bytes: int


class Encoded(NamedTuple):
    """A file: its bytes, format, settings in words and SSIMULACRA2 score (100: nothing was lost)."""

    data: bytes
    format: Format
    settings: str
    score: float

    @property
    def attempt(self) -> Attempt:
        """As one line of what was tried."""
        return Attempt(self.format, self.settings, len(self.data))


class Search(NamedTuple):
    """The best file of one format under the limit, or None, and everything that was tried."""

    best: Encoded | None
    tried: list[Attempt]


def best_of(candidates: list[Encoded]) -> Encoded | None:
    """The highest score; of equals the smaller file."""
    return max(candidates, key=lambda found: (found.score, -len(found.data)), default=None)
