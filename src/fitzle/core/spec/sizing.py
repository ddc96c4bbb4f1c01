"""Which size to deliver where a spec sheet leaves a choice."""

from __future__ import annotations

from collections.abc import Iterator

from fitzle.core.spec.sheet import ExactSize, RangedSize, SpecSheet
from fitzle.core.units import Size, parse_ratio, ratio_precision

USEFUL_LONG_SIDE_PX = 1024  # where neither a most nor a seen size is stated
LARGEST_SIDE_PX = 20_000
SMALLER = (0.75, 0.5)  # times the full size: what is tried where a file would be damaged


def delivered_size(sheet: SpecSheet, natural: Size, *, vector: bool) -> Size:
    """The size in px to deliver artwork of this natural size in.

    An exact size is itself. A range gives the recommended size; without one the largest useful size: as large as
    it is seen or as the range allows, but a bitmap is not enlarged beyond its own pixels unless the range's least
    size asks for it.
    """
    if isinstance(sheet.size, ExactSize):
        return sheet.size.size
    if sheet.size.recommended:
        return sheet.size.recommended.size
    return _largest_useful(sheet.size, sheet, natural, vector)


def size_allowed(size: ExactSize | RangedSize, width: int, height: int) -> bool:
    """Whether a file of this size lies within the demanded size (the aspect is judged on its own)."""
    if isinstance(size, ExactSize):
        return (width, height) == (size.width, size.height)
    least = (size.min_width or 1) <= width and (size.min_height or 1) <= height
    return least and width <= (size.max_width or LARGEST_SIDE_PX) and height <= (size.max_height or LARGEST_SIDE_PX)


def aspect_allowed(aspect: str, width: int, height: int) -> bool:
    """Whether the shape is `aspect` to within half a pixel on either side.

    One with decimals holds as far as it is written: 1200 x 630 px are 1.91:1.
    """
    ratio = parse_ratio(aspect)
    off = abs(width - height * ratio)
    near = off <= 0.5 * max(1.0, ratio) or abs(height - width / ratio) <= 0.5
    return near or off <= height * ratio_precision(aspect)


def smaller_sizes(size: ExactSize | RangedSize, full: Size) -> Iterator[Size]:
    """Smaller sizes of the same shape that a range allows, the largest first."""
    if not isinstance(size, RangedSize):
        return
    for share in SMALLER:
        small = Size(max(1, round(full.width * share)), max(1, round(full.height * share)))
        fits = size.aspect is None or aspect_allowed(size.aspect, *small)
        if fits and size_allowed(size, *small):
            yield small


def _largest_useful(size: RangedSize, sheet: SpecSheet, natural: Size, vector: bool) -> Size:
    ratio = size.ratio or natural.ratio
    wanted = _useful_width(size, sheet, ratio)
    if not vector:
        wanted = min(wanted, natural.width, natural.height * ratio)
    width = max(wanted, float(size.min_width or 1), (size.min_height or 1) * ratio)
    width = min(width, float(size.max_width or LARGEST_SIDE_PX), (size.max_height or LARGEST_SIDE_PX) * ratio)
    return _within(size, round(width), round(width / ratio))


def _useful_width(size: RangedSize, sheet: SpecSheet, ratio: float) -> float:
    stated = [float(size.max_width)] if size.max_width else []
    if size.max_height:
        stated.append(size.max_height * ratio)
    if stated:
        return min(stated)
    if sheet.seen:
        return max(seen.device_px for seen in sheet.seen)
    return USEFUL_LONG_SIDE_PX * min(1.0, ratio)


def _within(size: RangedSize, width: int, height: int) -> Size:
    return Size(
        min(max(width, size.min_width or 1), size.max_width or LARGEST_SIDE_PX),
        min(max(height, size.min_height or 1), size.max_height or LARGEST_SIDE_PX),
    )
