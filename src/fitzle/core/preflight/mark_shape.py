"""What is measured on the drawing of a mark by itself, whatever it stands on; kept, since it stands in many places."""

from __future__ import annotations

from functools import lru_cache
from hashlib import sha256
from typing import NamedTuple

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels, Source
from fitzle.core.colour.srgb import Rgb
from fitzle.core.eye import smudge
from fitzle.core.eye.ellipse import stretched_by
from fitzle.core.eye.strokes import Mask, Strokes, strokes_of, working_px
from fitzle.core.geometry.rect import Rect
from fitzle.core.plan.placed import Look, PlacedArtwork, Plan
from fitzle.core.render.painting import paint
from fitzle.core.units import Size

KEPT = 24  # drawings of about 0.8 MB


class MarkShape:
    """A drawing of a mark on nothing (h, w, 4), straight alpha; one is equal to another of the same pixels."""

    def __init__(self, pixels: Pixels) -> None:
        self.pixels = pixels
        self._key = pixels.shape, sha256(np.ascontiguousarray(pixels).tobytes()).digest()

    def __hash__(self) -> int:
        return hash(self._key)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, MarkShape) and self._key == other._key

    def measured(self, part: PlacedArtwork, seen_px: float) -> Measured:
        """What it comes to with the border of a part, seen `seen_px` long."""
        border = part.look.edge.width_px / max(part.box.width, part.box.height) if part.look.edge else 0.0
        return _measured(self, border, seen_px)

    def contour_lost(self, ground: Rgb, seen_px: float) -> float:
        """The share of its contour that is gone on a ground: see `smudge.contour_lost`."""
        return _contour_lost(self, ground, seen_px)


class Measured(NamedTuple):
    """A mark's strokes, and the ratio of the axes of its largest ellipse."""

    strokes: Strokes
    stretched: float


def mark_shape(part: PlacedArtwork, source: Source, seen_px: float) -> MarkShape:
    """The drawing to measure a mark on that is seen `seen_px` long."""
    return MarkShape(drawn_alone(part, source, working_px(seen_px)))


def drawn_alone(part: PlacedArtwork, source: Source, long_px: float) -> Pixels:
    """A mark by itself on nothing, `long_px` long, straight alpha, without what its look does."""
    width, height = max(1, round(part.box.width)), max(1, round(part.box.height))
    there = part._replace(box=Rect(0, 0, width, height), look=Look(), grid=False)
    sheet = Plan(Size(width, height), None, None, None, (there,))
    return paint(sheet, {part.artwork: source}, max(1, round(long_px * width / max(width, height))))


@lru_cache(maxsize=KEPT)
def _measured(shape: MarkShape, border: float, seen_px: float) -> Measured:
    shown = _with_border(shape.pixels[..., 3] > 127, border)
    return Measured(strokes_of(shown, seen_px), stretched_by(shape.pixels))


@lru_cache(maxsize=KEPT)
def _contour_lost(shape: MarkShape, ground: Rgb, seen_px: float) -> float:
    return smudge.contour_lost(shape.pixels, ground, seen_px)


def _with_border(shown: Mask, border: float) -> Mask:
    """Where a mark is drawn together with a line around it, `border` wide in parts of its long side."""
    if not border:
        return shown
    by = max(1, round(border * max(shown.shape)))
    round_ = cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (2 * by + 1, 2 * by + 1))
    return np.asarray(cv2.dilate(np.pad(shown, by).astype(np.uint8), round_) > 0)
