"""Where words would stand on calm: the shifts after which nothing of their tone or scale is behind them."""

from __future__ import annotations

from collections.abc import Iterator

import cv2
import numpy as np

from fitzle.core.eye.busy import Busy, Mask, band_px, busy_behind, cannot_be_told, tones
from fitzle.core.eye.planes import Plane

MOST_TRIED = 40
_LOST, _CLUTTER = 0.002, 0.1  # of a place that is looked at closely: well inside of the limits


def calmer_places(
    letters: Mask, own: float, behind: Plane, stroke: float, at: tuple[int, int]
) -> Iterator[tuple[tuple[int, int], Busy]]:
    """Places (x, y) for the box of `letters` (h, w) in a picture `behind` (H, W), nearest to `at` first, with figures.

    Every place is rated at once by correlation (Lewis 1995, "Fast normalized cross-correlation"), and those that look
    calm closely, as `busy_behind` does.
    """
    height, width = letters.shape
    if height > behind.shape[0] or width > behind.shape[1]:
        return
    away = cv2.distanceTransform((~letters).astype(np.uint8), cv2.DIST_L2, cv2.DIST_MASK_PRECISE)
    band = ((away > 0) & (away <= band_px(stroke))).astype(np.float32)
    near = (away <= 1.5 * stroke).astype(np.float32)
    tone, fine = tones(behind, stroke)
    lost = _sums(cannot_be_told(own, behind).astype(np.float32), band) / max(band.sum(), 1)
    rough = np.sqrt(np.maximum(_sums(fine**2, near) / near.sum(), 0))
    apart = np.abs(np.log(own + 0.05) - _sums(tone, near) / near.sum())
    calm = np.argwhere((lost <= _LOST) & (rough <= _CLUTTER * np.maximum(apart, 1e-3)))
    if not len(calm):
        return
    far = np.hypot(calm[:, 1] - at[0], calm[:, 0] - at[1])
    nearest = calm[np.argsort(far)]
    step = max(1, len(nearest) // MOST_TRIED)
    for y, x in [*nearest[:8], *nearest[8::step]]:
        yield (int(x), int(y)), busy_behind(letters, own, behind[y : y + height, x : x + width], stroke)


def _sums(plane: Plane, mask: Plane) -> Plane:
    """The sum of a plane under a mask at each place where the mask lies inside of it."""
    return np.asarray(cv2.matchTemplate(plane.astype(np.float32), mask, cv2.TM_CCORR))
