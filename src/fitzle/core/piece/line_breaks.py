"""Words without the line breaks that they were written with."""

from __future__ import annotations

import unicodedata
from itertools import pairwise

_WIDE = ("W", "F")  # UAX #11: between such letters no space is written


def joined_lines(text: str) -> str:
    """All lines as one, with a space where words meet; none between letters of scripts that are written without."""
    lines = [line.strip() for line in text.split("\n") if line.strip()]
    found = lines[:1]
    for upper, lower in pairwise(lines):
        found.append(lower if _wide(upper[-1]) and _wide(lower[0]) else f" {lower}")
    return "".join(found)


def _wide(letter: str) -> bool:
    return unicodedata.east_asian_width(letter) in _WIDE
