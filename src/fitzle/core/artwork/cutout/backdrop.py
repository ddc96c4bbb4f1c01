"""A flat backdrop, lit evenly or not: a quadratic in x and y for each coordinate of OKLab, fitted to the border."""

from __future__ import annotations

from typing import Any, NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.oklab import from_oklab, oklab_picture

Lab = NDArray[np.float32]

RING_PX = 3
GRID = 8  # the model is evaluated on every eighth px and scaled up: it is smooth
ROUNDS = 6
FLAT_SIGMA = 0.006  # OKLab; facts/cutout.md
FLAT_SHARE = 0.9  # of the border, its worst side dropped
LIKE_THE_MODE = 0.12  # OKLab; what belongs to the backdrop at first
OUTLIER = 2.5  # standard deviations
BIN = 0.04  # OKLab
QUIET = 0.004  # OKLab; the residual of a clean file is 0, and noise must have somewhere to be


class Border(NamedTuple):
    """What the border tells: a model (6, 3) of the backdrop, its residual, and the share of the border it explains."""

    model: NDArray[np.float64]
    sigma: float
    share: float

    @property
    def confidence(self) -> float:
        """How sure it is that the picture stands on a flat backdrop, 0 to 1."""
        even = min(1.0, FLAT_SIGMA / max(self.sigma, 1e-6))
        return round(float(min(1.0, self.share / FLAT_SHARE) ** 3 * even), 3)


class Backdrop(NamedTuple):
    """The backdrop's colour at each px (h, w, 3), OKLab and sRGB 0 to 255."""

    lab: Lab
    rgb: Lab


def border_of(pixels: Pixels) -> Border:
    """The model that explains the border of a picture best; its `confidence` says whether there is a backdrop."""
    sides = _sides(pixels)
    where = np.concatenate([places for places, _ in sides])
    colours = np.concatenate([values for _, values in sides])
    terms = _terms(where)
    kept = np.linalg.norm(colours - _mode(colours), axis=1) < LIKE_THE_MODE
    model, sigma = np.zeros((6, 3)), 1.0
    for _ in range(ROUNDS):
        model = np.linalg.lstsq(terms[kept], colours[kept], rcond=None)[0]
        away = np.linalg.norm(colours - terms @ model, axis=1)
        sigma = float(np.sqrt((away[kept] ** 2).mean()))
        kept = away < max(OUTLIER * sigma, QUIET)
    shares = sorted(_explained(side, model, sigma) for side in sides)
    return Border(model, sigma, float(np.mean(shares[1:])))


def backdrop_of(border: Border, shape: tuple[int, ...]) -> Backdrop:
    """The backdrop all over a picture of this shape (h, w, …)."""
    coarse = _evaluated(border.model, shape)
    size = (shape[1], shape[0])
    whole, rgb = (cv2.resize(plane.astype(np.float32), size) for plane in (coarse, from_oklab(coarse)))
    return Backdrop(np.asarray(whole), np.asarray(rgb))


def _sides(pixels: Pixels) -> list[tuple[NDArray[np.float64], Lab]]:
    """For each side the places of its px, -1 to 1, and their colours."""
    height, width = pixels.shape[:2]
    x, y = _places(width), _places(height)
    cuts: list[tuple[NDArray[np.float64], NDArray[np.float64], Any]] = [
        (x, y[:RING_PX], np.s_[:RING_PX]), (x, y[-RING_PX:], np.s_[-RING_PX:]),
        (x[:RING_PX], y, np.s_[:, :RING_PX]), (x[-RING_PX:], y, np.s_[:, -RING_PX:]),
    ]  # fmt: skip
    return [(_grid(across, down), oklab_picture(pixels[cut]).reshape(-1, 3)) for across, down, cut in cuts]


def _places(count: int) -> NDArray[np.float64]:
    return 2 * (np.arange(count) + 0.5) / count - 1


def _grid(x: NDArray[np.float64], y: NDArray[np.float64]) -> NDArray[np.float64]:
    """Every place, row by row: (len(y) * len(x), 2)."""
    return np.stack(np.meshgrid(x, y), axis=-1).reshape(-1, 2)


def _terms(places: NDArray[np.float64]) -> NDArray[np.float64]:
    x, y = places[:, 0], places[:, 1]
    return np.stack([np.ones_like(x), x, y, x * x, y * y, x * y], axis=1)


def _mode(colours: Lab) -> NDArray[np.float64]:
    """The middle of the commonest bin of colour: a subject that touches the border must not pull it."""
    bins = np.round(colours / BIN).astype(np.int64) @ _BIN_WEIGHTS
    _, index, counts = np.unique(bins, return_inverse=True, return_counts=True)
    return np.asarray(np.median(colours[index.ravel() == int(np.argmax(counts))], axis=0), dtype=np.float64)


_BIN_WEIGHTS = np.array([10_000, 100, 1])  # each bin of three coordinates as one number, in the same order


def _explained(side: tuple[NDArray[np.float64], Lab], model: NDArray[np.float64], sigma: float) -> float:
    places, colours = side
    away = np.linalg.norm(colours - _terms(places) @ model, axis=1)
    return float((away < max(4 * sigma, 4 * QUIET)).mean())


def _evaluated(model: NDArray[np.float64], shape: tuple[int, ...]) -> NDArray[np.float64]:
    """The model on a coarse grid, (h, w, 3)."""
    height, width = (max(2, -(-side // GRID)) for side in shape[:2])
    return (_terms(_grid(_places(width), _places(height))) @ model).reshape(height, width, 3)
