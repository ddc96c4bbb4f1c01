"""One file for several places: what their sheets demand in common, or why no file meets all of them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple, TypeVar

from fitzle.core.colour.contrast import HALF_LIGHT, relative_luminance
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.formats import Format, label_of
from fitzle.core.spec.checking.checks import contradictions
from fitzle.core.spec.sheet import (
    MOST_OF_EACH,
    AnyMask,
    ExactSize,
    Motion,
    RangedSize,
    SpecSheet,
    Transparency,
    Veil,
)
from fitzle.core.spec.sizing import aspect_allowed, delivered_size, size_allowed
from fitzle.core.units import Size, ratio_precision

Value = TypeVar("Value")
Number = TypeVar("Number", int, float)
LARGEST = Size(20_000, 20_000)  # artwork that no place asks for more of


class Obstacle(NamedTuple):
    """Why no file serves all of several places: the key of their sheets, and words that name the places."""

    key: str
    message: str


class _Apart(Exception):
    """Demands of two sheets that no file meets; each said so that it follows the name of its place."""

    def __init__(self, key: str, one: str, other: str) -> None:
        super().__init__(key, one, other)
        self.key, self.one, self.other = key, one, other


def common_sheet(sheets: Sequence[SpecSheet]) -> SpecSheet | Obstacle:
    """The sheet that a file has to meet to be taken by all of several places, or why none can.

    What they ask for is cut down to what all of them take; how it is seen is everything that holds at any of them: all
    grounds, zones, windows and sizes, the heaviest veil, the narrowest cut. Formats stand in the order that all of them
    like best. Name, file names, upload fields and capacity stay with each place. Raises ValueError for no sheets.
    """
    if not sheets:
        raise ValueError("there is nothing to have in common")
    common = sheets[0]
    for number, sheet in enumerate(sheets[1:], start=1):
        try:
            common = _both(common, sheet)
        except _Apart:
            return _named(sheets[:number], sheet)
    problem = next(iter(contradictions(common)), None)
    if problem and len(sheets) > 1:
        return Obstacle(problem.keys[0], f"Together they ask for what no file can be: {problem.message}")
    return common


def worse_for(sheet: SpecSheet, common: SpecSheet) -> bool:
    """Whether a place looks worse with the file for all than with one of its own, though it takes both.

    It gets fewer pixels, and they would be seen; or it takes any shape, and the file for all is padded to a fixed one;
    or it stands on light ground only or on dark ground only, and the file for all on both.
    """
    if _any_shape(sheet) and not _any_shape(common):
        return True
    if len(_grounds(sheet)) == 1 and len(_grounds(common)) == 2:
        return True
    own, shared = (delivered_size(one, LARGEST, vector=True).width for one in (sheet, common))
    needed = max((one.device_px for one in sheet.seen), default=own if _has_most(sheet) else 1)
    return shared < min(own, needed)


def _grounds(sheet: SpecSheet) -> set[bool]:
    """Whether its grounds are dark, light or both: black or white reads better on them."""
    found = {relative_luminance(parse_hex(ground)) < HALF_LIGHT for ground in sheet.grounds}
    return found or {False}


def _any_shape(sheet: SpecSheet) -> bool:
    return isinstance(sheet.size, RangedSize) and sheet.size.aspect is None


def groups(sheets: Sequence[SpecSheet]) -> list[list[int]]:
    """Which of the sheets one file serves, as their numbers: those that it makes worse for none; each in one group.

    Each sheet joins the first group that it can, in order, so that the answer does not change with a sheet at the end.
    """
    found: list[tuple[list[int], SpecSheet]] = []
    for number, sheet in enumerate(sheets):
        for at, (members, common) in enumerate(found):
            together = _quickly(common, sheet)
            if together is None or any(worse_for(sheets[one], together) for one in (*members, number)):
                continue
            found[at] = ([*members, number], together)
            break
        else:
            found.append(([number], sheet))
    return [members for members, _ in found if len(members) > 1]


def _quickly(common: SpecSheet, sheet: SpecSheet) -> SpecSheet | None:
    try:
        together = _both(common, sheet)
    except _Apart:
        return None
    return None if contradictions(together) else together


def _named(before: Sequence[SpecSheet], sheet: SpecSheet) -> Obstacle:
    """Which of the sheets before does not go with this one; all of them together where each alone does."""
    for other in before:
        try:
            _both(other, sheet)
        except _Apart as apart:
            return Obstacle(apart.key, f"{_called(other)} {apart.one}, {_called(sheet)} {apart.other}.")
    common = common_sheet(before)
    assert isinstance(common, SpecSheet)
    try:
        _both(common, sheet)
    except _Apart as apart:
        return Obstacle(apart.key, f"The others together: it {apart.one}; {_called(sheet)} {apart.other}.")
    raise AssertionError("these sheets go together")


def _called(sheet: SpecSheet) -> str:
    return f"{sheet.name} at {sheet.destination}" if sheet.destination else sheet.name


def _both(one: SpecSheet, other: SpecSheet) -> SpecSheet:
    return one.model_copy(
        update={
            "kind": one.kind if one.kind == other.kind else None,
            "size": _size(one, other),
            "formats": _formats(one, other),
            "max_bytes": _smaller(one.max_bytes, other.max_bytes),
            "transparency": _transparency(one, other),
            "motion": _motion(one, other),
            "covered": _joined(one.covered, other.covered),
            "windows": _joined(one.windows, other.windows),
            "seen": _joined(one.seen, other.seen),
            "grounds": _joined(one.grounds, other.grounds),
            "veil": _heavier(one.veil, other.veil),
            "mask": _narrower(one.mask, other.mask),
            "fields": (),
            "capacity": None,
        }
    )


def _size(one: SpecSheet, other: SpecSheet) -> ExactSize | RangedSize:
    first, second = one.size, other.size
    if isinstance(first, RangedSize) and isinstance(second, RangedSize):
        return _ranges(first, second)
    exact, size = (first, second) if isinstance(first, ExactSize) else (second, first)
    assert isinstance(exact, ExactSize)
    taken = size_allowed(size, exact.width, exact.height)
    shaped = (
        not isinstance(size, RangedSize) or not size.aspect or aspect_allowed(size.aspect, exact.width, exact.height)
    )
    if not taken or not shaped:
        raise _Apart("size", _asks(first), _asks(second))
    return exact


def _ranges(one: RangedSize, other: RangedSize) -> RangedSize:
    both = RangedSize.model_construct(
        min_width=_larger(one.min_width, other.min_width),
        min_height=_larger(one.min_height, other.min_height),
        max_width=_smaller(one.max_width, other.max_width),
        max_height=_smaller(one.max_height, other.max_height),
        aspect=_aspect(one, other),
    )
    for least, most in ((both.min_width, both.max_width), (both.min_height, both.max_height)):
        if least and most and least > most:
            raise _Apart("size", _asks(one), _asks(other))
    best = [size.recommended for size in (one, other) if size.recommended]
    allowed = [size for size in best if size_allowed(both, size.width, size.height) and _shaped(both, size)]
    return both.model_copy(update={"recommended": max(allowed, key=lambda size: size.width, default=None)})


def _shaped(size: ExactSize | RangedSize, exact: ExactSize) -> bool:
    """Whether an exact size has the shape that is asked for, where one is."""
    return not isinstance(size, RangedSize) or not size.aspect or aspect_allowed(size.aspect, exact.width, exact.height)


def _aspect(one: RangedSize, other: RangedSize) -> str | None:
    if not one.aspect or not other.aspect:
        return one.aspect or other.aspect
    assert one.ratio and other.ratio
    slack = max(ratio_precision(one.aspect), ratio_precision(other.aspect), 1e-9)
    if abs(one.ratio - other.ratio) > slack:
        raise _Apart("size", f"takes the shape {one.aspect}", f"{other.aspect}")
    return one.aspect if ratio_precision(one.aspect) <= ratio_precision(other.aspect) else other.aspect


def _asks(size: ExactSize | RangedSize) -> str:
    if isinstance(size, ExactSize):
        return f"takes exactly {size.width} × {size.height} px"
    words = []
    for word, width, height in (
        ("at least", size.min_width, size.min_height),
        ("at most", size.max_width, size.max_height),
    ):
        if width or height:
            pair = (
                f"{width} × {height} px" if width and height else f"{width or height} px {'wide' if width else 'high'}"
            )
            words.append(f"{word} {pair}")
    shape = [f"of the shape {size.aspect}"] if size.aspect else []
    return f"takes {' and '.join(words + shape) or 'any size'}"


def _formats(one: SpecSheet, other: SpecSheet) -> tuple[Format, ...]:
    """Those that both take; what the two like best in the sum of their ranks first."""
    both = [fmt for fmt in one.formats if fmt in other.formats]
    if not both:
        raise _Apart("formats", f"takes {_labels(one)}", f"{_labels(other)}")
    return tuple(sorted(both, key=lambda fmt: one.formats.index(fmt) + other.formats.index(fmt)))


def _labels(sheet: SpecSheet) -> str:
    return " or ".join(label_of(fmt) for fmt in sheet.formats)


def _transparency(one: SpecSheet, other: SpecSheet) -> Transparency:
    asked = {one.transparency, other.transparency}
    if asked == {"required", "forbidden"}:
        words = {"required": "has to be transparent", "forbidden": "may not be"}
        raise _Apart("transparency", words[one.transparency], words[other.transparency])
    return "required" if "required" in asked else "forbidden" if "forbidden" in asked else "allowed"


def _motion(one: SpecSheet, other: SpecSheet) -> Motion:
    first, second = one.motion, other.motion
    for must, may in ((first, second), (second, first)):
        if must.required and not may.allowed:
            words = {True: "has to move", False: "has to stand still"}
            raise _Apart("motion", words[first.required], words[second.required])
    if not (first.allowed and second.allowed):
        return Motion()
    if None not in (first.loop, second.loop) and first.loop != second.loop:
        if first.required or second.required:
            words = {True: "plays again and again", False: "plays once"}
            raise _Apart("motion", words[bool(first.loop)], words[bool(second.loop)])
        return Motion()
    return Motion(
        allowed=True,
        required=first.required or second.required,
        max_seconds=_smaller(first.max_seconds, second.max_seconds),
        max_fps=_smaller(first.max_fps, second.max_fps),
        loop=first.loop if first.loop is not None else second.loop,
    )


def _heavier(one: Veil | None, other: Veil | None) -> Veil | None:
    return max((veil for veil in (one, other) if veil), key=lambda veil: veil.opacity, default=None)


def _narrower(one: AnyMask | None, other: AnyMask | None) -> AnyMask | None:
    """A circle before round corners, larger corners before smaller ones."""
    masks = [mask for mask in (one, other) if mask]
    return max(masks, key=lambda mask: 1.0 if mask.shape == "circle" else mask.radius, default=None)


def _joined(one: tuple[Value, ...], other: tuple[Value, ...]) -> tuple[Value, ...]:
    return tuple(dict.fromkeys((*one, *other)))[:MOST_OF_EACH]


def _larger(one: Number | None, other: Number | None) -> Number | None:
    return max((value for value in (one, other) if value is not None), default=None)


def _smaller(one: Number | None, other: Number | None) -> Number | None:
    return min((value for value in (one, other) if value is not None), default=None)


def _has_most(sheet: SpecSheet) -> bool:
    size = sheet.size
    return isinstance(size, ExactSize) or bool(size.max_width or size.max_height or size.recommended)
