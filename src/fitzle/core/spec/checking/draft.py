"""A sheet that is being written: as plain data, which need not be a sheet yet."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any, NamedTuple

from pydantic import ValidationError

from fitzle.core.documents import place_of_problem, words_of_problem
from fitzle.core.formats import FORMATS, label_of
from fitzle.core.spec.checking.checks import contradictions
from fitzle.core.spec.checking.contradiction import Contradiction, WayOut
from fitzle.core.spec.sheet import SpecSheet

_KEYS = {"mask": "cut"}  # what the document calls otherwise than its JSON
_LABELS = {
    "min_width": "Least width",
    "min_height": "Least height",
    "max_width": "Most width",
    "max_height": "Most height",
    "max_bytes": "Weight",
    "max_seconds": "Seconds",
    "max_fps": "Frames a second",
    "max_length": "Letters",
    "aspect": "Shape",
    "fitzle_spec": "Version",
}
_SIDES = (("width", "wide"), ("height", "high"))


class Draft(NamedTuple):
    """The sheet, None where the data are none, and what cannot be."""

    sheet: SpecSheet | None
    contradictions: list[Contradiction]


def look_at(data: dict[str, Any]) -> Draft:
    """What plain data say as a sheet. Never raises: what is wrong is said at its key."""
    try:
        sheet = SpecSheet.model_validate(data)
    except ValidationError as error:
        known = list(_known(data))
        said = {key for one in known for key in one.keys}
        rest = [one for one in _refused(error) if one.keys[0] not in said]
        return Draft(None, [*known, *rest])
    return Draft(sheet, contradictions(sheet))


def _refused(error: ValidationError) -> Iterator[Contradiction]:
    """What the document refuses, once for each key and message."""
    seen = set()
    for entry in error.errors(include_url=False):
        place = place_of_problem(entry)
        key = place[0] if place else "name"
        name = next((step for step in reversed(place) if not step.isdigit()), "")
        words = words_of_problem(entry).replace("greater than or equal to", "at least")
        words = words.replace("less than or equal to", "at most")
        label = _LABELS.get(name, name.replace("_", " ").capitalize())
        found = Contradiction((_KEYS.get(key, key),), f"{label}: {words}." if label else f"{words}.")
        if found not in seen:
            seen.add(found)
            yield found


def _known(data: dict[str, Any]) -> Iterator[Contradiction]:
    """What the document refuses and a way out is known of."""
    size = data.get("size")
    if isinstance(size, dict):
        yield from _least_over_most(size)
        yield from _recommended_outside(size)
    yield from _formats(data.get("formats"))
    for key in ("covered", "windows"):
        yield from _zones(key, data.get(key))


def _least_over_most(size: dict[str, Any]) -> Iterator[Contradiction]:
    for side, word in _SIDES:
        least, most = _px(size.get(f"min_{side}")), _px(size.get(f"max_{side}"))
        if least and most and least > most:
            ways = (
                WayOut(f"From {most} to {least} px", {"size": {**size, f"min_{side}": most, f"max_{side}": least}}),
                WayOut(f"At least {most} px", {"size": {**size, f"min_{side}": most}}),
                WayOut(f"At most {least} px", {"size": {**size, f"max_{side}": least}}),
            )
            yield Contradiction(("size",), f"It cannot be at least {least} px and at most {most} px {word}.", ways)


def _recommended_outside(size: dict[str, Any]) -> Iterator[Contradiction]:
    best = size.get("recommended")
    if not isinstance(best, dict):
        return
    for side, word in _SIDES:
        least, most, wanted = _px(size.get(f"min_{side}")), _px(size.get(f"max_{side}")), _px(best.get(side))
        if not wanted or (least and most and least > most):
            continue
        limit = least if least and wanted < least else most if most and wanted > most else None
        if limit is None:
            continue
        ways = (
            WayOut(f"Best at {limit} px {word}", {"size": {**size, "recommended": {**best, side: limit}}}),
            WayOut("No recommended size", {"size": {**size, "recommended": None}}),
        )
        compared = "less than the least" if limit == least else "more than the most"
        yield Contradiction(("size",), f"The recommended {wanted} px {word} are {compared}, {limit} px.", ways)


def _formats(formats: Any) -> Iterator[Contradiction]:
    if formats == []:
        ways = tuple(WayOut(label_of(one), {"formats": [one]}) for one in ("png", "jpeg", "webp"))
        yield Contradiction(("formats",), "It has to take at least one format.", ways)
    if isinstance(formats, list) and all(isinstance(one, str) and one in FORMATS for one in formats):
        once = list(dict.fromkeys(formats))
        if once != formats:
            twice = next(one for number, one in enumerate(formats) if one in formats[:number])
            yield Contradiction(
                ("formats",), f"{label_of(twice)} is listed twice.", (WayOut("List it once", {"formats": once}),)
            )


def _zones(key: str, zones: Any) -> Iterator[Contradiction]:
    for number, zone in enumerate(zones if isinstance(zones, list) else []):
        box = _box(zone)
        if box is None or (box["x"] + box["width"] <= 1 and box["y"] + box["height"] <= 1):
            continue
        inside = {**zone, "x": min(box["x"], 1 - box["width"]), "y": min(box["y"], 1 - box["height"])}
        moved = [*zones[:number], inside, *zones[number + 1 :]]
        name = zone.get("label") or zone.get("name") or "The zone"
        yield Contradiction((key,), f"{name} reaches beyond the picture.", (WayOut("Move it inside", {key: moved}),))


def _box(zone: Any) -> dict[str, float] | None:
    """The rectangle of a zone, None where a side of it is no fraction."""
    if not isinstance(zone, dict):
        return None
    box = {side: zone.get(side) for side in ("x", "y", "width", "height")}
    found = {side: value for side, value in box.items() if isinstance(value, int | float) and 0 <= value <= 1}
    return found if len(found) == len(box) else None


def _px(value: Any) -> int | None:
    return value if isinstance(value, int) and not isinstance(value, bool) and value > 0 else None
