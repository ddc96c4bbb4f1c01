"""Formats, weights, transparency and motion that no file can have at once."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator

from fitzle.core.formats import FORMATS, Format, format_named, label_of
from fitzle.core.spec.checking.contradiction import Contradiction, WayOut
from fitzle.core.spec.checking.sizes import least_size
from fitzle.core.spec.floors import least_bytes
from fitzle.core.spec.sheet import SpecSheet
from fitzle.core.units import Size, words_for_bytes

_CLEAR: tuple[Format, ...] = ("png", "webp")  # what people can nearly always make and upload, first
_MOVING: tuple[Format, ...] = ("gif", "webp")


def check_transparency(sheet: SpecSheet) -> Iterator[Contradiction]:
    """Transparency that no format taken can hold."""
    if sheet.transparency != "required" or any(format_named(one).alpha for one in sheet.formats):
        return
    ways = [_with(sheet, one) for one in _CLEAR]
    ways.append(WayOut("Transparency is not needed", {"transparency": "allowed"}))
    yield Contradiction(
        ("transparency", "formats"), f"It has to be transparent, and {_labels(sheet)} cannot be.", tuple(ways)
    )


def check_motion(sheet: SpecSheet) -> Iterator[Contradiction]:
    """Motion that no format taken can hold."""
    if not sheet.motion.allowed or any(format_named(one).frames for one in sheet.formats):
        return
    asked = "has to move" if sheet.motion.required else "may move"
    ways = [*(_with(sheet, one) for one in _MOVING), WayOut("A still picture", {"motion": {"allowed": False}})]
    yield Contradiction(("motion", "formats"), f"It {asked}, and {_labels(sheet)} cannot.", tuple(ways))


def check_sides(sheet: SpecSheet) -> Iterator[Contradiction]:
    """Formats that cannot be as large as the smallest size taken."""
    size = least_size(sheet)
    small = [one for one in sheet.formats if _too_long(one, size)]
    if not small:
        return
    rest = [one for one in sheet.formats if one not in small]
    first = small[0]
    longest = format_named(first).longest_side_px
    ways = [WayOut(f"Without {label_of(first)}", {"formats": [one for one in sheet.formats if one != first]})]
    ways = ways if rest else [WayOut("PNG instead", {"formats": ["png"]})]
    yield Contradiction(
        ("formats", "size"),
        f"{label_of(first)} is at most {longest} px long; at least {max(size)} px are asked for.",
        tuple(ways),
    )


def check_weight(sheet: SpecSheet) -> Iterator[Contradiction]:
    """A limit that no file of the smallest size taken can meet."""
    size, limit = least_size(sheet), sheet.max_bytes
    able = [one for one in sheet.formats if not _too_long(one, size)]
    if limit is None or not able:
        return
    lightest = min(able, key=lambda one: least_bytes(one, size))
    least = least_bytes(lightest, size)
    if least <= limit:
        return
    enough = _rounded_up(least)
    ways = [
        WayOut(f"At most {words_for_bytes(enough)}", {"max_bytes": enough}),
        WayOut("Any weight", {"max_bytes": None}),
    ]
    ways += [_with(sheet, one) for one in _CLEAR if one not in sheet.formats and least_bytes(one, size) <= limit]
    yield Contradiction(
        ("max_bytes", "size", "formats"),
        f"{size.width} × {size.height} px as {label_of(lightest)} weigh at least {words_for_bytes(least)}, even in one "
        f"plain colour; {words_for_bytes(limit)} are taken.",
        tuple(ways),
    )


def _too_long(fmt: Format, size: Size) -> bool:
    longest = FORMATS[fmt].longest_side_px
    return longest is not None and max(size) > longest


def _with(sheet: SpecSheet, fmt: Format) -> WayOut:
    return WayOut(f"Take {label_of(fmt)} too", {"formats": [*sheet.formats, fmt]})


def _labels(sheet: SpecSheet) -> str:
    return _and([label_of(one) for one in sheet.formats])


def _and(words: Iterable[str]) -> str:
    *most, last = words
    return f"{', '.join(most)} and {last}" if most else last


def _rounded_up(count: int) -> int:
    """A limit as a page would write it, with room for a picture that is not empty: twice that, in two figures."""
    step = int(10 ** max(0, len(str(2 * count)) - 2))
    return math.ceil(2 * count / step) * step
