"""A person before any background: a small segmentation network finds them, matting finds the edge.

The network is the selfie segmentation of the MediaPipe project (Apache-2.0), 256 x 256 or 256 x 144 px.
"""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.faces.detecting import faces_in
from fitzle.core.artwork.models import ModelName, run_model
from fitzle.core.artwork.shrinking import at_most
from fitzle.core.artwork.sources import Pixels
from fitzle.core.geometry.rect import Rect

Plane = NDArray[np.float32]

WIDE = 1.25  # from that ratio on the network for wide pictures sees more
AREA = (0.03, 0.9)  # of the picture; a mask outside is no portrait (facts/cutout.md)
UNSURE = (0.15, 0.85)
MOST_UNSURE = 0.25  # area of doubt against area of person, at which nothing is sure any more
FACES_AT_PX = 640
AROUND = 0.12  # of the person's box on each side, for the second and closer look


class PersonMask(NamedTuple):
    """How sure it is for each px that it belongs to a person (h, w), 0 to 1, and of the whole."""

    mask: Plane
    confidence: float


def person_mask(pixels: Pixels, box: Rect | None = None) -> PersonMask:
    """Where the person is, of a picture (h, w, 4); only inside the box where one is given, in px."""
    height, width = pixels.shape[:2]
    whole = box or Rect(0, 0, width, height)
    mask = _segmented(pixels, whole)
    closer = _around(mask, whole)
    if closer:
        mask = _segmented(pixels, closer)
    return PersonMask(mask, _confidence(pixels, mask))


def _segmented(pixels: Pixels, window: Rect) -> Plane:
    """The mask of one window; nothing outside it."""
    left, top, right, bottom = int(window.x), int(window.y), int(np.ceil(window.right)), int(np.ceil(window.bottom))
    part = np.ascontiguousarray(pixels[top:bottom, left:right, :3])
    name: ModelName = "selfie_segmentation"
    size = (256, 256)
    if part.shape[1] / part.shape[0] >= WIDE:
        name, size = "selfie_segmentation_landscape", (256, 144)
    small = cv2.resize(part, size, interpolation=cv2.INTER_AREA).astype(np.float32) / 255
    found = run_model(name, np.asarray(small))[0][..., 0]
    mask = np.zeros(pixels.shape[:2], np.float32)
    mask[top:bottom, left:right] = cv2.resize(found, (part.shape[1], part.shape[0]), interpolation=cv2.INTER_LINEAR)
    return np.clip(mask, 0, 1)


def _around(mask: Plane, whole: Rect) -> Rect | None:
    """A window around the person worth a closer look: half of the picture or less."""
    rows, columns = np.flatnonzero((mask > 0.5).any(axis=1)), np.flatnonzero((mask > 0.5).any(axis=0))
    if not len(rows):
        return None
    width, height = columns[-1] - columns[0] + 1, rows[-1] - rows[0] + 1
    left, top = max(whole.x, columns[0] - AROUND * width), max(whole.y, rows[0] - AROUND * height)
    right = min(whole.right, columns[-1] + 1 + AROUND * width)
    bottom = min(whole.bottom, rows[-1] + 1 + AROUND * height)
    window = Rect(left, top, right - left, bottom - top)
    return window if window.width * window.height < 0.5 * whole.width * whole.height else None


def _confidence(pixels: Pixels, mask: Plane) -> float:
    area = float((mask > 0.5).mean())
    if not AREA[0] <= area <= AREA[1] or not faces_in(at_most(pixels, FACES_AT_PX)):
        return 0.0
    doubt = float(((mask > UNSURE[0]) & (mask < UNSURE[1])).mean()) / area
    return round(max(0.0, 1 - doubt / MOST_UNSURE), 3)
