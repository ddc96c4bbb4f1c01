"""A fringe of half-clear px around cut-out artwork: what was behind it before shows on another ground."""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.oklab import oklab, oklab_picture
from fitzle.core.colour.srgb import Rgb

LONG_PX = 400  # of the long side that is looked at
_SHOWN, _SOLID, _INSIDE_PX, _RIM_PX, _NEAR_PX, _OFF = 12, 250, 4.0, 2.3, 9.2, 0.06


def bad_rim(pixels: Pixels, ground: Rgb) -> float:
    """The share of the rim, 0 to 1, that is neither like the artwork inside of it nor like the ground, nor between.

    `pixels` are (h, w, 4), about LONG_PX long. 0 where there is no rim with something solid near it.
    """
    alpha = np.pad(pixels[..., 3], 1)
    colours = np.pad(pixels[..., :3], ((1, 1), (1, 1), (0, 0)))
    shown = alpha > _SHOWN
    inward = cv2.distanceTransform(shown.astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    core = (alpha >= _SOLID) & (inward >= _INSIDE_PX)
    rim = shown & (inward <= _RIM_PX)
    if not core.any() or not rim.any():
        return 0.0
    away, labels = cv2.distanceTransformWithLabels(
        (~core).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5, labelType=cv2.DIST_LABEL_PIXEL
    )
    rim &= away <= _NEAR_PX
    if not rim.any():
        return 0.0
    lightness = oklab_picture(colours)[..., 0]
    nearest = np.zeros(int(labels.max()) + 1, dtype=np.float32)
    nearest[labels[core]] = lightness[core]
    inside = nearest[labels[rim]]
    page = float(oklab(np.array([ground], dtype=np.uint8))[0][0])
    share = alpha[rim].astype(np.float32) / 255
    seen = _on_page(colours[rim], share, ground)
    low, high = np.minimum(inside, page) - _OFF, np.maximum(inside, page) + _OFF
    return float(((seen < low) | (seen > high)).mean())


def _on_page(colours: np.ndarray, share: np.ndarray, ground: Rgb) -> np.ndarray:
    mixed = colours * share[:, None] + np.array(ground, dtype=np.float32) * (1 - share[:, None])
    return oklab(np.clip(np.rint(mixed), 0, 255).astype(np.uint8))[:, 0]
