"""From a rough mask to coverage and colours: a band around its outline is matted at a small size and carried over.

The carrying over is a guided filter (He and Sun 2015, "Fast guided filter"): coverage as a linear function of the
picture around each px, found at the small size and applied at the large one.
"""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.cutout.backdrop import Lab
from fitzle.core.artwork.cutout.matting import matted
from fitzle.core.artwork.cutout.unmixing import Mask, Plane, freed_colours, nearest_colours
from fitzle.core.artwork.sources import Pixels

MATTED_AT_PX = 640
BAND_SHARE = 0.012  # of the short side, on either side of the outline (facts/cutout.md)
LEAST_BAND_PX = 3
GUIDE_PX = 4  # radius at the small size
GUIDE_EPSILON = 1e-4
CLEAN = (0.04, 0.96)  # coverage below and above is none and all


class Refined(NamedTuple):
    """Coverage (h, w), 0 to 1, and the subject's own colours (h, w, 3), 0 to 255."""

    alpha: Plane
    colours: Lab


class Hints(NamedTuple):
    """What is known whatever an engine thinks: masks (h, w), None for nothing."""

    keep: Mask | None = None
    drop: Mask | None = None


def refined(pixels: Pixels, mask: Mask, hints: Hints, softness_px: float = 1.0) -> Refined:
    """Coverage and colours from a rough mask (any size) of a picture (h, w, 4)."""
    height, width = pixels.shape[:2]
    scale = min(1.0, MATTED_AT_PX / max(height, width))
    size = (max(3, round(width * scale)), max(3, round(height * scale)))
    small = np.asarray(cv2.resize(pixels[..., :3], size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
    subject = _resized(mask, size)
    unknown = _band(subject, size)
    for hint, value in ((hints.keep, True), (hints.drop, False)):
        if hint is not None and hint.any():
            known = _resized(hint, size)
            subject[known], unknown[known] = value, False
    alpha = matted(small, subject, unknown)
    if scale < 1:
        alpha = _carried_over(alpha, small, pixels)
    low, high = CLEAN
    alpha = np.clip((alpha - low) / (high - low), 0, 1).astype(np.float32)
    if softness_px > 1:
        alpha = np.asarray(cv2.GaussianBlur(alpha, (0, 0), softness_px / 2), dtype=np.float32)
    return Refined(alpha, _colours(pixels, alpha))


def _resized(mask: Mask, size: tuple[int, int]) -> Mask:
    return np.asarray(cv2.resize(mask.astype(np.float32), size, interpolation=cv2.INTER_LINEAR) > 0.5, dtype=bool)


def _band(subject: Mask, size: tuple[int, int]) -> Mask:
    reach = max(LEAST_BAND_PX, round(BAND_SHARE * min(size)))
    kernel = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * reach + 1, 2 * reach + 1))
    plain = subject.astype(np.uint8)
    return np.asarray(cv2.dilate(plain, kernel) != cv2.erode(plain, kernel, borderValue=1), dtype=bool)


def _carried_over(alpha: Plane, small: NDArray[np.uint8], pixels: Pixels) -> Plane:
    guide = cv2.cvtColor(small, cv2.COLOR_RGB2GRAY).astype(np.float32) / 255
    reach = (2 * GUIDE_PX + 1, 2 * GUIDE_PX + 1)
    mean_guide, mean_alpha = cv2.blur(guide, reach), cv2.blur(alpha, reach)
    spread = cv2.blur(guide * guide, reach) - mean_guide**2
    slope = (cv2.blur(guide * alpha, reach) - mean_guide * mean_alpha) / (spread + GUIDE_EPSILON)
    offset = mean_alpha - slope * mean_guide
    size = (pixels.shape[1], pixels.shape[0])
    slope, offset = (cv2.resize(cv2.blur(plane, reach), size) for plane in (slope, offset))
    large = cv2.cvtColor(np.ascontiguousarray(pixels[..., :3]), cv2.COLOR_RGB2GRAY).astype(np.float32) / 255
    guided = np.clip(slope * large + offset, 0, 1)
    plain = np.clip(cv2.resize(alpha, size, interpolation=cv2.INTER_CUBIC), 0, 1)
    settled = cv2.resize(np.abs(alpha - 0.5).astype(np.float32), size) > 0.49
    return np.asarray(np.where(settled, plain, guided), dtype=np.float32)


def _colours(pixels: Pixels, alpha: Plane) -> Lab:
    own = pixels[..., :3].astype(np.float32)
    core, ground = alpha > 0.98, alpha < 0.02
    if not core.any() or not ground.any():
        return own
    return freed_colours(own, nearest_colours(own, core), nearest_colours(own, ground), alpha)
