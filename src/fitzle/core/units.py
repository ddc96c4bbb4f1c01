"""Pixels and bytes. `px` is a pixel of the delivered file, `seen px` one of the viewer's screen."""

from __future__ import annotations

import math
from typing import NamedTuple

BYTES_PER_KB = 1000  # destinations state decimal kilobytes


class Size(NamedTuple):
    """Width and height of a delivered picture in px."""

    width: int
    height: int

    @property
    def short_side(self) -> int:
        """The smaller of both, in px."""
        return min(self.width, self.height)

    @property
    def ratio(self) -> float:
        """Width divided by height."""
        return self.width / self.height

    def __str__(self) -> str:
        return f"{self.width}x{self.height}"


def parse_ratio(text: str) -> float:
    """`16:9` as 1.777…; raises ValueError when it is not two positive numbers."""
    left, _, right = text.partition(":")
    width, height = float(left), float(right)
    if not (0 < width < math.inf and 0 < height < math.inf):
        raise ValueError("a ratio needs two positive numbers, for example 16:9")
    return width / height


def ratio_precision(text: str) -> float:
    """How far a ratio may be from what is written: one of its last figure where it has decimals, else nothing.

    Pages write 1200 x 630 px, which are 1.905:1, as 1.91:1 and as 1.9:1.
    """
    numbers = text.split(":")
    relative = sum(10.0 ** -len(one.partition(".")[2]) / float(one) for one in numbers if "." in one)
    return parse_ratio(text) * relative


def words_for_weight(count: int | None, limit: int | None) -> str:
    """A weight beside its limit, in the limit's unit: `246 of 300 KB`; `up to 300 KB` where there is no file yet."""
    if count is None:
        return f"up to {words_for_bytes(limit)}" if limit else "any weight"
    if not limit:
        return words_for_bytes(count)
    most, unit = words_for_bytes(limit).split(" ")
    value = count / {"MB": BYTES_PER_KB**2, "KB": BYTES_PER_KB}.get(unit, 1)
    shown = f"{value:.0f}" if unit == "bytes" or value >= 10 else f"{value:.1f}"
    return f"{shown} of {most} {unit}"


def words_for_bytes(count: int) -> str:
    """A count of bytes the way a person writes it: `246 KB`, `1.5 MB`, `20 GB` (decimal)."""
    if count < BYTES_PER_KB:
        return f"{count} bytes"
    kilobytes = count / BYTES_PER_KB
    if kilobytes < BYTES_PER_KB:
        return f"{kilobytes:.1f} KB" if kilobytes < 10 else f"{kilobytes:.0f} KB"
    megabytes = kilobytes / BYTES_PER_KB
    if megabytes < BYTES_PER_KB:
        return f"{megabytes:.1f} MB" if megabytes < 100 else f"{megabytes:.0f} MB"
    return f"{megabytes / BYTES_PER_KB:.1f} GB".replace(".0 GB", " GB")
