"""The fringe that an earlier background left on the edge of cut-out artwork, taken away.

A px of the fringe is C = a F + (1 - a) B (Porter and Duff 1984, "over") with F the colour inside of it and B that of
the earlier background, which is told from the outermost px where they agree.
"""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.artwork.bands import dot, with_alpha
from fitzle.core.artwork.cutout.backdrop import Lab
from fitzle.core.artwork.cutout.unmixing import TRUSTED, Mask, Plane, nearest_colours
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError

FULL_LONG_PX = 1280  # widths are in px of a picture that long
LEAST_PX = 3.0  # of the file: what anti-aliasing and a JPEG leave, however small the file
SHOWN, SOLID = 12, 250  # of 255
RIDGE_SHARE = 0.85  # of the depth of the deepest px near: the middle of a thin stroke
OUTERMOST_PX = 1.5
NEARLY_ALL = 0.96
AGREE = 24  # of 255: how far half of the outermost colours may be from their median to be one background


def with_clean_edge(pixels: Pixels, width: float) -> Pixels:
    """Pixels (h, w, 4), straight alpha, without a fringe up to `width` px deep, in px of a picture 1280 px long.

    Raises ArtworkError where there is no edge, or nothing on it that is unlike what is inside of it.
    """
    if pixels[..., 3].min() >= SOLID:
        raise ArtworkError("it has no clear background, so there is no edge to clean", advice="Cut it out first.")
    padded = np.pad(pixels, ((1, 1), (1, 1), (0, 0)))
    depth = _depth(padded)
    inside = _inside(padded, depth, max(LEAST_PX, width * max(pixels.shape[:2]) / FULL_LONG_PX))
    own, alpha = padded[..., :3].astype(np.float32), padded[..., 3].astype(np.float32)
    subject = nearest_colours(own, inside) if inside.any() else own
    fringe = (alpha > 0) & ~inside & (np.abs(own - subject).max(axis=-1) > TRUSTED)
    background = _background(own, fringe & (depth <= OUTERMOST_PX) & (alpha > SHOWN))
    if background is not None:
        coverage, beside = _mixed(own, subject, background)
        fringe |= (alpha > 0) & ~inside & (beside < AGREE) & (coverage < NEARLY_ALL)
        alpha = np.where(fringe, np.minimum(alpha, 255 * coverage), alpha)
    if not (fringe & (padded[..., 3] > SHOWN)).any():
        raise ArtworkError("its edge is clean already", advice="Take this step away.")
    cleaned = np.where(fringe[..., None], subject, own)
    found = with_alpha(np.rint(cleaned).astype(np.uint8), np.rint(alpha).astype(np.uint8))
    return np.ascontiguousarray(found[1:-1, 1:-1])


def _depth(padded: Pixels) -> Plane:
    """How far each px is from what is clear."""
    shown = (padded[..., 3] > SHOWN).astype(np.uint8)
    return np.asarray(cv2.distanceTransform(shown, cv2.DIST_L2, cv2.DIST_MASK_PRECISE), dtype=np.float32)


def _inside(padded: Pixels, depth: Plane, reach_px: float) -> Mask:
    """What a fringe cannot be: deeper than it reaches, or the middle of a part too thin for that."""
    side = 2 * int(np.ceil(reach_px)) + 1
    deepest = cv2.dilate(depth, np.ones((side, side), np.uint8))
    deep = (depth > reach_px) | ((depth >= RIDGE_SHARE * deepest) & (deepest <= reach_px))
    return np.asarray((padded[..., 3] >= SOLID) & deep)


def _background(own: Lab, outermost: Mask) -> Lab | None:
    """The colour (3) that the outermost px of a fringe agree on."""
    if not outermost.any():
        return None
    colours = own[outermost]
    median = np.median(colours, axis=0)
    spread = float(np.median(np.abs(colours - median).max(axis=1)))
    return np.asarray(median, dtype=np.float32) if spread <= AGREE else None


def _mixed(own: Lab, subject: Lab, background: Lab) -> tuple[Plane, Plane]:
    """How much of each px is subject, 0 to 1, and how far its colour lies beside all mixtures of the two, of 255."""
    across = subject - background
    share = np.clip(dot(own - background, across) / np.maximum(dot(across, across), 1.0), 0, 1).astype(np.float32)
    away = own - background - share[..., None] * across
    return share, np.asarray(np.sqrt(dot(away, away)), dtype=np.float32)
