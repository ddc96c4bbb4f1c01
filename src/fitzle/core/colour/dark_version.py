"""A mark's colours for dark grounds, as a proposal: near-black becomes near-white, other colours keep their hue.

Lightness is moved in OKLCH until each colour reaches 3:1 on the ground (WCAG 2.2, success criterion 1.4.11).
"""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np

from fitzle.core.colour.contrast import LEAST_GRAPHICS_CONTRAST, contrast_ratio
from fitzle.core.colour.oklab import from_lch, from_oklab, oklab, to_lch
from fitzle.core.colour.srgb import Rgb, parse_hex, to_hex

DARK_GROUND = "#17181a"
NEAR_BLACK, GREY_CHROMA = 0.4, 0.04  # OKLCH lightness and chroma: what counts as ink
NEAR_WHITE = 0.96
STEP = 0.01


def for_dark_grounds(colours: Iterable[str], ground: str = DARK_GROUND) -> list[tuple[str, str]]:
    """(from, to) for those of a mark's colours that do not stand out on a dark ground."""
    behind = parse_hex(ground)
    pairs = [(colour, _lightened(colour, behind)) for colour in colours]
    return [(one, other) for one, other in pairs if one != other]


def _lightened(colour: str, behind: Rgb) -> str:
    if contrast_ratio(parse_hex(colour), behind) >= LEAST_GRAPHICS_CONTRAST:
        return colour
    lch = to_lch(oklab(np.array(parse_hex(colour), dtype=np.uint8)))
    if lch[0] < NEAR_BLACK and lch[1] < GREY_CHROMA:
        lch[0] = NEAR_WHITE
        return _hex(lch)
    while lch[0] < 1 and contrast_ratio(parse_hex(_hex(lch)), behind) < LEAST_GRAPHICS_CONTRAST:
        lch[0] = min(1.0, lch[0] + STEP)
    return _hex(lch)


def _hex(lch: np.ndarray) -> str:
    red, green, blue = np.rint(np.clip(from_oklab(from_lch(lch)), 0, 255)).astype(int)
    return to_hex(Rgb(int(red), int(green), int(blue)))
