"""The die-cut edge: a border of even width that follows an outline, by a distance transform."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Pixels

SHOWS = 8  # of 255: fainter pixels have no outline


def edge_coverage(alpha: NDArray[np.uint8], width_px: float) -> NDArray[np.uint8]:
    """Coverage 0 to 255 of a border of this width around what shows in alpha (h, w), the shape itself included.

    The distance of a pixel to the outline is its distance to the nearest pixel that shows, corrected by how far that
    pixel is covered, so that the border is smooth to a fraction of a px. Corners come out round.
    """
    shows = alpha >= SHOWS
    if not shows.any():
        return np.zeros_like(alpha)
    away, labels = cv2.distanceTransformWithLabels(
        (~shows).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5, labelType=cv2.DIST_LABEL_PIXEL
    )
    nearest = np.zeros(int(labels.max()) + 1, dtype=np.float32)
    nearest[labels[shows]] = alpha[shows] / np.float32(255)
    distance = away - (nearest[labels] - 0.5)
    smooth = cv2.GaussianBlur(distance, (0, 0), 0.8)
    coverage = np.clip(width_px + 0.5 - smooth, 0, 1) * 255
    return np.asarray(np.maximum(np.rint(coverage).astype(np.uint8), alpha), dtype=np.uint8)


def with_edge(pixels: Pixels, width_px: float, colour: tuple[int, int, int]) -> Pixels:
    """Premultiplied pixels (h, w, 4) with the border laid behind them."""
    coverage = edge_coverage(np.ascontiguousarray(pixels[..., 3]), width_px).astype(np.float32) / 255
    free = coverage * (1 - pixels[..., 3].astype(np.float32) / 255)
    border = np.dstack([free * colour[0], free * colour[1], free * colour[2], free * 255])
    return np.rint(np.clip(pixels + border, 0, 255)).astype(np.uint8)
