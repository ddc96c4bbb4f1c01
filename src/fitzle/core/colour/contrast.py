"""Contrast ratio of WCAG 2.2 (definitions 'relative luminance' and 'contrast ratio')."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Literal

import numpy as np

from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.srgb import Rgb, linear, parse_hex, to_hex

LUMINANCE_WEIGHTS = np.array([0.2126, 0.7152, 0.0722])  # WCAG 2.2, relative luminance
FLARE = 0.05  # WCAG 2.2, contrast ratio
LEAST_GRAPHICS_CONTRAST = 3.0  # WCAG 2.2, success criterion 1.4.11
LEAST_TEXT_CONTRAST = 4.5  # WCAG 2.2, success criterion 1.4.3
HALF_LIGHT = 0.18  # relative luminance at which black and white contrast alike (WCAG 2.2: sqrt(1.05 * 0.05) - 0.05)
Reading = Literal["reads", "large only", "too faint"]


def relative_luminance(colour: Rgb) -> float:
    """Relative luminance, 0 (black) to 1 (white)."""
    return float(linear(np.array(colour, dtype=np.uint8)) @ LUMINANCE_WEIGHTS)


def contrast_ratio(one: Rgb, other: Rgb) -> float:
    """Contrast ratio, 1 to 21; the order of both colours does not matter."""
    first, second = relative_luminance(one), relative_luminance(other)
    lighter, darker = max(first, second), min(first, second)
    return (lighter + FLARE) / (darker + FLARE)


WEAK_SHARE = 0.2  # a fifth of the outline may be fainter; a whole faint word is more than that
BLACK, WHITE = "#111111", "#ffffff"


def weakest_contrast(colours: tuple[ColourShare, ...], behind: Rgb) -> float:
    """The contrast that four fifths of the outline reach with what is behind it (20th percentile by share)."""
    ratios = sorted((contrast_ratio(parse_hex(entry.hex), behind), entry.share) for entry in colours)
    total, passed = sum(share for _, share in ratios), 0.0
    for ratio, share in ratios:
        passed += share
        if passed >= WEAK_SHARE * total:
            return ratio
    return 21.0


def share_that_shows(colours: tuple[ColourShare, ...], behind: Rgb) -> float:
    """The share of the outline, 0 to 1, that reaches 3:1 with what is behind it."""
    shown = sum(
        entry.share for entry in colours if contrast_ratio(parse_hex(entry.hex), behind) >= LEAST_GRAPHICS_CONTRAST
    )
    return shown / max(sum(entry.share for entry in colours), 1e-9)


def best_against(candidates: Iterable[str], behind: Iterable[Rgb]) -> str:
    """The first hex colour that reaches 3:1 on every ground, else the one whose worst contrast is best.

    Black and white stand in line after the candidates.
    """
    grounds = tuple(behind) or (parse_hex(WHITE),)
    line = [*candidates, BLACK, WHITE]
    worst = {colour: min(contrast_ratio(parse_hex(colour), ground) for ground in grounds) for colour in line}
    good = next((colour for colour in line if worst[colour] >= LEAST_GRAPHICS_CONTRAST), None)
    return to_hex(parse_hex(good or max(line, key=lambda colour: worst[colour])))


def reading(ratio: float) -> Reading:
    """What a contrast is good for: words of any size (1.4.3), large words and marks alone (1.4.11), or nothing."""
    if ratio >= LEAST_TEXT_CONTRAST:
        return "reads"
    return "large only" if ratio >= LEAST_GRAPHICS_CONTRAST else "too faint"


def contrast_matrix(colours: Iterable[str]) -> list[list[float]]:
    """The contrast ratio of each colour (hex) with each, to two decimals."""
    known = [parse_hex(colour) for colour in colours]
    return [[round(contrast_ratio(one, other), 2) for other in known] for one in known]
