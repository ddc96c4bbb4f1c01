"""Light and colour: curves that keep black and white where they are, so that none of them clips by itself.

Curves on each channel and the mask for shadows and highlights are this project's own; all figures are -1 to 1.
"""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.document import Adjust
from fitzle.core.colour.srgb import encoded, linear

Curve = NDArray[np.float64]

STOPS = 1.0  # brightness of 1 doubles or halves the exponent
MOST_CONTRAST = 0.8  # of the way to the full S
LEAST_CONTRAST = 0.7  # of the spread is gone at -1
WARMEST = 0.22  # gain of red, and loss of blue, in linear light at a warmth of 1
LIFT = 0.9  # the exponent of shadows and highlights, in stops
BLUR_SHARE = 0.02  # of the short side: what counts as around a px
SHARPEST = 1.4  # times the difference from the blurred picture
SHARPEN_SHARE = 0.0009  # of the short side, as the blur's sigma
LEAST_SIGMA_PX = 0.6
LUMA = (0.2126, 0.7152, 0.0722)  # BT.709
LOOKED_AT_PX = 512  # the mask of shadows is smooth: it is made at that size


def adjusted(pixels: Pixels, figures: Adjust) -> Pixels:
    """Pixels (h, w, 4), straight alpha, with other light and colour; the alpha stays."""
    colour = cv2.LUT(np.ascontiguousarray(pixels[..., :3]), _tables(figures))
    if figures.shadows or figures.highlights:
        colour = _evened(colour, figures.shadows, figures.highlights)
    if figures.saturation:
        colour = cv2.transform(colour, _saturating(figures.saturation))
    if figures.sharpen:
        colour = _sharpened(colour, figures.sharpen)
    return with_alpha(colour, pixels[..., 3])


def _tables(figures: Adjust) -> NDArray[np.uint8]:
    """A curve for each channel, (1, 256, 3)."""
    values = np.arange(256, dtype=np.float64)
    channels = []
    for gain in warm_gains(figures.warmth):
        warmed = np.clip(encoded(linear(values) * gain), 0, 255) / 255
        bright = warmed ** (2.0 ** (-figures.brightness * STOPS))
        channels.append(contrasted(bright, figures.contrast) * 255)
    return np.rint(np.clip(np.stack(channels, axis=-1), 0, 255)).astype(np.uint8)[None]


def warm_gains(warmth: float) -> tuple[float, float, float]:
    """Gains of red, green and blue in linear light; none is above 1, so that nothing clips."""
    red, blue = 1 + WARMEST * warmth, 1 - WARMEST * warmth
    most = max(red, blue, 1.0)
    return red / most, 1 / most, blue / most


def contrasted(values: Curve, contrast: float) -> Curve:
    """Values 0 to 1 on an S-curve (smoothstep) that keeps both ends, or drawn together towards the middle."""
    if contrast >= 0:
        steep = values * values * (3 - 2 * values)
        return np.asarray(values + contrast * MOST_CONTRAST * (steep - values))
    return np.asarray(0.5 + (values - 0.5) * (1 + contrast * LEAST_CONTRAST))


def _evened(colour: Any, shadows: float, highlights: float) -> Any:
    """Dark places and bright ones made lighter or darker by what is around each px: edges keep their contrast."""
    around = _around(colour)
    for amount, mask in ((shadows, np.clip(1 - 2 * around, 0, 1)), (highlights, np.clip(2 * around - 1, 0, 1))):
        if amount:
            curve = np.rint(255 * (np.arange(256) / 255) ** (2.0 ** (-amount * LIFT))).astype(np.uint8)
            weight = cv2.resize(mask.astype(np.float32), (colour.shape[1], colour.shape[0]))
            colour = cv2.blendLinear(cv2.LUT(colour, curve), colour, weight, 1 - weight)
    return colour


def _around(colour: Any) -> NDArray[np.float32]:
    """How light it is around each px, 0 to 1, at a smaller size; edges are respected by a bilateral filter."""
    height, width = colour.shape[:2]
    scale = min(1.0, LOOKED_AT_PX / max(height, width))
    size = (max(1, round(width * scale)), max(1, round(height * scale)))
    small = cv2.cvtColor(cv2.resize(colour, size, interpolation=cv2.INTER_AREA), cv2.COLOR_RGB2GRAY)
    reach = max(1.0, BLUR_SHARE * min(size))
    return np.asarray(cv2.bilateralFilter(small, 0, 40, reach), dtype=np.float32) / np.float32(255)


def _saturating(amount: float) -> NDArray[np.float64]:
    """The matrix that moves each colour away from (or to) the grey of its own lightness."""
    grey = np.tile(np.array(LUMA), (3, 1))
    return np.asarray(grey + (1 + amount) * (np.eye(3) - grey))


def _sharpened(colour: Any, amount: float) -> Any:
    sigma = max(LEAST_SIGMA_PX, SHARPEN_SHARE * min(colour.shape[:2]))
    more = SHARPEST * amount
    return cv2.addWeighted(colour, 1 + more, cv2.GaussianBlur(colour, (0, 0), sigma), -more, 0)
