"""What was measured on pixels."""

from __future__ import annotations

from typing import NamedTuple


class ContrastReading(NamedTuple):
    """A part's contrast (WCAG 2.2 ratio) in a colour with what is behind it, on the page where it is weakest."""

    part: str
    colour: str
    ratio: float
    page: str


class EyeReading(NamedTuple):
    """A figure that one rule goes by: of a part, or of the whole picture where `part` is empty.

    `on` is the ground in words or as a hex code, `seen_px` how long the part is seen, `colours` what it is about.
    """

    rule: str
    part: str
    value: float
    on: str = ""
    seen_px: float = 0.0
    colours: tuple[str, ...] = ()
