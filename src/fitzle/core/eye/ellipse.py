"""An ellipse that is almost a circle: drawing that was stretched before it came."""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.eye.planes import reduced_pixels

LONG_PX = 192
LEAST_SHARE = 0.08  # of the picture's area: smaller ones are details, drawn as anybody likes
MOST_RATIO = 1.4  # from there on it was meant as an ellipse
_FITS = 0.985  # of both areas that ellipse and outline have in common
_LEAST_POINTS = 24
_LEVELS = 4  # of grey at which outlines are looked for inside of opaque drawing


def stretched_by(pixels: Pixels) -> float:
    """The ratio of the axes of the largest upright ellipse (h, w, 4) that could be a stretched circle; 1 if none is.

    Only upright ones count: who turns an ellipse means one.
    """
    found = [(area, ratio) for mask in _masks(reduced_pixels(pixels, LONG_PX)) for area, ratio in _ellipses(mask)]
    return max(found, default=(0.0, 1.0))[1]


def _masks(pixels: Pixels) -> list[np.ndarray]:
    alpha = pixels[..., 3]
    masks = [(alpha > 127).astype(np.uint8)] if alpha.min() < 128 else []
    grey = cv2.cvtColor(np.ascontiguousarray(pixels[..., :3]), cv2.COLOR_RGB2GRAY)
    inside = grey[alpha > 127]
    if inside.size:
        levels = np.linspace(float(inside.min()), float(inside.max()), _LEVELS + 2)[1:-1]
        masks += [((grey > level) & (alpha > 127)).astype(np.uint8) for level in levels]
    return masks


def _ellipses(mask: np.ndarray) -> list[tuple[float, float]]:
    found = []
    contours, _ = cv2.findContours(np.pad(mask, 1), cv2.RETR_LIST, cv2.CHAIN_APPROX_NONE)
    for contour in contours:
        area = cv2.contourArea(contour)
        if len(contour) < _LEAST_POINTS or area < LEAST_SHARE * mask.size:
            continue
        ellipse = cv2.fitEllipse(contour)
        (_, _), axes, turned = ellipse
        ratio = max(axes) / max(min(axes), 1e-6)
        upright = min(turned % 90, 90 - turned % 90) < 4 or ratio < 1.03
        if upright and ratio <= MOST_RATIO and _agrees(mask.shape, contour, ellipse):
            found.append((float(area), float(ratio)))
    return found


def _agrees(shape: tuple[int, ...], contour: np.ndarray, ellipse: cv2.typing.RotatedRect) -> bool:
    drawn, meant = (np.zeros((shape[0] + 2, shape[1] + 2), np.uint8) for _ in range(2))
    cv2.drawContours(drawn, [contour], -1, 1, cv2.FILLED)
    cv2.ellipse(meant, ellipse, 1, cv2.FILLED)
    return float((drawn & meant).sum()) / max(float((drawn | meant).sum()), 1) >= _FITS
