"""One candidate looked at closely: placed exactly, its visible shape, cut, veil, and what covers it."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.learning.agreement import Agreement, agreement, quick_share
from fitzle.core.learning.corners import Corners, corners_of
from fitzle.core.learning.edges import Edges, edges_of, wide_expected
from fitzle.core.learning.ink import gone_ink
from fitzle.core.learning.laying import Laid, laid, tinted_again
from fitzle.core.learning.placement import Candidate, Pixels, Placement, Region
from fitzle.core.learning.pyramid import Pyramid
from fitzle.core.learning.refining import refined
from fitzle.core.learning.shape import Shape, best_rectangle, best_shape
from fitzle.core.learning.zones import Hits, covered_zones, without_solid

FIRST_LOOK, SECOND_LOOK = 0.25, 0.4  # shares of agreement below which a candidate is dropped
INSET = 0.03  # of the visible part: its edges are the least certain
LEAST_SIDE = 12
MARGIN = 40  # px of the page that are worked on around a picture
CIRCLE_RATIO, CIRCLE_ROUND = 0.06, 0.44
LEAST_VEIL, TELLING_SPREAD = 0.045, 6.0


class Analysis(NamedTuple):
    """All that is known of a candidate; regions are in px of the screenshot, `window` in px of the picture.

    `radius` and `shape` are the cut; `opacity` is 0 without a veil; `told` says whether the picture varies enough for a
    veil to be read. `gone` is the share of the picture's own ink that is missing, `covered` that of what differs.
    """

    candidate: Candidate
    at: Placement
    agreement: Agreement
    match: float
    seen: float
    edges: Edges
    corners: Corners
    shape: str
    radius: float
    window: Region
    veil: tuple[int, int, int]
    opacity: float
    told: bool
    zones: list[Region]
    gone: float
    covered: float
    noise: float
    keeps: float


class _Seen(NamedTuple):
    over: Laid
    shape: Shape  # in px of the planes


def analysed(
    pyramid: Pyramid, shot: Pixels, candidate: Candidate, is_known: Callable[[Placement], bool]
) -> Analysis | None:
    """A candidate in full; None where it turns out to be nothing, or to be somewhere that `is_known` already."""
    at = refined(pyramid, shot, candidate.placement, candidate.region, (8, 0, 0))
    if at is None or is_known(at) or quick_share(pyramid, shot, at, candidate.region) < FIRST_LOOK:
        return None
    at = refined(pyramid, shot, at, candidate.region, (0, 6, 6))
    if at is None or is_known(at) or quick_share(pyramid, shot, at, candidate.region) < SECOND_LOOK:
        return None
    part, x, y = _around(pyramid, shot, at)
    seen = _visible(pyramid, part, Placement(at.scale, at.x - x, at.y - y), candidate.region)
    found = _read(pyramid, part, candidate, seen) if seen else None
    return _moved(found, x, y) if found else None


def _around(pyramid: Pyramid, shot: Pixels, at: Placement) -> tuple[Pixels, int, int]:
    """The part of the screenshot around a place, and where it begins: a long page is not worked on as a whole."""
    whole = Region(0, 0, pyramid.width, pyramid.height).placed(at)
    left, top = (max(0, math.floor(edge) - MARGIN) for edge in (whole.left, whole.top))
    right, bottom = math.ceil(whole.right) + MARGIN, math.ceil(whole.bottom) + MARGIN
    return shot[top : max(top, bottom), left : max(left, right)], left, top


def _moved(found: Analysis, x: float, y: float) -> Analysis:
    edges = found.edges._replace(box=found.edges.box.moved(x, y))
    at = Placement(found.at.scale, found.at.x + x, found.at.y + y)
    return found._replace(edges=edges, at=at, zones=[zone.moved(x, y) for zone in found.zones])


def _visible(pyramid: Pyramid, shot: Pixels, at: Placement, region: Region) -> _Seen | None:
    """The visible part: a rough rectangle first, then exactly, with the placement refined on it."""
    over = laid(pyramid, shot, at, region)
    if over is None:
        return None
    rough = best_rectangle(over.worth()).moved(over.view.x, over.view.y).in_picture(at)
    closer = refined(pyramid, shot, at, rough.inset(INSET), (0, 6, 10))
    over = laid(pyramid, shot, closer, rough) if closer else None
    if closer is None or over is None:
        return None
    whole = over.inside(Region(0, 0, pyramid.width, pyramid.height).placed(closer))
    return _Seen(over, best_shape(over.worth(), whole))


def _read(pyramid: Pyramid, shot: Pixels, candidate: Candidate, seen: _Seen) -> Analysis | None:
    over, shape = seen
    if shape.region.short < LEAST_SIDE:
        return None
    agrees, match = _structure(over, shape.region)
    rough = shape.region.moved(over.view.x, over.view.y)
    edges = edges_of(pyramid, shot, over, rough, shape.radius)
    box = edges.box
    if box.short < LEAST_SIDE:
        return None
    corners = corners_of(shot.astype(np.float32), wide_expected(pyramid, over), over.view, box, shape.radius)
    kind, radius = _cut(corners, shape.radius, box)
    inside = _inside(over, over.inside(box), radius)
    if int(inside.sum()) < 40:
        return None
    over = tinted_again(over, inside)
    hits, threshold = _hits(over, inside)
    zones = covered_zones(hits, box.short, int(inside.sum()))
    window = box.in_picture(over.at)
    colour, opacity, told = _veil(over, inside)
    return Analysis(
        candidate=candidate,
        at=over.at,
        agreement=agrees,
        match=match,
        seen=window.width * window.height / (pyramid.width * pyramid.height),
        edges=edges,
        corners=corners,
        shape=kind,
        radius=radius,
        window=window,
        veil=colour,
        opacity=opacity,
        told=told,
        zones=[zone.moved(over.view.x, over.view.y) for zone in zones],
        gone=gone_ink(over, without_solid(hits, zones), threshold) if zones else 0.0,
        covered=float(hits.sum() / max(1, int(inside.sum()))),
        noise=over.tint.noise,
        keeps=over.tint.keeps,
    )


def _structure(over: Laid, region: Region) -> tuple[Agreement, float]:
    """How what is seen agrees with the picture, and the share of it that is as expected."""
    left, top, right, bottom = (max(0, round(edge)) for edge in region)
    part = np.s_[top:bottom, left:right]
    residual = np.maximum(0, over.residual())[part]
    covered = (residual >= 2.5 * over.doubt).astype(np.float32)
    return agreement(over.expected[part], over.shot[part], covered), float((residual < over.doubt).mean())


def _cut(corners: Corners, rough: float, box: Region) -> tuple[str, float]:
    radius = corners.radius
    if not corners.looked_at and rough > 3:
        radius = rough
    rounded = max(radius, rough) if corners.looked_at < 2 else radius
    if abs(box.width / box.height - 1) < CIRCLE_RATIO and rounded > CIRCLE_ROUND * box.short:
        return "circle", box.short / 2
    return ("rounded", radius) if radius else ("none", 0.0)


def _inside(over: Laid, box: Region, radius: float) -> NDArray[np.bool_]:
    """The px well inside of what is seen."""
    rows, columns = np.mgrid[: over.view.height, : over.view.width]
    across = np.minimum(columns + 0.5 - box.left, box.right - columns - 0.5)
    down = np.minimum(rows + 0.5 - box.top, box.bottom - rows - 0.5)
    depth = np.minimum(across, down)
    corner = (across < radius) & (down < radius)
    beyond = np.hypot(np.maximum(0, radius - across), np.maximum(0, radius - down))
    depth = np.where(corner, np.minimum(depth, radius - beyond), depth)
    well = depth > 3
    return np.asarray(well if int(well.sum()) >= 40 else depth > 1)


def _veil(over: Laid, inside: NDArray[np.bool_]) -> tuple[tuple[int, int, int], float, bool]:
    """Colour and opacity of the veil, 0 for none, and whether the picture varies enough to tell."""
    opacity = 1 - over.tint.keeps
    told = float(over.picture[inside].std(0).mean()) > TELLING_SPREAD
    raw = over.tint.adds / opacity if opacity > 0.02 else np.zeros(3)
    red, green, blue = (int(value) for value in np.rint(raw.clip(0, 255)))
    is_veil = opacity > LEAST_VEIL and raw.min() > -60 and raw.max() < 315 and told
    return (red, green, blue), float(opacity) if is_veil else 0.0, told


def _hits(over: Laid, inside: NDArray[np.bool_]) -> tuple[Hits, float]:
    threshold = max(16.0, 4.5 * over.tint.noise)
    return ((over.residual(slack=0.8) > threshold) & inside).astype(np.uint8), threshold
