"""One-touch improvement: figures for an adjustment, measured on the picture, that never clip.

Light is brought to a usual middle, the spread to nearly all there is, the cast towards grey; each only part of the way,
since a picture of dusk is meant to be dark.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.shrinking import at_most
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.adjusting import WARMEST, adjusted
from fitzle.core.artwork.steps.document import Adjust
from fitzle.core.colour.oklab import oklab
from fitzle.core.colour.srgb import linear

MOST_CLIPPED = 0.001  # of all pixels may become black or white in a channel
LOOKED_AT_PX = 640
MIDDLE = 0.46  # of the encoded range: where the light of well-lit pictures lies
PART_OF_THE_WAY = 0.6
DARKENED, WARMED = 0.25, 0.35  # parts of the way: mist is meant to be light, and dusk warm
MOST_BRIGHTER, MOST_CONTRAST, MOST_WARMTH, MOST_SATURATED = 0.6, 0.6, 0.3, 0.35
USUAL_SPREAD = 0.86  # between the 1st and the 99th percentile of the encoded range
USUAL_CHROMA = 0.075  # OKLab, on average
DARK, DARK_SHARE, MOST_LIFT = 0.18, 0.25, 0.4
NORM = 6  # Finlayson and Trezzi 2004, "Shades of gray": the Minkowski norm that estimates a light's colour best
SLIGHT = 0.02  # figures below that are not worth a step
SHARPENED = 0.25
CLIP_FIRST = ("sharpen", "saturation", "contrast")  # the others are curves that keep both ends
LESS = 0.55


def improvement(pixels: Pixels, step_id: str) -> Adjust:
    """The figures that would improve a picture (h, w, 4); all 0 where nothing needs to be done.

    What clips is measured on these very pixels, so a working copy is enough for pictures of its size.
    """
    small = at_most(pixels, LOOKED_AT_PX)
    shown = small[small[..., 3] >= 128][:, :3]
    if not len(shown):
        return Adjust(id=step_id)
    light = (cv2.cvtColor(shown[None], cv2.COLOR_RGB2GRAY).ravel() / 255).astype(np.float64)
    figures = {
        "brightness": _brightness(light),
        "contrast": _contrast(light),
        "warmth": _warmth(shown),
        "shadows": _shadows(light),
        "saturation": _saturation(shown),
    }
    wanted = {name: value for name, value in figures.items() if abs(value) >= SLIGHT}
    if wanted:
        wanted["sharpen"] = SHARPENED
    return _without_clipping(pixels, wanted, step_id)


def newly_clipped(before: Pixels, after: Pixels) -> float:
    """The share of px that have a channel at 0 or 255 and had not before."""
    shown = before[..., 3] >= 128
    ends = [((picture[..., :3] == 0) | (picture[..., :3] == 255)).any(axis=-1) for picture in (before, after)]
    return float((ends[1] & ~ends[0] & shown).sum() / max(1, shown.sum()))


def _without_clipping(pixels: Pixels, figures: dict[str, float], step_id: str) -> Adjust:
    """The figures, those that clip most easily made smaller first, until they clip as little as promised."""
    figures = dict(figures)
    while figures:
        step = Adjust.model_validate({"id": step_id, **{name: round(value, 2) for name, value in figures.items()}})
        if newly_clipped(pixels, adjusted(pixels, step)) <= MOST_CLIPPED:
            return step
        first = next((name for name in CLIP_FIRST if name in figures), None)
        for name in [first] if first else list(figures):
            figures[name] *= LESS
            if abs(figures[name]) < SLIGHT or name == "sharpen":
                del figures[name]
    return Adjust(id=step_id)


def _bounded(value: float, most: float) -> float:
    return float(np.clip(value, -most, most))


def _brightness(light: NDArray[np.float64]) -> float:
    """So many stops of exponent that the middle of the light comes nearer to the usual one."""
    middle = float(np.clip(light.mean(), 0.02, 0.98))
    wanted = middle + (PART_OF_THE_WAY if middle < MIDDLE else DARKENED) * (MIDDLE - middle)
    return _bounded(float(np.log2(np.log(middle) / np.log(wanted))), MOST_BRIGHTER)


def _contrast(light: NDArray[np.float64]) -> float:
    low, high = np.percentile(light, [1, 99])
    return _bounded(max(0.0, PART_OF_THE_WAY * (USUAL_SPREAD - float(high - low)) * 2), MOST_CONTRAST)


def _warmth(shown: NDArray[np.uint8]) -> float:
    """What brings the light's colour towards neutral: the gain between red and blue, halved."""
    light = (linear(shown) ** NORM).mean(axis=0) ** (1 / NORM)
    red, blue = float(light[0]), float(light[2])
    if min(red, blue) <= 0:
        return 0.0
    cast = (blue - red) / (red + blue)
    return _bounded(WARMED * cast / WARMEST, MOST_WARMTH)


def _shadows(light: NDArray[np.float64]) -> float:
    dark = float((light < DARK).mean())
    return _bounded(max(0.0, dark - DARK_SHARE), MOST_LIFT)


def _saturation(shown: NDArray[np.uint8]) -> float:
    """A little more where colours are pale, nothing where there are none."""
    lab = oklab(shown[::7])
    chroma = float(np.hypot(lab[:, 1], lab[:, 2]).mean())
    if chroma < 0.01 or chroma >= USUAL_CHROMA:
        return 0.0
    return _bounded(PART_OF_THE_WAY * (USUAL_CHROMA / chroma - 1), MOST_SATURATED)
