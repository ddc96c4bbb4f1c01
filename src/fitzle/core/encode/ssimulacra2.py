"""SSIMULACRA2 (Jon Sneyers, 2022-2023, version 2.1): how much of a picture was lost, 100 is nothing.

90 and more cannot be told apart, 70 is good, 50 shows. A float32 port of the published reference with OpenCV's blurs,
bordered by zeros as the reference does. The tests compare it with the PyPI package `ssimulacra2`.
"""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from functools import cache
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.encode.ssimulacra2_weights import WEIGHTS

# Bands are too small to share among OpenCV's own threads; nested in ours they wait for each other for seconds.
cv2.setNumThreads(1)

Plane = NDArray[np.float32]

SCALES = 6
THREADS = 2
BAND_ROWS = 64  # even, so that halving needs no row of the next band
LEAST_SIDE_PX = 8
_C2 = 0.0009
_SIGMA = 1.5
_RADIUS = 5  # 3.2795 * sigma + 0.2546, rounded
_KERNEL = cv2.getGaussianKernel(2 * _RADIUS + 1, _SIGMA, cv2.CV_32F)
_BIAS = 0.0037930732552754493
_OPSIN = np.array(
    [
        [0.30, 0.622, 0.078],
        [0.23, 0.692, 0.078],
        [0.24342268924547819, 0.20476744424496821, 0.5518098665095536],
    ],
    dtype=np.float32,
)
# Opsin roots to X, Y, B-Y, made positive:
# x = 14 * (l - m) / 2 + 0.42, y = (l + m) / 2 + 0.01, b = s - (l + m) / 2 + 0.55; the bias's cube root is taken off
# each of l, m and s first and is zero in all but y.
_ROOT = _BIAS ** (1 / 3)
_MIX = np.array([[7.0, -7.0, 0.0], [0.5, 0.5, 0.0], [-0.5, -0.5, 1.0]], dtype=np.float32)
_SHIFT = np.array([0.42, 0.01, 0.55], dtype=np.float32) - _MIX @ np.full(3, _ROOT, dtype=np.float32)
_MIX_AND_SHIFT = np.column_stack([_MIX, _SHIFT]).astype(np.float32)
_OPSIN_AND_BIAS = np.column_stack([_OPSIN, np.full(3, _BIAS)]).astype(np.float32)
_LINEAR = np.where(
    np.arange(256) <= 10, np.arange(256) / 255 / 12.92, ((np.arange(256) / 255 + 0.055) / 1.055) ** 2.4
).astype(np.float32)


class _Counts(NamedTuple):
    """What of a plane has any weight: its structure (SSIM), its added and lost edges."""

    structure: bool
    edges: bool


@cache
def _counts(scales: int) -> list[_Counts]:
    """For each plane. At full size only luma's structure has weight, which spares a good third of all work.

    A small picture has fewer scales, and takes the weights in the same order without a gap.
    """
    weights = np.abs(WEIGHTS[: 18 * scales]).reshape(3, scales, 2, 3).sum(axis=2)  # channel, scale, (norm), kind
    planes = [weights[channel, scale] for scale in range(scales) for channel in range(3)]
    return [_Counts(bool(kinds[0] > 0), bool(kinds[1:].max() > 0)) for kinds in planes]


class Reference:
    """A picture that others are compared with; its planes are calculated once."""

    def __init__(self, rgb: NDArray[np.uint8]) -> None:
        self._planes = _pyramid(rgb)

    def score(self, rgb: NDArray[np.uint8]) -> float:
        """The score of a picture (h, w, 3) of the same size: at most 100; may be below 0."""
        pairs = list(zip(self._planes, _pyramid(rgb), strict=True))
        bands = [(index, top) for index, (own, _) in enumerate(pairs) for top in range(0, own.shape[0], BAND_ROWS)]
        sums, counts = np.zeros((len(pairs), 3, 2)), _counts(len(pairs) // 3)
        with ThreadPoolExecutor(THREADS) as pool:
            found = pool.map(lambda at: _band(pairs[at[0]][0], pairs[at[0]][1], at[1], counts[at[0]]), bands)
            for (index, _), part in zip(bands, found, strict=True):
                sums[index] += part
        sums /= np.array([own.size for own, _ in pairs])[:, None, None]
        sums[..., 1] **= 0.25
        return _final(sums)


def _pyramid(rgb: NDArray[np.uint8]) -> list[Plane]:
    """X, Y and B planes of each scale, the largest first."""
    planes: list[Plane] = []
    light: NDArray[np.uint8] | Plane = rgb
    while len(planes) < 3 * SCALES and min(light.shape[:2]) >= LEAST_SIDE_PX:
        level, light = _level(light)
        planes.extend(level)
    return planes


def _level(light: NDArray[np.uint8] | Plane) -> tuple[list[Plane], Plane]:
    """X, Y and B of a picture (linear, or sRGB as uint8), and the linear picture of half its size; band by band."""
    height, width = light.shape[:2]
    planes = [np.empty((height, width), dtype=np.float32) for _ in range(3)]
    half = np.empty(((height + 1) // 2, (width + 1) // 2, 3), dtype=np.float32)

    def fill(top: int) -> None:
        band = light[top : top + BAND_ROWS]
        linear = _even(np.asarray(cv2.LUT(band, _LINEAR) if band.dtype == np.uint8 else band, dtype=np.float32))
        rows = linear.shape[0] // 2
        half[top // 2 : top // 2 + rows] = cv2.resize(linear, (half.shape[1], rows), interpolation=cv2.INTER_AREA)
        for plane, part in zip(planes, _xyb(linear[: len(band), :width]), strict=True):
            plane[top : top + BAND_ROWS] = part

    with ThreadPoolExecutor(THREADS) as pool:
        list(pool.map(fill, range(0, height, BAND_ROWS)))
    return planes, half


def _even(light: Plane) -> Plane:
    height, width = light.shape[:2]
    if height % 2 == 0 and width % 2 == 0:
        return light
    return np.asarray(cv2.copyMakeBorder(light, 0, height % 2, 0, width % 2, cv2.BORDER_REPLICATE), dtype=np.float32)


def _xyb(light: Plane) -> list[Plane]:
    opsin = cv2.transform(np.ascontiguousarray(light), _OPSIN_AND_BIAS)
    roots = cv2.pow(opsin, 1 / 3, dst=opsin)  # six times faster than numpy's cbrt; no value is negative
    return [np.asarray(plane, dtype=np.float32) for plane in cv2.split(cv2.transform(roots, _MIX_AND_SHIFT))]


def _blur(plane: Plane) -> Plane:
    return np.asarray(cv2.sepFilter2D(plane, -1, _KERNEL, _KERNEL, borderType=cv2.BORDER_CONSTANT), dtype=np.float32)


def _band(own: Plane, other: Plane, top: int, counts: _Counts) -> NDArray[np.float64]:
    """(3, 2): sum and sum of 4th powers of the SSIM error, of added edges and of lost edges of one band of a plane.

    Band by band, because what is in the processor's cache costs a third of what comes from memory.
    """
    height = own.shape[0]
    first, last = max(0, top - _RADIUS), min(height, top + BAND_ROWS + _RADIUS)
    kept = slice(top - first, min(top + BAND_ROWS, height) - first)
    return _band_sums(own[first:last], other[first:last], kept, counts)


def _band_sums(own: Plane, other: Plane, kept: slice, counts: _Counts) -> NDArray[np.float64]:
    """As `_band` says, over the kept rows; the others only feed the blurs. What has no weight stays 0."""
    sums = np.zeros((3, 2))
    if not any(counts):
        return sums
    means = _blur(own)[kept], _blur(other)[kept]
    if counts.structure:
        sums[0] = _sums(_structure_error(own, other, kept, means))
    if counts.edges:
        edges = (1 + np.abs(other[kept] - means[1])) / (1 + np.abs(own[kept] - means[0])) - 1
        sums[1], sums[2] = _sums(np.maximum(edges, 0)), _sums(np.maximum(-edges, 0))
    return sums


def _structure_error(own: Plane, other: Plane, kept: slice, means: tuple[Plane, Plane]) -> Plane:
    """1 - SSIM of each kept pixel, never below 0."""
    own_mean, mean = means
    own_square, square, product = (_blur(pair)[kept] for pair in (own * own, other * other, own * other))
    gap = own_mean - mean
    numerator = (1 - gap * gap) * (2 * (product - own_mean * mean) + np.float32(_C2))
    denominator = (own_square - own_mean * own_mean) + (square - mean * mean) + np.float32(_C2)
    return np.asarray(np.maximum(1 - numerator / denominator, 0), dtype=np.float32)


def _sums(values: Plane) -> tuple[float, float]:
    squared = values * values
    return float(cv2.sumElems(values)[0]), float(cv2.norm(squared, cv2.NORM_L2SQR))


def _final(planes: NDArray[np.float64]) -> float:
    """(3 * scales, 3, 2) averages weighted in the reference's order (channel, scale, norm, kind), through its curve."""
    ordered = np.concatenate([planes[channel::3].transpose(0, 2, 1).ravel() for channel in range(3)])
    total = float(np.abs(ordered) @ WEIGHTS[: len(ordered)]) * 0.9562382616834844
    curve = 2.326765642916932 * total - 0.020884521182843837 * total**2 + 6.248496625763138e-05 * total**3
    return 100.0 - 10.0 * curve**0.6276336467831387 if curve > 0 else 100.0


def luma_error(one: NDArray[np.uint8], other: NDArray[np.uint8]) -> Plane:
    """1 - SSIM of the luma of two pictures (h, w, 3), at half their size, for each px of that."""
    planes = [_pyramid_at_half(rgb) for rgb in (one, other)]
    whole = slice(0, planes[0].shape[0])
    means = _blur(planes[0]), _blur(planes[1])
    return _structure_error(planes[0], planes[1], whole, means)


def _pyramid_at_half(rgb: NDArray[np.uint8]) -> Plane:
    _, half = _level(rgb)
    return _level(half)[0][1]
