"""Numbers as people write them: 1280, 1,500, 1.500, 1 500 and 1'500 are whole; 1.5 and 1,5 are not."""

from __future__ import annotations

import re

FIGURES = r"(?:\d{1,3}(?:[.,']\d{3})+(?![\d])|\d{1,2} \d{3}(?!\d)|\d+(?:[.,]\d+)?)"
NUMBER = rf"(?<![\w#.,]){FIGURES}"
_THOUSANDS = re.compile(r"\d{1,3}(?:[.,' ]\d{3})+")


def whole(text: str) -> float:
    """A number of which groups of three figures are thousands: px, kilobytes, characters."""
    if _THOUSANDS.fullmatch(text):
        return float(re.sub(r"[.,' ]", "", text))
    return float(text.replace(",", "."))


def decimal(text: str) -> float:
    """A number that may have three decimals: megabytes, seconds."""
    return float(text.replace(" ", "").replace("'", "").replace(",", "."))
