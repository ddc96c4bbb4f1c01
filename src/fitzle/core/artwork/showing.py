"""On which grounds a mark shows: the contrast of its outline with a light page and with a dark one."""

from __future__ import annotations

from fitzle.core.artwork.facts import ArtworkFacts
from fitzle.core.colour.contrast import LEAST_GRAPHICS_CONTRAST, contrast_ratio, weakest_contrast
from fitzle.core.colour.dark_version import DARK_GROUND
from fitzle.core.colour.oklab import difference
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.findings import Frozen

LIGHT_GROUND = "#ffffff"
SAME_COLOUR = 0.06  # OKLab: JPEG's noise around a flat colour stays within it


class Showing(Frozen):
    """Contrast ratios on a light and on a dark ground, and whether they reach 3:1 (WCAG 2.2, 1.4.11)."""

    on_light: float
    on_dark: float
    shows_on_light: bool
    shows_on_dark: bool


def showing(facts: ArtworkFacts) -> Showing:
    """Where an artwork with these facts shows; an opaque one brings its own ground along everywhere."""
    light, dark = (_contrast(facts, ground) for ground in (LIGHT_GROUND, DARK_GROUND))
    return Showing(
        on_light=round(light, 2),
        on_dark=round(dark, 2),
        shows_on_light=light >= LEAST_GRAPHICS_CONTRAST,
        shows_on_dark=dark >= LEAST_GRAPHICS_CONTRAST,
    )


def _contrast(facts: ArtworkFacts, ground: str) -> float:
    if facts.transparency != "none":
        return weakest_contrast(facts.edge_colours, parse_hex(ground))
    own = parse_hex(facts.backdrop_colour or (facts.edge_colours[0].hex if facts.edge_colours else ground))
    inside = tuple(entry for entry in facts.colours if difference(parse_hex(entry.hex), own) > SAME_COLOUR)
    return max((contrast_ratio(parse_hex(entry.hex), own) for entry in inside), default=1.0)
