"""Sizes and shapes that cannot be."""

from __future__ import annotations

import math
from collections.abc import Iterator

from fitzle.core.spec.checking.contradiction import Contradiction, WayOut
from fitzle.core.spec.sheet import RangedSize, SpecSheet
from fitzle.core.spec.sizing import aspect_allowed
from fitzle.core.units import Size, ratio_precision


def check_shape(sheet: SpecSheet) -> Iterator[Contradiction]:
    """A ratio that none of the sizes taken has."""
    size = sheet.size
    if (
        not isinstance(size, RangedSize)
        or size.ratio is None
        or _has_room(size, size.ratio, ratio_precision(str(size.aspect)))
    ):
        return
    ways = [WayOut(f"Any shape instead of {size.aspect}", _size(size, aspect=None))]
    if size.max_width and size.max_height:
        shape = _shape_of(size.max_width, size.max_height)
        if _has_room(size, size.max_width / size.max_height):
            ways.append(WayOut(f"The shape {shape}, as the largest size has it", _size(size, aspect=shape)))
    yield Contradiction(("size",), f"No size between the least and the most has the shape {size.aspect}.", tuple(ways))


def check_recommended(sheet: SpecSheet) -> Iterator[Contradiction]:
    """A recommended size of another shape than the one that is asked for."""
    size = sheet.size
    if not isinstance(size, RangedSize) or size.recommended is None or size.aspect is None or size.ratio is None:
        return
    best = size.recommended.size
    if aspect_allowed(size.aspect, best.width, best.height):
        return
    height = max(1, round(best.width / size.ratio))
    ways = [WayOut("No recommended size", _size(size, recommended=None))]
    if (size.min_height or 1) <= height <= (size.max_height or height):
        ways.insert(
            0,
            WayOut(f"Best at {best.width} × {height} px", _size(size, recommended=_pair(best.width, height))),
        )
    shape = _shape_of(best.width, best.height)
    if _has_room(size, best.ratio):
        ways.append(WayOut(f"The shape {shape}", _size(size, aspect=shape)))
    yield Contradiction(
        ("size",), f"The recommended {best.width} × {best.height} px are not {size.aspect}.", tuple(ways)
    )


def least_size(sheet: SpecSheet) -> Size:
    """The smallest size in px that the sheet takes."""
    size = sheet.size
    if not isinstance(size, RangedSize):
        return size.size
    width, height = size.min_width or 1, size.min_height or 1
    if size.ratio is None:
        return Size(width, height)
    wide = max(float(width), height * size.ratio)
    return Size(max(1, round(wide)), max(1, round(wide / size.ratio)))


def _has_room(size: RangedSize, ratio: float, precision: float = 0.0) -> bool:
    """Whether a size within the limits has the ratio, to within half a pixel on either side or its precision."""
    least = max(float(size.min_width or 1), (size.min_height or 1) * ratio)
    most = min(float(size.max_width or math.inf), (size.max_height or math.inf) * ratio)
    return least - most <= max(0.5 * max(1.0, ratio), precision * least / ratio)


def _shape_of(width: int, height: int) -> str:
    divisor = math.gcd(width, height)
    return f"{width // divisor}:{height // divisor}"


def _pair(width: int, height: int) -> dict[str, int]:
    return {"width": width, "height": height}


def _size(size: RangedSize, **other: object) -> dict[str, object]:
    return {"size": {**size.model_dump(mode="json"), **other}}
