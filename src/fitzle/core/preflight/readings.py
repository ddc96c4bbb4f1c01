"""A contrast that was measured on pixels."""

from __future__ import annotations

from typing import NamedTuple


class ContrastReading(NamedTuple):
    """A part's contrast (WCAG 2.2 ratio) in a colour with what is behind it, on the page where it is weakest."""

    part: str
    colour: str
    ratio: float
    page: str
