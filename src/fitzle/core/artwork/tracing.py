"""Outlines drawn from a flat bitmap, so that it can be enlarged: each px wholly one of few colours, then vtracer."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.own_colours import further_colours
from fitzle.core.artwork.sources import Pixels, VectorSource
from fitzle.core.artwork.straight import premultiplied, straight
from fitzle.core.artwork.svg_sanitise import sanitised_svg
from fitzle.core.artwork.svg_size import svg_frame
from fitzle.core.artwork.trace_labels import LEAST_CORE_PX, Labels, Palette, labelled
from fitzle.core.colour.main_colours import main_colours
from fitzle.core.colour.oklab import from_oklab, oklab, oklab_picture
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

TRACED_AT_PX = 1280  # smaller ones are enlarged first: contours then run between the px of the original
MOST_ENLARGED = 16  # times; boundaries of less than 80 px are even by then, and wider blurs would take minutes
CORE_STEP = 0.035  # OKLab to a neighbour; in flat areas, JPEG noise included, colours differ by less
GOOD_ERROR = 0.018  # OKLab; about the least difference that is seen
SPECKLE_PX = 6
EVENED_PX = 0.8  # of the bitmap's own px: boundaries are as even as those, and lines of two px still there
LENGTH_PX = 10.0  # of the pieces that a curve is made of; shorter ones follow the noise
MOST_COLOURS = 24
LOST_SHARE = 0.0008  # of px that would get another colour altogether
_SEED = 7


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
    labels = labelled(large, lab, core, palette, EVENED_PX * _scale(pixels))
    markup = _outlines(labels, palette)
    return Tracing(markup, len(palette), _error(markup, pixels))


def _scale(pixels: Pixels) -> float:
    """Px of the traced picture for each px of the bitmap."""
    return float(min(TRACED_AT_PX / max(pixels.shape[:2]), MOST_ENLARGED))


def _enlarged(pixels: Pixels) -> Pixels:
    height, width = pixels.shape[:2]
    scale = _scale(pixels)
    size = (max(1, round(width * scale)), max(1, round(height * scale)))
    way = cv2.INTER_CUBIC if scale > 1 else cv2.INTER_AREA
    scaled = np.asarray(cv2.resize(premultiplied(pixels), size, interpolation=way), np.uint8)
    return straight(np.minimum(scaled, scaled[..., 3:]))  # cubic scaling may overshoot the alpha


def _core(lab: NDArray[np.float32], shown: NDArray[np.bool_]) -> NDArray[np.bool_]:
    """Px amid their own colour."""
    kernel = np.ones((3, 3), np.uint8)
    spread = (cv2.dilate(lab, kernel) - cv2.erode(lab, kernel)).max(axis=-1)
    inside = cv2.erode(shown.astype(np.uint8), kernel).astype(bool)
    core = inside & (spread < CORE_STEP)
    return np.asarray(core if core.sum() >= LEAST_CORE_PX else inside)


def _palette(core: Palette, lab: NDArray[np.float32], colours: int) -> Palette:
    """(n, 3), the commonest first."""
    main = main_colours(core, most=MOST_COLOURS)
    known = (*main, *further_colours(core, main))
    found = np.array([parse_hex(entry.hex) for entry in known], dtype=np.uint8)
    if colours > len(found):
        return _clustered(lab, colours)
    return found[: colours or _enough(found, lab)]


def _enough(found: Palette, lab: NDArray[np.float32]) -> int:
    """The least number of colours that explains the cores as well as is seen."""
    sample = lab[:: max(1, len(lab) // 20_000)]
    away = np.linalg.norm(sample[:, None] - oklab(found)[None], axis=-1)
    for count in range(1, len(found) + 1):
        if away[:, :count].min(axis=1).mean() <= GOOD_ERROR and _lost(away, count) < LOST_SHARE:
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


def _outlines(labels: Labels, palette: Palette) -> bytes:
    import vtracer

    flat = np.zeros((*labels.shape, 4), np.uint8)
    flat[labels >= 0, :3] = palette[labels[labels >= 0]]
    flat[labels >= 0, 3] = 255
    _, file = cv2.imencode(".png", cv2.cvtColor(flat, cv2.COLOR_RGBA2BGRA), [cv2.IMWRITE_PNG_COMPRESSION, 1])
    text: str = vtracer.convert_raw_image_to_svg(
        file.tobytes(), "png", colormode="color", hierarchical="stacked", mode="spline", filter_speckle=SPECKLE_PX,
        color_precision=8, layer_difference=0, corner_threshold=60, length_threshold=LENGTH_PX, splice_threshold=45,
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
