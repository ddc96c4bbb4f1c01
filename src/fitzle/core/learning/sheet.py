"""The spec sheet of a place that was learnt, with what the person answered where it could not be told."""

from __future__ import annotations

from typing import Any, Literal, get_args

from fitzle.core.findings import Frozen
from fitzle.core.formats import Format
from fitzle.core.learning.result import Learnt, PixelBox
from fitzle.core.spec.sheet import SpecSheet

WHOLE = PixelBox(x=0, y=0, width=1, height=1)
LEAST_ZONE = 0.005  # of a side: a smaller zone is a speck


class Answers(Frozen):
    """What the person says where it could not be told; None leaves it as it was learnt."""

    veil: bool | None = None
    cut: Literal["none", "circle", "rounded"] | None = None
    strip: Literal["cut off", "covered"] | None = None


class Uploaded(Frozen):
    """The file that the place took: its size in px and its format."""

    width: int
    height: int
    format: str


def learnt_sheet(learnt: Learnt, uploaded: Uploaded, density: float, answers: Answers, name: str) -> SpecSheet:
    """A sheet that asks for what the place took, and is seen as it was seen there."""
    window = _window(learnt, uploaded)
    covers = answers.strip == "covered" and learnt.window is not None
    values: dict[str, Any] = {
        "fitzle_spec": 1,
        "name": name,
        "size": {"width": uploaded.width, "height": uploaded.height},
        "formats": [uploaded.format if uploaded.format in get_args(Format) else "png"],
        "cut": _cut(learnt, answers),
        "windows": [{"name": "page", **_fractions(window)}] if learnt.window and not covers else [],
        "veil": learnt.veil.model_dump() if learnt.veil and answers.veil is not False else None,
        "covered": [
            {"label": f"covered {number}" if len(learnt.covered) > 1 else "covered", **zone}
            for number, zone in enumerate(_zones(learnt, window), 1)
        ]
        + ([{"label": "strip", **zone} for zone in _unseen(window)] if covers else []),
        "seen": [{"name": "page", "width": max(1, round(learnt.seen_width / window.width)), "density": density}],
        "grounds": list(learnt.grounds) or ["#ffffff"],
    }
    return SpecSheet.model_validate({key: value for key, value in values.items() if value is not None})


def _window(learnt: Learnt, uploaded: Uploaded) -> PixelBox:
    """What is seen of the picture, in fractions of it."""
    if learnt.window is None:
        return WHOLE
    left, top = max(0.0, learnt.window.x / uploaded.width), max(0.0, learnt.window.y / uploaded.height)
    right = min(1.0, (learnt.window.x + learnt.window.width) / uploaded.width)
    bottom = min(1.0, (learnt.window.y + learnt.window.height) / uploaded.height)
    return PixelBox(x=left, y=top, width=max(0.01, right - left), height=max(0.01, bottom - top))


def _cut(learnt: Learnt, answers: Answers) -> dict[str, Any] | None:
    shape = answers.cut or learnt.cut.shape
    if shape == "none":
        return None
    if shape == "circle":
        return {"shape": "circle"}
    short = min(1.0, learnt.box.height / learnt.box.width) * learnt.seen_width
    radius = learnt.cut.radius / short if learnt.cut.radius else 0.1
    return {"shape": "rounded", "radius": round(min(0.5, max(0.005, radius)), 4)}


def _zones(learnt: Learnt, window: PixelBox) -> list[dict[str, float]]:
    """Covered zones in fractions of the whole picture, kept inside of it."""
    zones = [
        PixelBox(
            x=window.x + zone.share.x * window.width,
            y=window.y + zone.share.y * window.height,
            width=zone.share.width * window.width,
            height=zone.share.height * window.height,
        )
        for zone in learnt.covered
    ]
    return [_fractions(zone) for zone in zones if min(zone.width, zone.height) >= LEAST_ZONE]


def _unseen(window: PixelBox) -> list[dict[str, float]]:
    """The strips of the picture beside its window, in fractions of it; corners belong to those above and below."""
    right, bottom = window.x + window.width, window.y + window.height
    strips = [
        PixelBox(x=0, y=0, width=1, height=window.y),
        PixelBox(x=0, y=bottom, width=1, height=1 - bottom),
        PixelBox(x=0, y=window.y, width=window.x, height=window.height),
        PixelBox(x=right, y=window.y, width=1 - right, height=window.height),
    ]
    return [_fractions(strip) for strip in strips if min(strip.width, strip.height) >= LEAST_ZONE]


def _fractions(box: PixelBox) -> dict[str, float]:
    x, y = min(max(round(box.x, 4), 0.0), 0.999), min(max(round(box.y, 4), 0.0), 0.999)
    return {
        "x": x,
        "y": y,
        "width": round(min(max(box.width, 0.001), 1 - x), 4),
        "height": round(min(max(box.height, 0.001), 1 - y), 4),
    }
