"""Colours of a house style as a mark proposes them: its own, and an ink and a paper that read on one another."""

from __future__ import annotations

from collections.abc import Iterable
from typing import NamedTuple

import numpy as np

from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.names import colour_name
from fitzle.core.colour.oklab import difference, from_lch, from_oklab, oklab, to_lch
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex

LEAST_SHARE, MOST_OWN = 0.02, 5  # smaller shares are the seams between colours
SAME = 0.06  # OKLab distance below which two would be taken for one; about three times just noticeable
INK, PAPER = (0.26, 0.045), (0.965, 0.015)  # OKLCH lightness and most chroma: they read on one another at 13:1 or more


class NamedColour(NamedTuple):
    """A colour of the house: a name to be changed, and its hex code."""

    name: str
    hex: str


def proposed_colours(shares: Iterable[ColourShare], backdrop: str | None = None) -> list[NamedColour]:
    """The colours of a mark in the order of their shares, then ink and paper in the hue of the first.

    The backdrop of an opaque mark is none of its colours. Those too alike are taken once.
    """
    own = [share.hex for share in shares if share.share >= LEAST_SHARE]
    kept = _apart([colour for colour in own if not backdrop or not _alike(colour, backdrop)])[:MOST_OWN]
    first = kept[0] if kept else "#000000"
    ink, paper = _in_hue_of(first, *INK), _in_hue_of(first, *PAPER)
    return _named(_apart([*kept, ink, paper]), {ink: "Ink", paper: "Paper"})


def _apart(colours: Iterable[str]) -> list[str]:
    kept: list[str] = []
    for colour in colours:
        if not any(_alike(colour, other) for other in kept):
            kept.append(colour)
    return kept


def _alike(one: str, other: str) -> bool:
    return difference(parse_hex(one), parse_hex(other)) < SAME


def _in_hue_of(colour: str, lightness: float, chroma: float) -> str:
    lch = to_lch(oklab(np.array(parse_hex(colour), dtype=np.uint8)))
    lab = from_lch(np.array([lightness, min(float(lch[1]), chroma), lch[2]]))
    red, green, blue = np.rint(np.clip(from_oklab(lab), 0, 255)).astype(int)
    return to_hex(Rgb(int(red), int(green), int(blue)))


def _named(colours: list[str], known: dict[str, str]) -> list[NamedColour]:
    found: list[NamedColour] = []
    for colour in colours:
        name = known.get(colour) or colour_name(colour)
        taken = sum(one.name == name or one.name.startswith(f"{name} ") for one in found)
        found.append(NamedColour(f"{name} {taken + 1}" if taken else name, colour))
    return found
