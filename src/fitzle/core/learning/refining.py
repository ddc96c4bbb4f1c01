"""A placement made exact: Gauss-Newton on scale and offset, from coarse to fine, with Tukey's weights.

Baker and Matthews, "Lucas-Kanade 20 years on" (IJCV 56, 2004), with the tint refitted at every step.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.learning.placement import Pixels, Placement, Planes, Region
from fitzle.core.learning.pyramid import Pyramid, View
from fitzle.core.learning.tint import Tint, tint_between, tukey

SIDES = (48, 120, 320)  # px of the short side at which each stage works
MOST_SCALE = 4.5
LEAST_SIDE, LEAST_PIXELS = 10, 30
BLUR = 0.7
SLOPE = 1 / 8  # of OpenCV's Sobel kernel, so that it gives steps for each px


class _Stage(NamedTuple):
    """One size at which is worked: the screenshot there, and where each of its px lies in the whole one."""

    view: View
    shot: Planes
    x: Planes
    y: Planes


def refined(
    pyramid: Pyramid, shot: Pixels, at: Placement, region: Region, rounds: tuple[int, int, int] = (8, 8, 8)
) -> Placement | None:
    """The placement that fits best around a first one; `region` is the part of the picture that counts, in its px.

    None where it runs away or nothing of it is in the screenshot.
    """
    tint: Tint | None = None
    for side, most in zip(SIDES, rounds, strict=True):
        short = at.scale * region.short
        reduction = min(1.0, side / max(8.0, short))
        if not most or (reduction == 1.0 and side != SIDES[-1] and short < SIDES[0]):
            continue
        stage = _stage(shot, region.placed(at), reduction)
        if stage is None:
            return None
        for _ in range(most):
            step = _step(pyramid, stage, at, region, tint)
            if step is None:
                return None
            at, tint, moved = step
            if not 0.6 * pyramid.least_scale < at.scale < MOST_SCALE:
                return None
            if moved < 0.01 / max(reduction, 1e-6):
                break
    return at


def _stage(shot: Pixels, seen: Region, reduction: float) -> _Stage | None:
    left, top = max(0, math.floor(seen.left)), max(0, math.floor(seen.top))
    right, bottom = min(shot.shape[1], math.ceil(seen.right)), min(shot.shape[0], math.ceil(seen.bottom))
    if right - left < LEAST_SIDE or bottom - top < LEAST_SIDE:
        return None
    width, height = max(8, round((right - left) * reduction)), max(8, round((bottom - top) * reduction))
    across, down = width / (right - left), height / (bottom - top)
    small = cv2.resize(shot[top:bottom, left:right], (width, height), interpolation=cv2.INTER_AREA).astype(np.float32)
    down_px, across_px = np.mgrid[:height, :width].astype(np.float32)
    return _Stage(
        View(left, top, width, height, across, down),
        np.asarray(cv2.GaussianBlur(small, (0, 0), BLUR), dtype=np.float32),
        left + (across_px + np.float32(0.5)) / np.float32(across),
        top + (down_px + np.float32(0.5)) / np.float32(down),
    )


def _step(
    pyramid: Pyramid, stage: _Stage, at: Placement, region: Region, tint: Tint | None
) -> tuple[Placement, Tint, float] | None:
    """One step: the next placement, its tint, and how far it moved in px."""
    view = stage.view
    drawn = cv2.GaussianBlur(pyramid.seen(at, view, smooth=False), (0, 0), BLUR)
    there = region.placed(at)
    inside = (stage.x > there.left) & (stage.x < there.right) & (stage.y > there.top) & (stage.y < there.bottom)
    if int(inside.sum()) < LEAST_PIXELS:
        return None
    tint = tint_between(drawn[inside], stage.shot[inside], tint, rounds=4)
    left = stage.shot - np.float32(tint.keeps) * drawn - tint.adds.astype(np.float32)
    weight = (tukey(np.sqrt((left**2).mean(2)), 4 * tint.noise) * inside).astype(np.float32)
    slopes = _slopes(drawn, stage, at, tint.keeps)
    weighted = slopes * np.repeat(weight.ravel(), 3)
    normal = (weighted @ slopes.T).astype(np.float64)
    normal += np.diag(1e-3 * np.maximum(1.0, np.diag(normal)))
    change = np.linalg.solve(normal, (weighted @ left.ravel()).astype(np.float64))
    most = 3 / min(view.across, view.down)
    x, y = np.clip(change[1:], -most, most)
    scale = float(np.clip(change[0], -0.04 * at.scale, 0.04 * at.scale))
    moved = max(abs(float(x)), abs(float(y)), 1000 * abs(scale) / at.scale)
    return Placement(at.scale + scale, at.x + float(x), at.y + float(y)), tint, moved


def _slopes(drawn: Planes, stage: _Stage, at: Placement, keeps: float) -> Planes:
    """How each value changes with scale, x and y: (3, height * width * 3)."""
    across = cv2.Sobel(drawn, cv2.CV_32F, 1, 0, scale=SLOPE * keeps * stage.view.across)
    down = cv2.Sobel(drawn, cv2.CV_32F, 0, 1, scale=SLOPE * keeps * stage.view.down)
    x = ((stage.x - np.float32(at.x)) / np.float32(at.scale))[..., None]
    y = ((stage.y - np.float32(at.y)) / np.float32(at.scale))[..., None]
    return -np.stack([(across * x + down * y).ravel(), across.ravel(), down.ravel()])
