"""The subject's own colours at an edge: a px there is C = a F + (1 - a) B (Porter and Duff 1984, "over")."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.cutout.backdrop import Lab

Mask = NDArray[np.bool_]
Plane = NDArray[np.float32]

TRUSTED = 40  # of 255; an unmixed colour farther from its neighbour's comes from colour that has run
LEAST_ALPHA, WHOLE = 0.05, 0.999


def nearest_colours(own: Lab, of: Mask) -> Lab:
    """For each px the colour (h, w, 3) of the nearest px of a mask, which must not be empty."""
    _, labels = cv2.distanceTransformWithLabels((~of).astype(np.uint8), cv2.DIST_L2, 5, labelType=cv2.DIST_LABEL_PIXEL)
    colours = np.zeros((int(labels.max()) + 1, 3), dtype=np.float32)
    colours[labels[of]] = own[of]
    return np.asarray(colours.take(labels, axis=0), dtype=np.float32)  # a fifth of the time of colours[labels]


def freed_colours(own: Lab, subject: Lab, ground: Lab, alpha: Plane) -> Lab:
    """The subject's colours without the background that has mixed into its edge; all (h, w, 3), 0 to 255.

    `subject` and `ground` are what lies nearest of each. Where a colour comes out unlike its neighbour, that one's is
    taken.
    """
    colours = cv2.copyTo(own, (alpha > 0).view(np.uint8), subject.copy())
    mixed = (alpha > 0) & (alpha < WHOLE)
    a, beside, behind = alpha[mixed][:, None], subject[mixed], ground[mixed]
    freed = np.clip((own[mixed] - (1 - a) * behind) / np.maximum(a, LEAST_ALPHA), 0, 255)
    run = np.abs(freed - beside).max(axis=1, keepdims=True) > TRUSTED
    colours[mixed] = np.where(run, beside, freed)
    return np.asarray(colours, dtype=np.float32)
