"""Easing curves of CSS Easing Functions Level 1: progress in time to progress in movement."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Annotated

from pydantic import AfterValidator

Curve = Callable[[float], float]
_NAMED = {
    "linear": (0.0, 0.0, 1.0, 1.0),
    "ease": (0.25, 0.1, 0.25, 1.0),
    "ease-in": (0.42, 0.0, 1.0, 1.0),
    "ease-out": (0.0, 0.0, 0.58, 1.0),
    "ease-in-out": (0.42, 0.0, 0.58, 1.0),
}
NAMES = tuple(_NAMED)
_NUMBER = r"\s*(-?\d*\.?\d+)\s*"
_BEZIER = re.compile(rf"cubic-bezier\({_NUMBER},{_NUMBER},{_NUMBER},{_NUMBER}\)")
_NEAR = 1e-7
_NEWTON, _HALVINGS = 8, 40
MOST_BEYOND = 3.0  # of the ordinates: what swings farther is a mistake


def curve(easing: str) -> Curve:
    """The function of a curve by its name, or as `cubic-bezier(x1, y1, x2, y2)`; raises ValueError for any other."""
    figures = _figures(easing)
    if figures == _NAMED["linear"]:
        return lambda progress: min(max(progress, 0.0), 1.0)
    return lambda progress: _on_curve(figures, min(max(progress, 0.0), 1.0))


def _checked(easing: str) -> str:
    _figures(easing)
    return easing


Easing = Annotated[str, AfterValidator(_checked)]


def _figures(easing: str) -> tuple[float, float, float, float]:
    if easing in _NAMED:
        return _NAMED[easing]
    found = _BEZIER.fullmatch(easing.strip())
    if not found:
        raise ValueError(f"should be {', '.join(NAMES)} or cubic-bezier(x1, y1, x2, y2)")
    x1, y1, x2, y2 = (float(number) for number in found.groups())
    if not (0 <= x1 <= 1 and 0 <= x2 <= 1):
        raise ValueError("the first and third figure of a cubic-bezier lie between 0 and 1")
    if max(abs(y1), abs(y2)) > MOST_BEYOND:
        raise ValueError(f"the second and fourth figure of a cubic-bezier are at most {MOST_BEYOND:g}")
    return x1, y1, x2, y2


def _on_curve(figures: tuple[float, float, float, float], progress: float) -> float:
    """The ordinate of the cubic Bézier from (0, 0) to (1, 1) where its abscissa is the progress."""
    if progress in (0.0, 1.0):
        return progress
    x1, y1, x2, y2 = figures
    return _bezier(y1, y2, _parameter(x1, x2, progress))


def _parameter(x1: float, x2: float, wanted: float) -> float:
    """The parameter at an abscissa: Newton's steps, and halving where the curve is too flat for them."""
    at = wanted
    for _ in range(_NEWTON):
        slope = 3 * (1 - at) ** 2 * x1 + 6 * (1 - at) * at * (x2 - x1) + 3 * at**2 * (1 - x2)
        if abs(slope) < 1e-6:
            break
        step = (_bezier(x1, x2, at) - wanted) / slope
        at -= step
        if abs(step) < _NEAR and 0 <= at <= 1:
            return at
    low, high = 0.0, 1.0
    for _ in range(_HALVINGS):
        at = (low + high) / 2
        if _bezier(x1, x2, at) < wanted:
            low = at
        else:
            high = at
    return at


def _bezier(one: float, other: float, at: float) -> float:
    return 3 * one * (1 - at) ** 2 * at + 3 * other * (1 - at) * at**2 + at**3
