"""Drawing of the tone of letters that runs into one of them: the eye takes both for one."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

Mask = NDArray[np.bool_]

REACHES = 1.0  # strokes from a letter: what ends sooner is a speck, grain or a soft edge


def letters_and_nearest(letters: Mask) -> tuple[int, NDArray[np.int32]]:
    """How many letters there are (joined px, 0 is none), and for each px the number of the letter nearest to it."""
    count, labels = cv2.connectedComponents(letters.astype(np.uint8), connectivity=8)
    _, nearest = cv2.distanceTransformWithLabels(
        (~letters).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_5, labelType=cv2.DIST_LABEL_PIXEL
    )
    of_pixel = np.zeros(int(nearest.max()) + 1, dtype=np.int32)
    of_pixel[nearest[letters]] = labels[letters]
    return count, of_pixel[nearest]


def joined_strokes(weak: Mask, away: NDArray[np.float32], owner: NDArray[np.int32], count: int, stroke: float) -> float:
    """How much drawing of its own tone the worst letter is joined to, in widths of a stroke along its outline.

    `weak` is where what is behind cannot be told from the letters, `away` the distance to them in px, `owner` the
    nearest letter. Counted is the first px around a letter where what touches it goes on for REACHES strokes.
    """
    around = weak & (away > 0)
    parts, labels = cv2.connectedComponents(around.astype(np.uint8), connectivity=8)
    if parts == 1:
        return 0.0
    farthest = np.zeros(parts, dtype=np.float32)
    np.maximum.at(farthest, labels.ravel(), away.ravel())
    goes_on = farthest[labels] >= REACHES * stroke
    touching = around & goes_on & (away <= 1.5)
    return float(np.bincount(owner[touching], minlength=count)[1:].max(initial=0)) / max(stroke, 1.0)
