"""A colour made lighter or darker until its neighbour can be told from it; its hue is kept (OKLCH)."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from fitzle.core.colour.oklab import from_lch, from_oklab, oklab, to_lch
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex

STEP = 0.02  # of lightness


def moved_apart(colour: str, neighbour: str, holds: Callable[[Rgb, Rgb], bool]) -> str | None:
    """The colour (hex) with the least other lightness for which `holds(colour, neighbour)`; None where none does."""
    own = to_lch(oklab(np.array(parse_hex(colour), dtype=np.uint8)))
    other = parse_hex(neighbour)
    lightness = sorted(np.arange(0.05, 1.0, STEP), key=lambda value: abs(value - own[0]))
    for value in lightness:
        moved = _rgb(np.array([value, own[1], own[2]]))
        if holds(moved, other):
            return to_hex(moved)
    return None


def _rgb(lch: np.ndarray) -> Rgb:
    red, green, blue = np.rint(np.clip(from_oklab(from_lch(lch)), 0, 255)).astype(int)
    return Rgb(int(red), int(green), int(blue))
