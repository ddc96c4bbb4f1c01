"""A die-cut edge as an outline."""

from __future__ import annotations

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.render.edges import edge_coverage
from fitzle.core.render.svg_defs import figure

FINER = 4  # the outline is found on a grid so many times finer than the px
TOLERANCE = 0.6  # of that finer grid: points nearer to a straight line are left out


def edge_outline(alpha: NDArray[np.uint8], width_px: float) -> str:
    """The border around what shows in alpha (h, w), the shape itself included, as the `d` of a path."""
    coverage = edge_coverage(np.ascontiguousarray(alpha), width_px)
    height, width = coverage.shape
    fine = cv2.resize(coverage, (width * FINER, height * FINER), interpolation=cv2.INTER_LINEAR)
    framed = cv2.copyMakeBorder((fine >= 128).astype(np.uint8), 1, 1, 1, 1, cv2.BORDER_CONSTANT)
    contours, _ = cv2.findContours(framed, cv2.RETR_CCOMP, cv2.CHAIN_APPROX_NONE)
    parts = []
    for contour in contours:
        points = cv2.approxPolyDP(contour, TOLERANCE, True)[:, 0, :].astype(np.float64)
        if len(points) > 2:
            places = (points - 0.5) / FINER
            parts.append("M" + "L".join(f"{figure(x)} {figure(y)}" for x, y in places) + "Z")
    return "".join(parts)
