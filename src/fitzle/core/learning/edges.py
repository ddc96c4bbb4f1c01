"""Edges to a part of a px: along each row across an edge, how much is picture and how much is the ground beside it."""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from fitzle.core.learning.laying import Laid
from fitzle.core.learning.placement import Pixels, Placement, Planes, Region
from fitzle.core.learning.pyramid import Pyramid, View

BESIDE = 8  # px around the view that are drawn too
REACH = 5  # px to each side of an edge that are looked at
TOLD_APART = 900.0  # squared distance of picture and ground from which a row counts
SURE, SNAP_SURE, SNAP_UNSURE = 0.3, 1.0, 2.5  # confidence; px from the picture's own edge


class Edges(NamedTuple):
    """The box seen, the ground beside each of its edges (left, top, right, bottom; None at the screenshot's own edge),
    and how sure each edge is, 0 to 1.
    """

    box: Region
    grounds: tuple[tuple[int, int, int] | None, ...]
    sure: tuple[float, ...]


def wide_view(view: View) -> View:
    """A view with BESIDE px more on each side."""
    return View(view.x - BESIDE, view.y - BESIDE, view.width + 2 * BESIDE, view.height + 2 * BESIDE)


def wide_expected(pyramid: Pyramid, over: Laid) -> Planes:
    """The tinted picture in the wide view."""
    drawn = pyramid.seen(over.at, wide_view(over.view))
    return drawn * np.float32(over.tint.keeps) + over.tint.adds.astype(np.float32)


def edges_of(pyramid: Pyramid, shot: Pixels, over: Laid, rough: Region, radius: float) -> Edges:
    """Exact edges around a rough box, in px of the screenshot."""
    expected, wide = wide_expected(pyramid, over), wide_view(over.view)
    box, grounds, sure = list(rough), [], []
    for number in range(4):
        across = number % 2 == 0
        there = shot.astype(np.float32) if across else shot.transpose(1, 0, 2).astype(np.float32)
        drawn = expected if across else expected.transpose(1, 0, 2)
        origin = (wide.x, wide.y) if across else (wide.y, wide.x)
        along = (box[1], box[3]) if across else (box[0], box[2])
        edge, ground, confidence = _edge(there, drawn, origin, box[number], along, radius, first=number < 2)
        grounds.append(ground)
        sure.append(confidence)
        if edge is not None:
            box[number] = edge
    return Edges(_snapped(Region(*box), _whole(pyramid, over.at), sure), tuple(grounds), tuple(sure))


def _whole(pyramid: Pyramid, at: Placement) -> Region:
    return Region(0, 0, pyramid.width, pyramid.height).placed(at)


def _edge(
    shot: Planes,
    drawn: Planes,
    origin: tuple[float, float],
    rough: float,
    along: tuple[float, float],
    radius: float,
    *,
    first: bool,
) -> tuple[float | None, tuple[int, int, int] | None, float]:
    """One edge as if it were a left or right one: its place, the ground beside it, and how sure it is."""
    start, end = _straight_part(along, radius)
    start, end = max(start, 0), min(end, shot.shape[0])
    way = -1 if first else 1
    at = round(rough)
    inward = np.arange(at + REACH - 1, at - REACH - 1, -1) if first else np.arange(at - REACH, at + REACH)
    beside = [at + way * (4 + step) - (1 if first else 0) for step in range(3)]
    if min(beside) < 0 or max(beside) >= shot.shape[1] or end - start < 2:
        return None, None, 0.0
    ground = shot[start:end, beside].mean(1, keepdims=True)
    middle = np.median(ground[:, 0], 0)
    colour = (int(middle[0]), int(middle[1]), int(middle[2]))
    rows = np.clip(np.arange(start, end) - int(origin[1]), 0, drawn.shape[0] - 1)
    columns = np.clip(inward - int(origin[0]), 0, drawn.shape[1] - 1)
    apart = drawn[np.ix_(rows, columns)] - ground
    moved = shot[start:end][:, np.clip(inward, 0, shot.shape[1] - 1)] - ground
    length = (apart * apart).sum(2)
    share = np.clip((apart * moved).sum(2) / np.maximum(length, 1), -0.2, 1.2)
    told = length.min(1) > TOLD_APART
    if int(told.sum()) < max(3, 0.15 * (end - start)):
        return None, colour, 0.0
    reached = float(np.median(share[told].sum(1)))
    if not 2 < reached < 2 * REACH - 1.5:
        return None, colour, float(told.mean())
    innermost = int(inward[0]) + (1 if first else 0)
    return innermost + way * reached, colour, float(told.mean())


def _straight_part(along: tuple[float, float], radius: float) -> tuple[int, int]:
    """The part of an edge that no rounded corner takes away; of a circle a small one in the middle."""
    length = along[1] - along[0]
    if radius > 0.4 * length:
        middle, half = (along[0] + along[1]) / 2, max(1.5, 0.06 * length)
        return math.floor(middle - half), math.ceil(middle + half)
    radius = min(radius, 0.42 * length)
    return math.ceil(along[0] + radius + 1), math.floor(along[1] - radius - 1)


def _snapped(box: Region, whole: Region, sure: list[float]) -> Region:
    """Edges that lie near the picture's own are taken to be those."""
    found = list(box)
    for number in range(4):
        size = whole[2 + number % 2] - whole[number % 2]
        near = SNAP_SURE if sure[number] > SURE else max(SNAP_UNSURE, 0.02 * size)
        if abs(box[number] - whole[number]) < near:
            found[number] = whole[number] if sure[number] < 0.5 else (box[number] + whole[number]) / 2
    return Region(*found)
