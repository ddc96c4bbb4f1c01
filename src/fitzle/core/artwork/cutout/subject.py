"""Any subject that a person points at: GrabCut from a box and strokes.

Rother, Kolmogorov and Blake 2004, "GrabCut: interactive foreground extraction using iterated graph cuts", as in OpenCV.
Thin parts and scenes in one colour defeat it (facts/cutout.md): strokes and the brush are for those.
"""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.cutout.refining import Hints
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect

Mask = NDArray[np.bool_]

WORKED_AT_PX = 480
ROUNDS = 5
_SEED = 11  # GrabCut begins with random clusters; the same wishes must give the same cut


def subject_mask(pixels: Pixels, box: Rect | None, hints: Hints) -> Mask:
    """A rough mask at a smaller size; raises ArtworkError where there is neither a box nor a stroke to go by."""
    height, width = pixels.shape[:2]
    scale = min(1.0, WORKED_AT_PX / max(height, width))
    size = (max(8, round(width * scale)), max(8, round(height * scale)))
    small = np.asarray(cv2.resize(pixels[..., :3], size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
    labels = _labels(size, box, width, hints)
    if not (labels == cv2.GC_BGD).any() or not ((labels == cv2.GC_FGD) | (labels == cv2.GC_PR_FGD)).any():
        raise ArtworkError("nothing says what the subject is", advice="Draw a box around it, with a little air.")
    cv2.setRNGSeed(_SEED)
    models = np.zeros((1, 65)), np.zeros((1, 65))
    cv2.grabCut(cv2.cvtColor(small, cv2.COLOR_RGB2BGR), labels, None, *models, ROUNDS, cv2.GC_INIT_WITH_MASK)
    mask = (labels == cv2.GC_FGD) | (labels == cv2.GC_PR_FGD)
    if not mask.any():
        raise ArtworkError("the subject looks like what is behind it", advice="Mark it with strokes of the keep brush.")
    return np.asarray(mask, dtype=bool)


def _labels(size: tuple[int, int], box: Rect | None, width: int, hints: Hints) -> NDArray[np.uint8]:
    """What GrabCut starts from: outside the box background, inside perhaps the subject, strokes for sure."""
    labels = np.full((size[1], size[0]), cv2.GC_PR_BGD, np.uint8)
    if box:
        scale = size[0] / width
        left, top = round(box.x * scale), round(box.y * scale)
        right, bottom = max(left + 1, round(box.right * scale)), max(top + 1, round(box.bottom * scale))
        labels[:] = cv2.GC_BGD
        labels[top:bottom, left:right] = cv2.GC_PR_FGD
    else:
        labels[[0, -1], :] = cv2.GC_BGD
        labels[:, [0, -1]] = cv2.GC_BGD
    for hint, label in ((hints.keep, cv2.GC_FGD), (hints.drop, cv2.GC_BGD)):
        if hint is not None and hint.any():
            labels[cv2.resize(hint.astype(np.uint8), size, interpolation=cv2.INTER_AREA) > 0] = label
    return labels
