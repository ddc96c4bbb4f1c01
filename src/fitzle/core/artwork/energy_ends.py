"""Where the energy of a picture ends on the way to its finest grid: natural ones lose half of it from octave to octave,
enlarged ones nearly all beyond the grid that they had."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

Plane = NDArray[np.float32]
Curve = NDArray[np.float64]

TILE_PX = 256
MOST_TILES = 24
BLOCK_PX = 8  # ITU T.81: a JPEG repeats every 8 px too
LOST_OCTAVE = 0.03  # of the energy of the octave below: what is left where an enlarged picture's contents end
FADED_OCTAVE = 0.1  # how far before that it begins to fade tells ways of enlarging apart


class Ends(NamedTuple):
    """Where the energy ends and where it fades, as shares of the finest grid, and the spectrum in dB over cycles/px."""

    share: float
    fades: float
    frequency: Curve
    level_db: Curve


def energy_ends(plane: Plane) -> Ends:
    """Where the spectrum along rows and columns of a picture (h, w), 0 to 255, loses an octave, its noise taken off."""
    power = _axis_power(plane)
    count = len(power)
    frequency = np.arange(count) / TILE_PX
    left = np.maximum(power - np.median(power[frequency > 0.38]), 0)
    left[:3] = 0
    for multiple in (1, 2, 3):
        at = multiple * TILE_PX // BLOCK_PX
        left[at - 1 : at + 2] = np.minimum(left[at - 1 : at + 2], min(left[at - 2], left[at + 2]))
    beyond = np.cumsum(left[::-1])[::-1]
    fine = np.linspace(8, count - 1, 2000)
    left_of_octave = np.interp(fine, range(count), beyond) / np.maximum(
        np.interp(fine / 2, range(count), beyond), 1e-12
    )

    def share_at(part: float) -> float:
        lost = left_of_octave <= part
        return float(fine[int(np.argmax(lost))] / count) if lost.any() and beyond[4] > 0 else 1.0

    return Ends(share_at(LOST_OCTAVE), share_at(FADED_OCTAVE), frequency, 10 * np.log10(power + 1e-6))


def _axis_power(plane: Plane) -> Curve:
    """Mean power of the busiest tiles near both axes of frequency, from 0 to half a cycle a px."""
    short_y, short_x = (max(0, TILE_PX - side) for side in plane.shape)
    plane = cv2.copyMakeBorder(plane, 0, short_y, 0, short_x, cv2.BORDER_REFLECT)
    window = np.outer(np.hanning(TILE_PX), np.hanning(TILE_PX))
    power = np.zeros((TILE_PX, TILE_PX))
    tiles = _busiest(plane)
    for y, x in tiles:
        tile = plane[y : y + TILE_PX, x : x + TILE_PX]
        power += np.abs(np.fft.fft2((tile - tile.mean()) * window)) ** 2
    near = np.abs(np.fft.fftfreq(TILE_PX)) <= 0.06
    half = TILE_PX // 2
    along = power[near][:, :half].mean(axis=0) + power[:, near][:half].mean(axis=1)
    return np.asarray(along / (2 * len(tiles)), dtype=np.float64)


def _busiest(plane: Plane) -> list[tuple[int, int]]:
    height, width = plane.shape
    busy = cv2.integral(np.abs(plane - cv2.GaussianBlur(plane, (0, 0), 2)))

    def activity(y: int, x: int) -> float:
        return float(busy[y + TILE_PX, x + TILE_PX] - busy[y, x + TILE_PX] - busy[y + TILE_PX, x] + busy[y, x])

    step = TILE_PX // 2
    places = [(y, x) for y in range(0, height - TILE_PX + 1, step) for x in range(0, width - TILE_PX + 1, step)]
    places.sort(key=lambda place: -activity(*place))
    return places[: max(4, min(MOST_TILES, len(places) // 3))]
