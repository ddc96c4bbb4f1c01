"""Pictures of a series beside each other, as they are seen: which of them are twins."""

from __future__ import annotations

from collections.abc import Mapping
from itertools import combinations

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.contrast import WHITE
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.eye.twins import MOST_DIFFERENT, cells_of, share_that_differs
from fitzle.core.preflight.readings import EyeReading
from fitzle.core.preflight.viewing import smallest_viewing
from fitzle.core.spec.sheet import SpecSheet


def twins_among(pictures: Mapping[str, Pixels], sheet: SpecSheet) -> dict[str, tuple[EyeReading, ...]]:
    """For each picture (by its name, straight alpha) the others of which hardly anything differs at the size seen."""
    viewing = smallest_viewing(sheet)
    ground = parse_hex(sheet.grounds[0] if sheet.grounds else WHITE)
    seen = {name: viewing.width if viewing else pixels.shape[1] for name, pixels in pictures.items()}
    cells = {
        name: cells_of(pixels, ground, seen[name] * max(pixels.shape[:2]) / pixels.shape[1])
        for name, pixels in pictures.items()
    }
    found: dict[str, tuple[EyeReading, ...]] = dict.fromkeys(pictures, ())
    for one, other in combinations(pictures, 2):
        share = share_that_differs(cells[one], cells[other])
        if share <= MOST_DIFFERENT:
            found[one] += (EyeReading("twins", "", share, other, seen[one]),)
            found[other] += (EyeReading("twins", "", share, one, seen[other]),)
    return found
