"""Closed-form matting (Levin, Lischinski and Weiss 2008, "A closed-form solution to natural image matting").

Within each 3 x 3 window coverage is taken as linear in colour (equation 4); the quadratic that follows (equation 12) is
solved for the unknown px alone, since those known are what a mask says.
"""

from __future__ import annotations

from typing import Any

import cv2
import numpy as np
from numpy.typing import NDArray

Mask = NDArray[np.bool_]
Plane = NDArray[np.float32]
Floats = NDArray[np.float64]

EPSILON = 1e-5  # of the window's covariance, colours 0 to 1
WINDOW_PX = 9


def matted(colours: NDArray[np.uint8], subject: Mask, unknown: Mask) -> Plane:
    """Coverage (h, w), 0 to 1: 1 and 0 where it is known, solved where it is not; colours are (h, w, 3)."""
    alpha = subject.astype(np.float64)
    if not unknown.any():
        return alpha.astype(np.float32)
    matrix = _laplacian(colours.astype(np.float64) / 255, unknown)
    own = np.flatnonzero(unknown)
    known = np.where(unknown.ravel(), 0.0, alpha.ravel())
    rows = matrix[own]
    solved = _solved(rows[:, own], -(rows @ known))
    alpha.ravel()[own] = np.clip(solved, 0, 1)
    return alpha.astype(np.float32)


def _solved(matrix: Any, right: Floats) -> Floats:
    from scipy.sparse import identity
    from scipy.sparse.linalg import spsolve

    # A touch of weight on the diagonal keeps px that hang on nothing from making the matrix singular.
    return np.asarray(spsolve((matrix + 1e-7 * identity(len(right))).tocsc(), right), dtype=np.float64)


def _laplacian(colours: Floats, unknown: Mask) -> Any:
    """The matting Laplacian of all windows that touch an unknown px; (h * w, h * w), sparse."""
    from scipy.sparse import coo_matrix

    height, width = unknown.shape
    touched = cv2.dilate(unknown.astype(np.uint8), np.ones((3, 3), np.uint8))[1:-1, 1:-1].astype(bool)
    top, left = np.nonzero(touched)  # the window's left top corner is one px before its middle
    steps = np.arange(3)
    rows = (top[:, None, None] + steps[None, :, None]) + np.zeros((1, 1, 3), int)
    columns = (left[:, None, None] + steps[None, None, :]) + np.zeros((1, 3, 1), int)
    index = (rows * width + columns).reshape(-1, WINDOW_PX)
    window = colours.reshape(-1, 3)[index]
    away = window - window.mean(axis=1, keepdims=True)
    covariance = np.einsum("nki,nkj->nij", away, away) / WINDOW_PX + EPSILON / WINDOW_PX * np.eye(3)
    likeness = (1 + np.einsum("nki,nij,nlj->nkl", away, np.linalg.inv(covariance), away, optimize=True)) / WINDOW_PX
    values = np.eye(WINDOW_PX)[None] - likeness
    across = np.broadcast_to(index[:, :, None], values.shape)
    down = np.broadcast_to(index[:, None, :], values.shape)
    size = height * width
    return coo_matrix((values.ravel(), (across.ravel(), down.ravel())), shape=(size, size)).tocsr()
