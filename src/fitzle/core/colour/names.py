"""Plain English names for colours, for people to change: "deep green", "pale sand"."""

from __future__ import annotations

import numpy as np

from fitzle.core.colour.oklab import oklab, to_lch
from fitzle.core.colour.srgb import parse_hex

GREY_CHROMA = 0.025  # OKLCH chroma below which nobody says a hue
# Upper ends of hues in OKLCH degrees; pure sRGB red is at 29, yellow at 110, green at 142, cyan at 195, blue at 264.
_HUES = ((15, "pink"), (42, "red"), (75, "orange"), (115, "yellow"), (165, "green"), (215, "teal"), (285, "blue"),
         (322, "violet"), (360, "pink"))  # fmt: skip
_GREYS = ((0.22, "black"), (0.45, "dark grey"), (0.75, "grey"), (0.93, "light grey"), (1.01, "white"))
_BROWN_L, _SAND_L, _SAND_C = 0.62, 0.82, 0.09  # dark oranges are called brown, pale ones sand
_DEEP_L, _LIGHT_L, _PALE_L = 0.45, 0.78, 0.9


def colour_name(colour: str) -> str:
    """The name of a hex colour, as "Deep green"."""
    lightness, chroma, hue = to_lch(oklab(np.array(parse_hex(colour), dtype=np.uint8)))
    if chroma < GREY_CHROMA:
        return _first(_GREYS, lightness).capitalize()
    name = _first(_HUES, np.degrees(hue) % 360)
    if name in ("orange", "yellow"):
        if name == "orange" and lightness < _BROWN_L:
            return "Brown" if lightness >= _DEEP_L else "Deep brown"
        if lightness >= _SAND_L and chroma < _SAND_C:
            return "Pale sand" if lightness >= _PALE_L else "Sand"
    return f"{_shade(float(lightness))}{name}".capitalize()


def _shade(lightness: float) -> str:
    if lightness < _DEEP_L:
        return "deep "
    return "pale " if lightness >= _PALE_L else "light " if lightness >= _LIGHT_L else ""


def _first(steps: tuple[tuple[float, str], ...], value: float) -> str:
    return next((name for end, name in steps if value < end), steps[-1][1])
