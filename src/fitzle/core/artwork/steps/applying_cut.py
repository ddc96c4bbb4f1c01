"""A cut that was made at its own size, applied to the picture: scaled, brushed, filled behind."""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.brush import slices, stroke_mask
from fitzle.core.artwork.steps.document import CutOut
from fitzle.core.colour.srgb import parse_hex

WHOLE = 250  # of 255; from there a px keeps its own colour, below it takes the one freed from the background


def with_cut(pixels: Pixels, cut: Pixels, step: CutOut) -> Pixels:
    """A picture (h, w, 4) with the coverage and the edge colours of `cut` (any size, straight alpha)."""
    own = pixels
    out = _fitted(pixels, cut)
    for stroke in step.strokes:
        if stroke.act in ("erase", "restore"):
            box, mask = stroke_mask(stroke, out.shape[1], out.shape[0])
            if mask.size:
                rows, columns = slices(box)
                _brush(out[rows, columns], own[rows, columns], mask, restore=stroke.act == "restore")
    return _filled(out, step.fill) if step.fill else out


def _fitted(pixels: Pixels, cut: Pixels) -> Pixels:
    if cut.shape == pixels.shape:
        return cut.copy()
    size = (pixels.shape[1], pixels.shape[0])
    grows = size[0] > cut.shape[1]
    scaled = cv2.resize(cut, size, interpolation=cv2.INTER_CUBIC if grows else cv2.INTER_AREA)
    alpha = scaled[..., 3:]
    colour = np.where(alpha >= WHOLE, pixels[..., :3], scaled[..., :3])
    return np.concatenate([colour, alpha], axis=-1)


def _brush(part: Pixels, own: Pixels, mask: np.ndarray, *, restore: bool) -> None:
    """Changes a part of the picture in place."""
    alpha = part[..., 3].astype(np.float32) / 255
    if restore:
        share = mask[..., None]
        part[..., :3] = np.rint(part[..., :3] * (1 - share) + own[..., :3] * share)
        alpha = np.maximum(alpha, mask * own[..., 3] / 255)
    else:
        alpha = alpha * (1 - mask)
    part[..., 3] = np.rint(alpha * 255)


def _filled(pixels: Pixels, fill: str) -> Pixels:
    alpha = pixels[..., 3:].astype(np.uint16)
    behind = np.array(parse_hex(fill), dtype=np.uint16)
    colour = (pixels[..., :3] * alpha + behind * (255 - alpha) + 127) // 255
    return with_alpha(colour.astype(np.uint8), np.full_like(pixels[..., 3], 255))
