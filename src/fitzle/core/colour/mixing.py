"""Gradients without a muddy middle: colours mixed in OKLab, or in OKLCH along the shorter way round the hues."""

from __future__ import annotations

import math
from collections.abc import Sequence
from itertools import pairwise
from typing import Literal, NamedTuple

import numpy as np

from fitzle.core.colour.oklab import from_lch, from_oklab, oklab, to_lch
from fitzle.core.colour.srgb import Rgb, parse_hex

BETWEEN = 16  # sRGB stops between two stops: straight lines between them are then within half a level of 255
GREY_CHROMA = 1e-3  # below that a colour has no hue of its own and takes the other's

Mix = Literal["oklab", "oklch"]


class MixedStop(NamedTuple):
    """An sRGB colour at a place of a gradient; opacity 0 to 1."""

    at: float
    colour: Rgb
    opacity: float


def mixed_stops(stops: Sequence[tuple[float, str, float]], mix: Mix = "oklab") -> list[MixedStop]:
    """Stops (place, hex, opacity) with so many more between them that a renderer may mix those in plain sRGB."""
    line = [MixedStop(stops[0][0], parse_hex(stops[0][1]), stops[0][2])]
    for one, two in pairwise(stops):
        colours = _between(one[1], two[1], mix)
        for index, colour in enumerate(colours, 1):
            share = index / len(colours)
            line.append(MixedStop(one[0] + share * (two[0] - one[0]), colour, one[2] + share * (two[2] - one[2])))
    return line


def _between(one: str, two: str, mix: Mix) -> list[Rgb]:
    """The colours after `one` up to and with `two`."""
    ends = oklab(np.array([parse_hex(one), parse_hex(two)], dtype=np.uint8))
    shares = np.linspace(0, 1, BETWEEN + 1)[1:, None]
    straight = ends[0] + shares * (ends[1] - ends[0])
    mixed = from_lch(_hues_joined(to_lch(ends), shares)) if mix == "oklch" else straight
    return [Rgb(int(red), int(green), int(blue)) for red, green, blue in np.rint(from_oklab(mixed))]


def _hues_joined(lch: np.ndarray, shares: np.ndarray) -> np.ndarray:
    first, last = lch[0].copy(), lch[1].copy()
    if first[1] < GREY_CHROMA:
        first[2] = last[2]
    if last[1] < GREY_CHROMA:
        last[2] = first[2]
    way = (last[2] - first[2] + math.pi) % (2 * math.pi) - math.pi
    last[2] = first[2] + way
    return np.asarray(first + shares * (last - first))
