"""What was measured on pixels."""

from __future__ import annotations

from typing import Any, Literal, NamedTuple

Way = Literal["colour", "outline", "plate", "darken"]


class Stronger(NamedTuple):
    """A way to make words stand out: the colour that it takes, how much of it, and the contrast that it comes to."""

    way: Way
    colour: str
    ratio: float
    opacity: float = 1.0


class ContrastReading(NamedTuple):
    """A part's contrast (WCAG 2.2 ratio) in a colour with what is behind it, on the page where it is weakest.

    `lightness` is the Lc of APCA there. `ways` are what would make it stronger, where it is faint.
    """

    part: str
    colour: str
    ratio: float
    page: str
    lightness: float = 0.0
    ways: tuple[Stronger, ...] = ()


def reading_of(part: str, colour: str, ratio: float, page: str, lightness: float, ways: list[Any]) -> ContrastReading:
    """A reading from plain data, as a cache gives its fields back."""
    return ContrastReading(part, colour, ratio, page, lightness, tuple(Stronger(*way) for way in ways))


class Shift(NamedTuple):
    """How far a part is moved, in px of the file."""

    x: float
    y: float


class EyeReading(NamedTuple):
    """A figure that one rule goes by: of a part, or of the whole picture where `part` is empty.

    `on` is the ground in words or as a hex code, `seen_px` how long the part is seen, `colours` what it is about.
    `detail` is a second figure, `shift` the smallest shift after which nothing is left to say, `instead` the artwork
    that would do better and `instead_value` its figure.
    """

    rule: str
    part: str
    value: float
    on: str = ""
    seen_px: float = 0.0
    colours: tuple[str, ...] = ()
    detail: float = 0.0
    shift: Shift | None = None
    instead: str = ""
    instead_value: float = 0.0
