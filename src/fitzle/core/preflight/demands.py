"""Each demand of a spec sheet beside its measured figure: would the file be refused?"""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from fitzle.core.artwork.sniff import FORMAT_NAMES
from fitzle.core.findings import Finding, Frozen
from fitzle.core.preflight.file_facts import FileFacts
from fitzle.core.spec.sheet import ExactSize, RangedSize, SpecSheet
from fitzle.core.spec.sizing import aspect_allowed, size_allowed
from fitzle.core.units import words_for_bytes


class Demand(Frozen):
    """One line of the spec sheet: what is asked, what was measured, and the finding where they disagree."""

    rule: str
    asked: str
    measured: str
    state: Literal["fits", "risky", "refused"]
    finding: Finding | None = None


def judge_file(file: FileFacts, sheet: SpecSheet) -> list[Demand]:
    """All demands of the sheet against a file, in reading order."""
    found = [judge(file, sheet) for judge in DEMANDS.values()]
    return [demand for demand in found if demand]


def size_words(sheet: SpecSheet) -> str:
    """The demanded size as people write it."""
    size = sheet.size
    if isinstance(size, ExactSize):
        return f"{size.width} × {size.height} px"
    return _range_words(size)


def format_words(sheet: SpecSheet) -> str:
    """`JPEG, else PNG`."""
    return ", else ".join(FORMAT_NAMES.get(fmt, fmt) for fmt in sheet.formats)


def _range_words(size: RangedSize) -> str:
    parts = []
    for words, width, height in (
        ("at least", size.min_width, size.min_height),
        ("at most", size.max_width, size.max_height),
    ):
        if width and height:
            parts.append(f"{words} {width} × {height} px")
        elif width or height:
            parts.append(f"{words} {width or height} px {'wide' if width else 'high'}")
    return ", ".join(parts) or "any size"


def _demand(rule: str, asked: str, measured: str, finding: Finding | None) -> Demand:
    state = finding.severity if finding and finding.severity != "note" else "fits"
    return Demand(rule=rule, asked=asked, measured=measured, state=state, finding=finding)


def _refused(rule: str, message: str, measured: float | str | None, limit: float | str | None) -> Finding:
    return Finding(rule=rule, severity="refused", message=message, measured=measured, limit=limit)


def judge_size(file: FileFacts, sheet: SpecSheet) -> Demand:
    """Exact or least and most size."""
    asked, measured = size_words(sheet), f"{file.width} × {file.height}"
    finding = None
    if not size_allowed(sheet.size, file.width, file.height):
        finding = _refused("size", f"It is {measured} px; this place takes {asked}.", str(file.size), asked)
    return _demand("size", asked, measured, finding)


def judge_aspect(file: FileFacts, sheet: SpecSheet) -> Demand | None:
    """The shape, where a range fixes one; exact to half a pixel."""
    if not isinstance(sheet.size, RangedSize) or not sheet.size.ratio or not sheet.size.aspect:
        return None
    asked, measured = f"shape {sheet.size.aspect}", f"{file.size.ratio:.3g}:1"
    finding = None
    if not aspect_allowed(sheet.size.ratio, file.width, file.height):
        message = (
            f"Its shape is {measured}; this place takes {sheet.size.aspect}. It would be stretched or cropped there."
        )
        finding = _refused("aspect", message, round(file.size.ratio, 4), sheet.size.aspect)
    return _demand("aspect", asked, sheet.size.aspect if not finding else measured, finding)


def judge_format(file: FileFacts, sheet: SpecSheet) -> Demand:
    """The format by content; the extension is not looked at."""
    asked, measured = format_words(sheet), FORMAT_NAMES.get(file.format, file.format)
    finding = None
    if file.format not in sheet.formats:
        finding = _refused("format", f"It is really a {measured}; this place takes {asked}.", file.format, asked)
    return _demand("format", asked, measured, finding)


def judge_bytes(file: FileFacts, sheet: SpecSheet) -> Demand | None:
    """The byte limit."""
    if sheet.max_bytes is None:
        return None
    asked, measured = f"at most {words_for_bytes(sheet.max_bytes)}", words_for_bytes(file.bytes)
    finding = None
    if file.bytes > sheet.max_bytes:
        over = words_for_bytes(file.bytes - sheet.max_bytes)
        finding = _refused("bytes", f"It has {measured}, {over} too many.", file.bytes, sheet.max_bytes)
    return _demand("bytes", asked, measured, finding)


def judge_transparency(file: FileFacts, sheet: SpecSheet) -> Demand:
    """Whether any pixel is transparent, where that is forbidden or required."""
    asked = {"forbidden": "no transparency", "allowed": "transparency allowed", "required": "transparency required"}
    measured = "transparent" if file.transparent else "opaque"
    finding = None
    if sheet.transparency == "forbidden" and file.transparent:
        message = "Parts of it are transparent; here they would turn black or white. Choose a ground."
        finding = _refused("transparency", message, measured, "opaque")
    if sheet.transparency == "required" and not file.transparent:
        finding = _refused(
            "transparency", "Nothing in it is transparent; this place wants a clear ground.", measured, "transparent"
        )
    return _demand("transparency", asked[sheet.transparency], measured, finding)


def judge_motion(file: FileFacts, sheet: SpecSheet) -> Demand:
    """Still or moving, and for how long."""
    motion, moves = sheet.motion, file.frames > 1
    asked = "moving picture" if motion.required else "still or moving" if motion.allowed else "still picture"
    if motion.allowed and motion.max_seconds:
        asked += f", at most {motion.max_seconds:g} s"
    measured = f"{file.frames} frames, {file.seconds:.1f} s" if moves else "still"
    message = None
    if moves and not motion.allowed:
        message = f"It moves ({measured}); this place takes a still picture."
    elif not moves and motion.required:
        message = "It stands still; this place takes a moving picture."
    elif moves and motion.max_seconds and file.seconds > motion.max_seconds:
        message = f"It runs for {file.seconds:.1f} s; at most {motion.max_seconds:g} s are taken."
    elif moves and motion.max_fps and file.seconds and file.frames / file.seconds > motion.max_fps + 0.01:
        message = f"It has {file.frames / file.seconds:.0f} frames a second; at most {motion.max_fps:g} are taken."
    return _demand("motion", asked, measured, _refused("motion", message, measured, asked) if message else None)


DEMANDS: dict[str, Callable[[FileFacts, SpecSheet], Demand | None]] = {
    "size": judge_size,
    "aspect": judge_aspect,
    "format": judge_format,
    "bytes": judge_bytes,
    "transparency": judge_transparency,
    "motion": judge_motion,
}
