"""How round the corners are: at each one the mask that fits best what is picture and what is ground."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.learning.edges import BESIDE
from fitzle.core.learning.placement import Planes, Region
from fitzle.core.learning.pyramid import View

LEAST_RADIUS, FINE_BELOW = 1.75, 240.0
TOLD_APART, MOST_FOREIGN = 25.0, 30.0
CORNER_SHARE = 0.2146  # 1 - pi / 4: of a square, what rounding takes off one corner
GAIN, GAIN_OF_AREA = 0.1, 0.4
LEAST_SQUARE = 0.06

Values = NDArray[np.floating]


class Corners(NamedTuple):
    """The radius that at least two corners agree on, in px (0: square), and how many corners could be looked at."""

    radius: float
    looked_at: int


def corners_of(shot: Planes, expected: Planes, view: View, box: Region, rough: float) -> Corners:
    """The corners of a box; `expected` covers `view` with BESIDE px more on each side, `rough` is a first radius."""
    found = [
        radius
        for right in (False, True)
        for bottom in (False, True)
        if (radius := _radius(shot, expected, view, box, rough, right=right, bottom=bottom)) is not None
    ]
    return Corners(_agreed(found), len(found))


def _agreed(radii: list[float]) -> float:
    rounded = [radius for radius in radii if radius > 0]
    least = min(2, len(radii))
    if not rounded or len(rounded) < least or 2 * len(rounded) < len(radii):
        return 0.0
    middle = float(np.median(rounded))
    agree = [radius for radius in rounded if abs(radius - middle) <= max(1.5, 0.25 * middle)]
    return middle if len(agree) >= least else 0.0


def _radius(
    shot: Planes, expected: Planes, view: View, box: Region, rough: float, *, right: bool, bottom: bool
) -> float | None:
    """The radius at one corner, 0 for a square one; None where it cannot be told."""
    side = int(min(box.short / 2, max(8, 2.2 * rough + 6)))
    across, down = (np.arange(-side, 0) if far else np.arange(side) for far in (right, bottom))
    corner = (box.right if right else box.left, box.bottom if bottom else box.top)
    columns, rows = int(np.floor(corner[0] + 1e-3)) + across, int(np.floor(corner[1] + 1e-3)) + down
    outside = (int(corner[0]) + (4 if right else -4), int(corner[1]) + (4 if bottom else -4))
    if not _lies_in(shot, columns, rows) or not _lies_in(shot, *(np.array([o - 1, o + 1]) for o in outside)):
        return None
    patch = shot[outside[1] - 1 : outside[1] + 2, outside[0] - 1 : outside[0] + 2].reshape(-1, 3)
    ground = np.median(patch, 0)
    drawn = expected[
        np.ix_(
            np.clip(rows - int(view.y) + BESIDE, 0, expected.shape[0] - 1),
            np.clip(columns - int(view.x) + BESIDE, 0, expected.shape[1] - 1),
        )
    ]
    inward = ((columns + 0.5 - corner[0]) * (-1 if right else 1))[None]
    downward = ((rows + 0.5 - corner[1]) * (-1 if bottom else 1))[:, None]
    share, weight = _shares(shot[np.ix_(rows, columns)], drawn, ground)
    near = (inward < side * 0.3 + 2) & (downward < side * 0.3 + 2)
    if float((weight * near).sum()) < 10 * int(near.sum()):
        return None
    return _best_radius(share, weight, inward, downward, min(side + 1.0, box.short / 2))


def _lies_in(shot: Planes, columns: NDArray[np.intp], rows: NDArray[np.intp]) -> bool:
    height, width = shot.shape[:2]
    return bool(columns.min() >= 0 and rows.min() >= 0 and columns.max() < width and rows.max() < height)


def _shares(there: Planes, drawn: Planes, ground: Values) -> tuple[Values, Values]:
    """How much of each px is picture, 0 to 1, and how much that can be trusted."""
    apart = drawn - ground
    length = np.sqrt((apart * apart).sum(2))
    share = np.clip((apart * (there - ground)).sum(2) / np.maximum(length * length, 1), 0, 1)
    foreign = np.linalg.norm(there - ground - share[..., None] * apart, axis=2)
    weight = np.minimum(length, 80) * (length > TOLD_APART) * (foreign < MOST_FOREIGN)
    return share, weight


def _best_radius(share: Values, weight: Values, inward: Values, downward: Values, most: float) -> float:
    radii = np.arange(0, most + 0.26, 0.5 if most * 2 < FINE_BELOW else 1.0)
    costs = [float((weight * np.abs(share - _mask(inward, downward, radius))).sum()) for radius in radii]
    best = int(np.argmin(costs))
    gain = costs[0] - costs[best]
    seen = weight[weight > 0]
    worth = GAIN_OF_AREA * CORNER_SHARE * radii[best] ** 2 * float(np.median(seen)) if seen.size else np.inf
    told = radii[best] > LEAST_RADIUS and gain > GAIN * costs[0] and gain > worth
    return float(radii[best]) if told else 0.0


def _mask(inward: Values, downward: Values, radius: float) -> Values:
    """An antialiased corner: 1 inside, 0 outside, by the distance from its edge."""
    edge = np.minimum(inward, downward)
    inner = (inward < radius) & (downward < radius)
    return np.clip(np.where(inner, radius - np.hypot(radius - inward, radius - downward), edge) + 0.5, 0, 1)
