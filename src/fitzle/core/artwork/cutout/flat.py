"""Cutting out what stands on a flat backdrop: a key in OKLab, then the edge's colours unmixed.

At an edge a px is C = a F + (1 - a) B. B is known from the backdrop's model and F is taken from the nearest px that is
wholly the subject, so that a follows from one projection (Porter and Duff 1984, "over"; solved for one px).
"""

from __future__ import annotations

from typing import Literal, NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import dot
from fitzle.core.artwork.cutout.backdrop import Lab, backdrop_of, border_of
from fitzle.core.artwork.cutout.unmixing import Mask, Plane, freed_colours, nearest_colours
from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.oklab import oklab_picture

Holes = Literal["auto", "all", "none"]

LEAST_RAMP = 0.016  # OKLab; facts/cutout.md
RAMP_SIGMAS = 4.0
HOLE_MEAN = 0.6  # of the ramp's foot: an enclosed region that is nearer on average may be backdrop too
# OKLab, and times the border's sigma: a hole's mean colour is the backdrop's own. JPEG 40 moves it by at most 0.001 on
# even backdrops and by 3.6 sigma under a vignette; a disc only just paler than the backdrop was 0.008 away.
HOLE_OFFSET, HOLE_SIGMAS = 0.004, 4.0
NEAR_PX = 7  # where the strongest colour of an edge is looked for
FAR, FAR_FEET = 0.06, 2.5  # OKLab, and times the ramp's foot: farther than noise around edges reaches
EVEN_SHARE = 0.25  # of the distance from the backdrop
CORE_SHARE = 0.85  # of that strongest colour: wholly subject
BAND_PX = 1.5  # on either side of the outline px may be part-transparent; farther out is noise of the JPEG
CLEAN = (0.06, 0.94)  # coverage below and above is none and all
ALIKE_FEET = 2.0  # times the ramp's foot: what is joined to a stroke
LEAST_HOLE_PX = 64  # of area
LEAST_HOLE_AREA = 24  # px, of a hole that is nowhere three px wide: noise in even colours makes up to 11
SPECK_PX = 12  # of area; smaller islands of subject are noise


class FlatCut(NamedTuple):
    """Coverage (h, w), 0 to 1, the subject's own colours (h, w, 3), sRGB 0 to 255, and how sure it is."""

    alpha: Plane
    colours: Lab
    confidence: float


def flat_confidence(pixels: Pixels) -> float:
    """How sure it is that a picture (h, w, 3 or 4) stands on a flat backdrop, 0 to 1; looks at its border alone."""
    return border_of(pixels).confidence


def cut_flat(
    pixels: Pixels,
    tolerance: float = 1.0,
    holes: Holes = "auto",
    softness_px: float = 1.0,
    keep: Mask | None = None,
    drop: Mask | None = None,
) -> FlatCut:
    """Cuts out an opaque picture (h, w, 4); `tolerance` widens what counts as backdrop, `softness_px` the edge.

    What is touched by `keep` or `drop` (h, w) becomes subject or backdrop, with all of its colour that it is joined to.
    """
    lab, border = oklab_picture(pixels), border_of(pixels)
    backdrop = backdrop_of(border, pixels.shape)
    step = lab - backdrop.lab
    away = np.sqrt(dot(step, step))
    foot = max(RAMP_SIGMAS * border.sigma, LEAST_RAMP) * tolerance
    ground = _ground(step, away, foot, max(HOLE_OFFSET, HOLE_SIGMAS * border.sigma) * tolerance, holes)
    told = _joined_alike(lab, keep, foot)
    ground = (ground | _joined_alike(lab, drop, foot)) & ~told
    if not ground.any():
        return FlatCut(np.ones(away.shape, np.float32), pixels[..., :3].astype(np.float32), 0.0)
    own = pixels[..., :3].astype(np.float32)
    kept = _kept_holes(away, foot, ground) if holes == "none" else np.zeros_like(ground)
    kept |= told
    core = _core(lab, away, ground, foot) | kept
    nearest = nearest_colours(own, core)
    coverage = np.where(kept, np.float32(1), _unmixed(own, nearest, backdrop.rgb))
    alpha = _edge_only(coverage, core, ground, max(softness_px, 0.5))
    return FlatCut(alpha, freed_colours(own, nearest, backdrop.rgb, alpha), border.confidence)


def _ground(step: Lab, away: Plane, foot: float, offset: float, holes: Holes) -> Mask:
    """What is backdrop: joined to the border, or enclosed and of its very colour."""
    like = (away < foot).astype(np.uint8)
    count, labels = cv2.connectedComponents(like, connectivity=4)
    border = np.unique(np.concatenate([labels[0], labels[-1], labels[:, 0], labels[:, -1]]))
    taken = np.zeros(count, dtype=bool)
    taken[border] = True
    if holes == "all":
        taken[:] = True
    elif holes == "auto":
        taken |= _of_its_colour(labels, count, step, away, foot, offset)
    taken[0] = False
    return _without_specks(taken[labels])


def _of_its_colour(
    labels: NDArray[np.int32], count: int, step: Lab, away: Plane, foot: float, offset: float
) -> NDArray[np.bool_]:
    """Which regions are large enough to be told from noise and have the backdrop's colour on average."""
    sizes = np.maximum(np.bincount(labels.ravel(), minlength=count), 1)
    near = np.bincount(labels.ravel(), away.ravel(), minlength=count) / sizes < HOLE_MEAN * foot
    means = [np.bincount(labels.ravel(), step[..., one].ravel(), minlength=count) / sizes for one in range(3)]
    whole = cv2.erode((labels > 0).astype(np.uint8), np.ones((3, 3), np.uint8)) > 0
    large = (sizes >= LEAST_HOLE_AREA) | (np.bincount(labels[whole], minlength=count) > 0)
    return np.asarray(near & large & (np.linalg.norm(means, axis=0) < offset))


def _joined_alike(lab: Lab, touched: Mask | None, foot: float) -> Mask:
    """What strokes touch, with everything of about the same colour that is joined to it."""
    if touched is None or not touched.any():
        return np.zeros(lab.shape[:2], dtype=bool)
    step = lab - np.median(lab[touched], axis=0).astype(np.float32)
    alike = touched | (np.sqrt(dot(step, step)) < ALIKE_FEET * foot)
    return _regions_at(alike, touched, connectivity=4)


def _regions_at(mask: Mask, places: Mask, connectivity: int) -> Mask:
    """The regions of a mask in which some of the places lie."""
    count, labels = cv2.connectedComponents(mask.astype(np.uint8), connectivity=connectivity)
    taken = np.zeros(count, dtype=bool)
    taken[labels[places]] = True
    taken[0] = False
    return np.asarray(taken[labels], dtype=bool)


def _kept_holes(away: Plane, foot: float, ground: Mask) -> Mask:
    """What is enclosed and like the backdrop, but wished to stay; smaller regions are noise around edges."""
    like = (~ground & (away < HOLE_MEAN * foot)).astype(np.uint8)
    _, labels, stats, _ = cv2.connectedComponentsWithStats(like, connectivity=4)
    large = stats[:, cv2.CC_STAT_AREA] >= LEAST_HOLE_PX
    large[0] = False
    return np.asarray(large[labels], dtype=bool)


def _without_specks(ground: Mask) -> Mask:
    """The same with tiny islands of subject taken for noise."""
    count, labels, stats, _ = cv2.connectedComponentsWithStats((~ground).astype(np.uint8), connectivity=8)
    small = stats[:, cv2.CC_STAT_AREA] < SPECK_PX
    small[0] = False
    return np.asarray(ground | small[labels], dtype=bool) if count > 1 else ground


def _core(lab: Lab, away: Plane, ground: Mask, foot: float) -> Mask:
    """Px that are wholly subject.

    Far from the backdrop and as far as anything near them (thin parts too), or even in colour however pale: what a JPEG
    leaves around edges is neither.
    """
    strongest = cv2.dilate(away, np.ones((NEAR_PX, NEAR_PX), np.uint8))
    far = (away >= max(FAR_FEET * foot, FAR)) & (away >= CORE_SHARE * strongest)
    even = cv2.erode((~ground).astype(np.uint8), np.ones((5, 5), np.uint8)).astype(bool)
    even &= _unevenness(lab) < EVEN_SHARE * away
    core = ~ground & (far | even)
    return core if core.any() else ~ground


def _unevenness(lab: Lab) -> Plane:
    """The standard deviation of the colour around each px."""
    mean, square = np.asarray(cv2.blur(lab, (5, 5))), cv2.blur(dot(lab, lab), (5, 5))
    return np.asarray(np.sqrt(np.maximum(square - dot(mean, mean), 0)), dtype=np.float32)


def _unmixed(own: Lab, subject: Lab, ground: Lab) -> Plane:
    across = subject - ground
    along = dot(own - ground, across) / np.maximum(dot(across, across), 1.0)
    low, high = CLEAN
    return np.clip((along - low) / (high - low), 0, 1).astype(np.float32)


def _edge_only(coverage: Plane, core: Mask, ground: Mask, softness_px: float) -> Plane:
    """Coverage where the outline runs; all inside, nothing outside."""
    solid = _regions_at(~ground & (coverage > 0.5), core, connectivity=8)
    # Mixed px of two colours of the subject look like half backdrop; with none of it there, they are not.
    solid = ~_regions_at(~solid, ground, connectivity=4)
    inward = cv2.distanceTransform(solid.astype(np.uint8), cv2.DIST_L2, 5)
    outward = cv2.distanceTransform((~solid).astype(np.uint8), cv2.DIST_L2, 5)
    alpha = np.where(inward > BAND_PX, np.float32(1), coverage)
    alpha[outward > BAND_PX] = 0
    return np.asarray(cv2.GaussianBlur(alpha, (0, 0), softness_px / 2), np.float32) if softness_px > 1 else alpha
