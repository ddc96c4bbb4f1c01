"""What steps work on: a drawing as long as they can be made on one, else pixels."""

from __future__ import annotations

from typing import Any, NamedTuple

from fitzle.core.artwork.sources import Pixels, Source, VectorSource
from fitzle.core.artwork.straight import straight
from fitzle.core.artwork.svg_size import SvgFrame
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

DRAWN_PX = 2048  # the long side at which a drawing becomes pixels


class Drawing(NamedTuple):
    """An SVG tree and the frame it covers."""

    root: Any
    frame: SvgFrame

    @property
    def source(self) -> VectorSource:
        """As a source of pixels."""
        return VectorSource(self.root, self.frame)


class Bitmap(NamedTuple):
    """Pixels (h, w, 4), straight alpha, and the width and height in px of the picture that they stand for.

    A preview works on fewer pixels than the original has.
    """

    pixels: Pixels
    natural: tuple[float, float]

    @property
    def size(self) -> Size:
        """Of the pixels."""
        return Size(self.pixels.shape[1], self.pixels.shape[0])

    def with_pixels(self, pixels: Pixels, *, on_its_side: bool = False) -> Bitmap:
        """Other pixels of the same scale; `on_its_side` where width and height have changed places."""
        (width, height), (across, down) = self.size, self.natural
        if on_its_side:
            (width, height), (across, down) = (height, width), (down, across)
        return Bitmap(pixels, (across * pixels.shape[1] / width, down * pixels.shape[0] / height))


Material = Drawing | Bitmap


def material_of(source: Source, long_side_px: int | None = None) -> Material:
    """The material of an artwork; a bitmap at most `long_side_px` long where that is given."""
    if isinstance(source, VectorSource):
        return Drawing(source.root, source.frame)
    longest = max(source.width, source.height)
    scale = 1.0 if long_side_px is None else min(1.0, long_side_px / longest)
    return Bitmap(_pixels(source, scale), (source.width, source.height))


def as_bitmap(material: Material, long_side_px: int = DRAWN_PX) -> Bitmap:
    """The same as pixels; a drawing is drawn at this size."""
    if isinstance(material, Bitmap):
        return material
    source = material.source
    return Bitmap(_pixels(source, long_side_px / max(source.width, source.height)), (source.width, source.height))


def natural_size(material: Material) -> tuple[float, float]:
    """Width and height in px of what it stands for."""
    if isinstance(material, Drawing):
        return material.frame.width, material.frame.height
    return material.natural


def _pixels(source: Source, scale: float) -> Pixels:
    size = Size(max(1, round(source.width * scale)), max(1, round(source.height * scale)))
    return straight(source.pixels(Rect(0, 0, source.width, source.height), size))
