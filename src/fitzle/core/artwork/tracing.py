"""Outlines drawn from a flat bitmap, so that it can be enlarged: few colours, each px wholly one of them, then vtracer.

A blurred edge between two colours passes through others. So that no slivers of those are drawn, only px amid their own
colour are taken as they are (*cores*); every other px becomes one of the two colours whose cores are nearest to it.
"""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.sources import Pixels, VectorSource
from fitzle.core.artwork.straight import straight
from fitzle.core.artwork.svg_sanitise import sanitised_svg
from fitzle.core.artwork.svg_size import svg_frame
from fitzle.core.colour.main_colours import main_colours
from fitzle.core.colour.oklab import from_oklab, oklab, oklab_picture
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

TRACED_AT_PX = 1280  # smaller ones are enlarged first: contours then run between the px of the original
CORE_STEP = 0.035  # OKLab to a neighbour; in flat areas, JPEG noise included, colours differ by less
GOOD_ERROR = 0.018  # OKLab; about the least difference that is seen
OWN_COLOUR = 0.06  # OKLab; a flat px farther from every colour lies along an edge: it is a mixture
LEAST_CORE_PX = 24  # of area, at the size traced at
SPECKLE_PX = 6
CLEAR = -1  # the label of what is transparent
_SEED = 7

Labels = NDArray[np.int16]
Palette = NDArray[np.uint8]


class Tracing(NamedTuple):
    """An SVG file, how many colours it has, and how far it is from the bitmap (mean of 255, on white)."""

    markup: bytes
    colours: int
    error: float


def traced(pixels: Pixels, colours: int = 0) -> Tracing:
    """Traces pixels (h, w, 4), straight alpha; `colours` of 0 for as many as the error asks for.

    Raises ArtworkError for a picture that has no flat colours to trace.
    """
    large = _enlarged(pixels)
    lab = oklab_picture(large)
    shown = large[..., 3] >= 128
    core = _core(lab, shown)
    if core.sum() < LEAST_CORE_PX:
        raise ArtworkError("it has no flat colours that could be traced", advice="Keep it as it is, a photo.")
    palette = _palette(large[core][:, :3], lab[core], colours)
    labels = _labelled(lab, shown, core, palette)
    markup = _outlines(labels, palette)
    return Tracing(markup, len(palette), _error(markup, pixels))


def _enlarged(pixels: Pixels) -> Pixels:
    height, width = pixels.shape[:2]
    scale = TRACED_AT_PX / max(height, width)
    size = (max(1, round(width * scale)), max(1, round(height * scale)))
    return np.asarray(
        cv2.resize(pixels, size, interpolation=cv2.INTER_CUBIC if scale > 1 else cv2.INTER_AREA), np.uint8
    )


def _core(lab: NDArray[np.float32], shown: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Px amid their own colour."""
    kernel = np.ones((3, 3), np.uint8)
    spread = (cv2.dilate(lab, kernel) - cv2.erode(lab, kernel)).max(axis=-1)
    inside = cv2.erode(shown.astype(np.uint8), kernel).astype(bool)
    core = inside & (spread < CORE_STEP)
    return np.asarray(core if core.sum() >= LEAST_CORE_PX else inside)


def _palette(core: Palette, lab: NDArray[np.float32], colours: int) -> Palette:
    """(n, 3), the commonest first."""
    found = np.array([parse_hex(entry.hex) for entry in main_colours(core)], dtype=np.uint8)
    if colours > len(found):
        return _clustered(lab, colours)
    return found[: colours or _enough(found, lab)]


def _enough(found: Palette, lab: NDArray[np.float32]) -> int:
    """The least number of colours that explains the cores as well as is seen."""
    sample = lab[:: max(1, len(lab) // 20_000)]
    away = np.linalg.norm(sample[:, None] - oklab(found)[None], axis=-1)
    for count in range(1, len(found) + 1):
        if away[:, :count].min(axis=1).mean() <= GOOD_ERROR and _lost(away, count) < 0.002:
            return count
    return len(found)


def _lost(away: NDArray[np.float64], count: int) -> float:
    """The share of px whose colour would be another one altogether."""
    return float((away[:, :count].min(axis=1) > 4 * GOOD_ERROR).mean())


def _clustered(lab: NDArray[np.float32], colours: int) -> Palette:
    """As many colours as are wished, by k-means in OKLab."""
    sample = np.ascontiguousarray(lab[:: max(1, len(lab) // 20_000)], dtype=np.float32)
    colours = min(colours, len(np.unique(sample, axis=0)))
    cv2.setRNGSeed(_SEED)
    criteria = (cv2.TERM_CRITERIA_EPS + cv2.TERM_CRITERIA_MAX_ITER, 30, 1e-4)
    _, labels, centres = cv2.kmeans(sample, colours, None, criteria, 2, cv2.KMEANS_PP_CENTERS)
    order = np.argsort(np.bincount(labels.ravel(), minlength=colours))[::-1]
    return np.asarray(np.rint(from_oklab(np.asarray(centres, dtype=np.float64)[order])), dtype=np.uint8)


def _labelled(lab: NDArray[np.float32], shown: NDArray[np.bool_], core: NDArray[np.bool_], palette: Palette) -> Labels:
    """For each px the index of its colour; CLEAR for what is transparent."""
    own = oklab(palette).astype(np.float32)
    away = np.stack([np.linalg.norm(lab - colour, axis=-1) for colour in own])
    plain = away.argmin(axis=0).astype(np.int16)
    core = core & (away.min(axis=0) < OWN_COLOUR)
    reach = np.stack([_distance(core & (plain == index)) for index in range(len(own))])
    two = np.argsort(reach, axis=0)[:2]
    nearer = np.take_along_axis(away, two, axis=0).argmin(axis=0)[None]
    mixed = np.take_along_axis(two, nearer, axis=0)[0].astype(np.int16)
    labels = np.where(core, plain, mixed)
    return np.where(shown, labels, CLEAR).astype(np.int16)


def _distance(core: NDArray[np.bool_]) -> NDArray[np.float32]:
    """To the nearest core of a colour, specks of it not counted; far away where there is none."""
    count, parts, stats, _ = cv2.connectedComponentsWithStats(core.astype(np.uint8), connectivity=8)
    large = stats[:, cv2.CC_STAT_AREA] >= LEAST_CORE_PX
    large[0] = False
    if count < 2 or not large.any():
        return np.full(core.shape, np.float32(1e6))
    return np.asarray(cv2.distanceTransform(1 - large[parts].astype(np.uint8), cv2.DIST_L2, 5), dtype=np.float32)


def _outlines(labels: Labels, palette: Palette) -> bytes:
    import vtracer

    flat = np.zeros((*labels.shape, 4), np.uint8)
    flat[labels >= 0, :3] = palette[labels[labels >= 0]]
    flat[labels >= 0, 3] = 255
    _, file = cv2.imencode(".png", cv2.cvtColor(flat, cv2.COLOR_RGBA2BGRA), [cv2.IMWRITE_PNG_COMPRESSION, 1])
    text: str = vtracer.convert_raw_image_to_svg(
        file.tobytes(), "png", colormode="color", hierarchical="stacked", mode="spline", filter_speckle=SPECKLE_PX,
        color_precision=8, layer_difference=0, corner_threshold=60, length_threshold=4.0, splice_threshold=45,
        path_precision=2,
    )  # fmt: skip
    return text.encode()


def _error(markup: bytes, pixels: Pixels) -> float:
    """The mean difference from the bitmap, of 255, both on white at the bitmap's own size."""
    root = sanitised_svg(markup, DEFAULT_LIMITS, [])
    source = VectorSource(root, svg_frame(root))
    height, width = pixels.shape[:2]
    drawn = straight(source.pixels(Rect(0, 0, source.width, source.height), Size(width, height)))
    return round(float(np.abs(_on_white(drawn) - _on_white(pixels)).mean()), 2)


def _on_white(pixels: Pixels) -> NDArray[np.float32]:
    alpha = pixels[..., 3:].astype(np.float32) / 255
    return np.asarray(pixels[..., :3] * alpha + 255 * (1 - alpha), dtype=np.float32)
