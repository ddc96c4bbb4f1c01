"""What is seen of a picture, where nothing would be."""

from __future__ import annotations

from collections.abc import Iterator

from fitzle.core.spec.checking.contradiction import Contradiction, WayOut
from fitzle.core.spec.sheet import SpecSheet

_ALL = 0.98  # of the width and of the height


def check_covered(sheet: SpecSheet) -> Iterator[Contradiction]:
    """A zone that leaves nothing of the picture."""
    for number, zone in enumerate(sheet.covered):
        if zone.width < _ALL or zone.height < _ALL:
            continue
        rest = [one.model_dump(mode="json") for one in sheet.covered if one is not zone]
        yield Contradiction(
            ("covered",),
            f"{zone.label} covers all of the picture.",
            (
                WayOut(f"Without {zone.label}", {"covered": rest}),
                WayOut("Its lower half", {"covered": _lower(sheet, number)}),
            ),
        )


def check_veil(sheet: SpecSheet) -> Iterator[Contradiction]:
    """A veil that nothing shows through."""
    if sheet.veil and sheet.veil.opacity >= _ALL:
        half = {**sheet.veil.model_dump(mode="json"), "opacity": 0.5}
        ways = (WayOut("Half as strong", {"veil": half}), WayOut("No veil", {"veil": None}))
        yield Contradiction(("veil",), "Nothing shows through this veil.", ways)


def _lower(sheet: SpecSheet, number: int) -> list[dict[str, object]]:
    zones = [one.model_dump(mode="json") for one in sheet.covered]
    zones[number] |= {"y": 0.5, "height": 0.5}
    return zones
