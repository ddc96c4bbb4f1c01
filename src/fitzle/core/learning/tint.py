"""How a screenshot's colours follow from the picture's: screenshot = keeps * picture + adds, for each channel.

A veil of a colour and an opacity is keeps = 1 - opacity and adds = opacity * colour. Found by RANSAC over pairs of
pixels, then by reweighted least squares with Tukey's weights (Huber and Ronchetti, "Robust Statistics", 2009, 4.8):
what the place draws over the picture counts for nothing.
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

MOST_PIXELS, PAIRS, LOOKED_AT = 8000, 150, 800
TOO_ALIKE = 300.0  # squared distance of two pixels from which no slope is read
FLAT = 8.0  # variance of the picture below which the slope cannot be known
LEAST_KEPT, MOST_KEPT = 0.1, 1.3
LEAST_NOISE = 2.0

Values = NDArray[np.float64]


class Tint(NamedTuple):
    """`adds` for the three channels; `noise` is a robust standard deviation of what is left, in steps of 0 to 255."""

    keeps: float
    adds: Values
    noise: float


def tukey(residual: NDArray[np.floating], most: float) -> Values:
    """Weights that fall from 1 at no residual to 0 at `most` and beyond."""
    share = residual / most
    return np.where(np.abs(share) < 1, (1 - share * share) ** 2, 0.0)


def tint_between(
    picture: NDArray[np.floating], shot: NDArray[np.floating], start: Tint | None = None, rounds: int = 12
) -> Tint:
    """The tint between pixels (n, 3) of the picture and of the screenshot, which belong together one by one."""
    chance = np.random.default_rng(0)
    if len(picture) > MOST_PIXELS:
        some = chance.integers(0, len(picture), MOST_PIXELS)
        picture, shot = picture[some], shot[some]
    x, y = picture.astype(np.float64), shot.astype(np.float64)
    keeps, adds = (start.keeps, start.adds) if start else _first_guess(x, y, chance)
    return _settled(x, y, keeps, adds, rounds)


def _first_guess(picture: Values, shot: Values, chance: np.random.Generator) -> tuple[float, Values]:
    one, other = chance.integers(0, len(picture), (2, PAIRS))
    apart, moved = picture[one] - picture[other], shot[one] - shot[other]
    length = (apart**2).sum(1)
    told = length > TOO_ALIKE
    guesses: list[tuple[float, Values]] = [(1.0, np.median(shot - picture, 0)), (1.0, np.zeros(3))]
    keeps = (apart * moved).sum(1)[told] / length[told]
    adds = shot[one][told] - keeps[:, None] * picture[one][told]
    guesses += [(float(k), b) for k, b in zip(keeps, adds, strict=True) if 0.15 < k < 1.25]
    some = chance.choice(len(picture), min(len(picture), LOOKED_AT), replace=False)
    x, y = picture[some], shot[some]
    return min(guesses, key=lambda guess: float(np.minimum(np.abs(y - guess[0] * x - guess[1]).sum(1), 40).mean()))


def _settled(picture: Values, shot: Values, keeps: float, adds: Values, rounds: int) -> Tint:
    noise = 20.0
    for _ in range(rounds):
        left = np.sqrt(((shot - keeps * picture - adds) ** 2).mean(1))
        noise = max(LEAST_NOISE, 1.48 * float(np.median(np.minimum(left, 60))))
        weight = tukey(left, 4 * noise)[:, None]
        whole = float(weight.sum())
        if whole < 10:
            break
        of_picture, of_shot = (weight * picture).sum(0) / whole, (weight * shot).sum(0) / whole
        apart, moved = picture - of_picture, shot - of_shot
        spread = float((weight * apart * apart).sum())
        slope = float((weight * apart * moved).sum()) / spread if spread / whole >= FLAT else 1.0
        keeps = float(np.clip(slope, LEAST_KEPT, MOST_KEPT))
        adds = of_shot - keeps * of_picture
    return Tint(keeps, adds, noise)
