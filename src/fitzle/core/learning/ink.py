"""Whether the picture's own strokes are gone where it seems covered: then it is a relative of it, not the picture.

What is covered is painted over from its surroundings (Telea, "An image inpainting technique", 2004). Where the
screenshot looks like that and the picture does not, the picture's own ink is gone.
"""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.learning.laying import Laid
from fitzle.core.learning.zones import Hits

LARGEST_SIDE, REACH = 300, 4
LEAST_HITS = 8


def gone_ink(over: Laid, hits: Hits, threshold: float) -> float:
    """The share of what differs where the picture has ink and the screenshot has none, 0 to 1."""
    if int(hits.sum()) <= LEAST_HITS:
        return 0.0
    height, width = hits.shape
    scale = min(1.0, LARGEST_SIDE / max(height, width))
    size = (max(8, round(width * scale)), max(8, round(height * scale)))
    picture, there = (
        cv2.resize(planes.clip(0, 255).astype(np.uint8), size, interpolation=cv2.INTER_AREA)
        for planes in (over.expected, over.shot)
    )
    around = cv2.dilate(hits, np.ones((3, 3), np.uint8)).astype(np.float32)
    masked = (cv2.resize(around, size, interpolation=cv2.INTER_AREA) > 0.3).astype(np.uint8)
    differs = cv2.resize(hits.astype(np.float32), size, interpolation=cv2.INTER_AREA) > 0.5
    filled = cv2.inpaint(picture, masked, REACH, cv2.INPAINT_TELEA).astype(np.float32)
    of_picture, of_shot = np.abs(picture - filled).max(2), np.abs(there - filled).max(2)
    least = 1.6 * max(18.0, threshold)
    gone = differs & (of_picture > least) & (of_shot < 0.5 * of_picture)
    return float(gone.sum() / max(1, int(differs.sum())))
