"""Contrast with an area: the ratios of a colour with all that lies behind, and the one that nine tenths of it reach."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.colour.contrast import FLARE, contrast_ratio, relative_luminance
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.srgb import Rgb, encoded, linear, parse_hex
from fitzle.core.plan.grounds import veiled, veiled_shares
from fitzle.core.spec.sheet import SpecSheet

WEAK_PERCENTILE = 10.0  # of the area behind: a tenth may be fainter

Luminances = NDArray[np.float64]


class Behind(NamedTuple):
    """What lies behind a part: luminances on each page (hex), the destination's veil laid over.

    The veil lies over the part too, so colours are taken as they are `seen` under it.
    """

    pages: Mapping[str, Luminances]
    sheet: SpecSheet

    def seen(self, colour: str) -> Rgb:
        """A colour (hex) of the part under the veil."""
        return veiled(self.sheet, parse_hex(colour))

    def on_all(self, colour: str) -> float:
        """The contrast of a colour (hex) on the page where it is weakest."""
        return min(weak_ratio(self.seen(colour), light) for light in self.pages.values())

    def between(self, one: str, other: str) -> float:
        """The contrast of two colours (hex) of the part with each other."""
        return contrast_ratio(self.seen(one), self.seen(other))

    def covered_by(self, colour: str, opacity: float) -> Behind:
        """What is behind once a colour is laid over it below the part, taken for greys."""
        over = encoded(np.array(relative_luminance(self.seen(colour))))
        pages = {page: linear(encoded(light) * (1 - opacity) + over * opacity) for page, light in self.pages.items()}
        return Behind(pages, self.sheet)

    def outline(self, outline: tuple[ColourShare, ...]) -> tuple[ColourShare, ...]:
        """The colours along a mark's outline as they are seen."""
        return veiled_shares(self.sheet, outline)


def ratios(colour: Rgb, behind: Luminances) -> Luminances:
    """The contrast ratio (WCAG 2.2) with each px behind."""
    own = relative_luminance(colour)
    return np.asarray((np.maximum(behind, own) + FLARE) / (np.minimum(behind, own) + FLARE))


def weak_ratio(colour: Rgb, behind: Luminances) -> float:
    """The contrast that nine tenths of the area reach."""
    return float(np.percentile(ratios(colour, behind), WEAK_PERCENTILE))


def weakest_behind(colour: Rgb, behind: Luminances) -> Rgb:
    """The grey of the px behind at which that contrast is reached."""
    found = ratios(colour, behind)
    at = np.argsort(found)[int(WEAK_PERCENTILE / 100 * (len(found) - 1))]
    return grey(float(behind[at]))


def grey(luminance: float) -> Rgb:
    """The grey of a relative luminance."""
    level = int(np.rint(encoded(np.array(luminance))))
    return Rgb(level, level, level)
