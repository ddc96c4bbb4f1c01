"""Turning one knob of an encoder to the largest file under a limit."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

ENOUGH = 0.97  # of the limit: what is left would not be seen (facts/encoding.md)
BRACKET = 2  # quality steps
MOST_ENCODES = 9
FIRST_GUESS_POWER = 0.6  # bytes to quality for photos in JPEG and WebP; a guess, the secant corrects it
FARTHEST_MISS = 0.6  # after a guess that was too high go down by at least this factor


class Setting(NamedTuple):
    """A position of the knob and the file that it gave."""

    position: int
    data: bytes


def largest_under(
    encode: Callable[[int], bytes], limit: int | None, low: int, high: int, *, lowest_first: bool = False
) -> tuple[Setting | None, list[Setting]]:
    """The highest position of [low, high] whose file is at most `limit` bytes, and all that was tried.

    Secant steps on the logarithm of the bytes inside a bracket; bytes should grow with the position, but a file over
    the limit is never returned even where they do not. `lowest_first` asks early whether the lowest position fits,
    for slow encoders that often cannot get there.
    """
    top = Setting(high, encode(high))
    tried = [top]
    if limit is None or len(top.data) <= limit:
        return top, tried
    bottom: Setting | None = None
    if lowest_first:
        tried.append(bottom := Setting(low, encode(low)))
        if len(bottom.data) > limit:
            return None, tried
    while len(tried) < MOST_ENCODES:
        position = _secant(bottom, top, limit) if bottom else _guess(top, limit, low)
        tried.append(found := Setting(position, encode(position)))
        if len(found.data) <= limit:
            bottom = found
        else:
            top = found
        if top.position == low:
            return None, tried
        if bottom and (top.position - bottom.position <= BRACKET or len(bottom.data) >= ENOUGH * limit):
            return bottom, tried
    if bottom is None:
        tried.append(last := Setting(low, encode(low)))
        bottom = last if len(last.data) <= limit else None
    return bottom, tried


def _guess(top: Setting, limit: int, low: int) -> int:
    share = float((limit / len(top.data)) ** FIRST_GUESS_POWER)
    return min(max(low, round(low + min(share, FARTHEST_MISS) * (top.position - low))), top.position - 1)


def _secant(bottom: Setting, top: Setting, limit: int) -> int:
    rise = math.log(len(top.data)) - math.log(len(bottom.data))
    share = (math.log(limit) - math.log(len(bottom.data))) / rise if rise > 0 else 0.5
    position = bottom.position + share * (top.position - bottom.position)
    return min(max(round(position), bottom.position + 1), top.position - 1)
