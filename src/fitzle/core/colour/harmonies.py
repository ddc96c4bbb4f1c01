"""Colours that go with one: five usual harmonies, turned round the hues of OKLCH at the same lightness.

A colour that sRGB does not have at that lightness loses chroma until it has (CSS Color 4, section 13.2, by halving).
"""

from __future__ import annotations

import math

import numpy as np

from fitzle.core.colour.oklab import from_lch, from_oklab, oklab, to_lch
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex

HARMONIES: dict[str, tuple[float, ...]] = {
    "complement": (180,),
    "neighbours": (-30, 30),
    "split complement": (150, 210),
    "triad": (120, 240),
    "square": (90, 180, 270),
}
ROUNDS = 12  # of halving: chroma to a four-thousandth
SAME = 1e-3  # of OKLab: far below what is seen


def harmonies(colour: str) -> dict[str, list[str]]:
    """For each harmony its colours as hex codes, without the colour itself."""
    lch = to_lch(oklab(np.array(parse_hex(colour), dtype=np.uint8)))
    return {name: [_turned(lch, degrees) for degrees in turns] for name, turns in HARMONIES.items()}


def _turned(lch: np.ndarray, degrees: float) -> str:
    wanted = np.array([lch[0], lch[1], lch[2] + math.radians(degrees)])
    low, high = 0.0, float(lch[1])
    if not _is_in_srgb(wanted):
        for _ in range(ROUNDS):
            wanted[1] = (low + high) / 2
            low, high = (wanted[1], high) if _is_in_srgb(wanted) else (low, wanted[1])
        wanted[1] = low
    red, green, blue = np.rint(np.clip(from_oklab(from_lch(wanted)), 0, 255)).astype(int)
    return to_hex(Rgb(int(red), int(green), int(blue)))


def _is_in_srgb(lch: np.ndarray) -> bool:
    """Whether there and back again is the same colour: `from_oklab` clips what sRGB does not have."""
    there = from_lch(lch)
    return bool(np.abs(oklab(from_oklab(there)) - there).max() < SAME)  # type: ignore[arg-type]
