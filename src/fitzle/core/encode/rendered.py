"""A fit as encoders take it: drawn when one of them asks for it, and once."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from fitzle.core.encode.raster import Raster


class Rendered:
    """`paint` gives pixels (h, w, 4), straight alpha; `draw` gives an SVG."""

    def __init__(self, paint: Callable[[], NDArray[np.uint8]], draw: Callable[[], bytes]) -> None:
        self._paint, self._draw = paint, draw

    @cached_property
    def raster(self) -> Raster:
        """As pixels."""
        return Raster(self._paint())

    @cached_property
    def svg(self) -> bytes:
        """As SVG with words as outlines."""
        return self._draw()


def rendered_pixels(pixels: NDArray[np.uint8]) -> Rendered:
    """Pixels alone, for what has no drawing behind it; raises ValueError where somebody asks for an SVG."""

    def nothing() -> bytes:
        raise ValueError("these pixels have no drawing behind them")

    return Rendered(lambda: pixels, nothing)
