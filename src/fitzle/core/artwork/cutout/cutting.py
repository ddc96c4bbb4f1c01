"""One entrance to the cut-out engines: picks by measured confidence and says which one it used."""

from __future__ import annotations

from typing import Literal, NamedTuple

import numpy as np

from fitzle.core.artwork.cutout.flat import Holes, Mask, cut_flat
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError, ValueOutOfRange
from fitzle.core.geometry.rect import Rect

Method = Literal["auto", "flat", "person", "object"]
SURE = 0.5  # of 1; below, no engine is used unasked
TOLERANCES = (0.1, 10.0)
SOFTNESSES_PX = (0.5, 16.0)


class CutOut(NamedTuple):
    """The picture (h, w, 4), straight alpha, the engine that cut it and how sure that is, 0 to 1."""

    pixels: Pixels
    method: str
    confidence: float


class Wishes(NamedTuple):
    """How it is to be cut: how much counts as backdrop (1: as measured), how soft the edge, what becomes of holes."""

    tolerance: float = 1.0
    softness_px: float = 1.0
    holes: Holes = "auto"
    box: Rect | None = None
    keep: Mask | None = None
    drop: Mask | None = None


def cut_out(pixels: Pixels, method: Method = "auto", wishes: Wishes | None = None) -> CutOut:
    """Cuts the subject out of a picture (h, w, 4), straight alpha.

    Raises ArtworkError when the picture is transparent already, or when `auto` finds no backdrop it is sure of, and
    ValueOutOfRange for wishes that make no sense.
    """
    wishes = wishes or Wishes()
    _check("tolerance", wishes.tolerance, TOLERANCES)
    _check("softness", wishes.softness_px, SOFTNESSES_PX)
    if pixels[..., 3].min() < 255:
        raise ArtworkError("its background is transparent already", advice="There is nothing to cut out.")
    cut = cut_flat(pixels, wishes.tolerance, wishes.holes, wishes.softness_px)
    if method == "auto" and cut.confidence < SURE:
        raise ArtworkError(
            "the subject does not stand on a flat backdrop",
            advice="Choose the flat method to have what is nearest to the border's colour taken away all the same.",
        )
    alpha = np.rint(cut.alpha * 255).astype(np.uint8)
    colours = np.rint(np.clip(cut.colours, 0, 255)).astype(np.uint8)
    return CutOut(np.dstack([colours, alpha]), "flat", cut.confidence)


def _check(name: str, value: float, between: tuple[float, float]) -> None:
    low, high = between
    if not low <= value <= high:
        raise ValueOutOfRange(f"this {name} makes no sense", expected=f"{low:g} to {high:g}", actual=f"{value:g}")
