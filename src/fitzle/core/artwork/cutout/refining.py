"""From a rough mask to coverage and colours: a band around its outline is matted at a small size and carried over.

Carried over, each px of the band is unmixed from the smoothed colours nearest to it on either side. A guided filter
(He and Sun 2015) made a fifth less error but took the grain of a photo for structure: its edges were dust, 20 times as
rough.
"""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.artwork.bands import dot
from fitzle.core.artwork.cutout.backdrop import Lab
from fitzle.core.artwork.cutout.matting import matted
from fitzle.core.artwork.cutout.unmixing import Mask, Plane, freed_colours, nearest_colours
from fitzle.core.artwork.sources import Pixels

MATTED_AT_PX = 640
BAND_SHARE = 0.012  # of the short side, on either side of the outline (facts/cutout.md)
LEAST_BAND_PX = 3
SETTLED = 0.03  # of coverage, from either end: wholly one or the other
GRAIN_PX = 1.0  # of blur, so that the grain of a photo is no structure
SMOOTH_PX = 9
DIFFERENT = (30.0, 90.0)  # of 255: colours nearer than that say nothing about coverage, farther ones everything
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
        alpha = _carried_over(alpha, pixels)
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


def _carried_over(alpha: Plane, pixels: Pixels) -> Plane:
    """The coverage at the size of the picture; in the band unmixed anew where subject and ground differ in colour."""
    size = (pixels.shape[1], pixels.shape[0])
    plain: Plane = np.clip(cv2.resize(alpha, size, interpolation=cv2.INTER_CUBIC), 0, 1).astype(np.float32)
    core, ground = plain > 1 - SETTLED, plain < SETTLED
    if not core.any() or not ground.any():
        return plain
    own = cv2.GaussianBlur(pixels[..., :3], (0, 0), GRAIN_PX).astype(np.float32)
    subject, behind = (cv2.blur(nearest_colours(own, mask), (SMOOTH_PX, SMOOTH_PX)) for mask in (core, ground))
    across = subject - behind
    length = dot(across, across)
    unmixed = np.clip(dot(own - behind, across) / np.maximum(length, 1), 0, 1)
    low, high = DIFFERENT
    trust = np.clip((np.sqrt(length) - low) / (high - low), 0, 1)
    band = cv2.dilate((~core & ~ground).astype(np.uint8), np.ones((3, 3), np.uint8)).astype(bool)
    return np.asarray(np.where(band, trust * unmixed + (1 - trust) * plain, plain), dtype=np.float32)


def _colours(pixels: Pixels, alpha: Plane) -> Lab:
    own = pixels[..., :3].astype(np.float32)
    core, ground = alpha > 0.98, alpha < 0.02
    if not core.any() or not ground.any():
        return own
    return freed_colours(own, nearest_colours(own, core), nearest_colours(own, ground), alpha)
