"""OKLab (Björn Ottosson, "A perceptual color space for image processing", 2020)."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from fitzle.core.colour.srgb import Rgb, linear

_TO_LMS = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ]
)
_TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ]
)


def oklab(pixels: NDArray[np.uint8]) -> NDArray[np.float64]:
    """sRGB pixels (…, 3), 0 to 255, as OKLab (…, 3): lightness 0 to 1, a and b about -0.4 to 0.4."""
    lms = np.cbrt(linear(pixels) @ _TO_LMS.T)
    return np.asarray(lms @ _TO_LAB.T, dtype=np.float64)


def difference(one: Rgb, other: Rgb) -> float:
    """Euclidean distance in OKLab; about 0.02 is just noticeable."""
    pair = oklab(np.array([one, other], dtype=np.uint8))
    return float(np.linalg.norm(pair[0] - pair[1]))
