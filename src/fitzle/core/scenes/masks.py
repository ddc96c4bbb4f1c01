"""How destinations cut pictures: circles, round corners, soft squares."""

from __future__ import annotations

import math
from typing import Literal

from fitzle.core.geometry.mask import Mask
from fitzle.core.geometry.path import Path, ellipse, polygon, rounded_rectangle
from fitzle.core.geometry.rect import Rect
from fitzle.core.scenes.items import Frame
from fitzle.core.scenes.scene import MaskName
from fitzle.core.spec.sheet import CircleMask, SpecSheet

ROUNDED = 0.09  # of the short side
SQUIRCLE_POWER, SQUIRCLE_POINTS = 5.0, 96  # superellipse |x|^n + |y|^n = 1
CutName = Literal["none", "circle", "rounded", "squircle"]


def framed(mask: MaskName, box: Rect, sheet: SpecSheet) -> Frame:
    """A box with its cut; `sheet` takes the one of the sheet."""
    name, radius = _cut(mask, box, sheet)
    bare = Frame(
        x=round(box.x, 3),
        y=round(box.y, 3),
        width=round(box.width, 3),
        height=round(box.height, 3),
        mask=name,
        radius=round(radius, 3),
    )
    outline = outline_of(bare)
    return bare.model_copy(update={"outline": outline.svg() if outline else ""})


def _cut(mask: MaskName, box: Rect, sheet: SpecSheet) -> tuple[CutName, float]:
    if mask == "rounded":
        return "rounded", ROUNDED * min(box.width, box.height)
    if mask != "sheet":
        return mask, 0.0
    if sheet.mask is None:
        return "none", 0.0
    if isinstance(sheet.mask, CircleMask):
        return "circle", 0.0
    return "rounded", sheet.mask.outline.radius_px(box.width, box.height)


def outline_of(frame: Frame) -> Path | None:
    """What shows of a frame about its left top corner; None where all of it does."""
    if frame.mask == "circle":
        return Mask("circle").path(frame.width, frame.height)
    if frame.mask == "rounded":
        return rounded_rectangle(Rect(0, 0, frame.width, frame.height), frame.radius)
    return _squircle(frame.width, frame.height) if frame.mask == "squircle" else None


def round_box(width: float, height: float, radius: float) -> Path:
    """A box with round corners, an ellipse where they take all of it."""
    if radius >= max(width, height) / 2:
        return ellipse(width / 2, height / 2, width / 2, height / 2)
    return rounded_rectangle(Rect(0, 0, width, height), radius)


def _squircle(width: float, height: float) -> Path:
    points = []
    for step in range(SQUIRCLE_POINTS):
        angle = 2 * math.pi * step / SQUIRCLE_POINTS
        across, down = math.cos(angle), math.sin(angle)
        reach = (abs(across) ** SQUIRCLE_POWER + abs(down) ** SQUIRCLE_POWER) ** (-1 / SQUIRCLE_POWER)
        points.append((width / 2 * (1 + across * reach), height / 2 * (1 + down * reach)))
    return polygon(points)
