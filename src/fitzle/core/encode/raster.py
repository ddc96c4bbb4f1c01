"""Rendered pixels about to be encoded, and how much an encoding of them lost."""

from __future__ import annotations

import io
from copy import copy
from functools import cached_property
from threading import Lock, Thread
from typing import TYPE_CHECKING, Any

import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.encode.tiles import tiled
from fitzle.core.libvips import libvips

if TYPE_CHECKING:
    from fitzle.core.encode.ssimulacra2 import Reference

DRAWN_SHARE = 0.5
DARK_GROUND, LIGHT_GROUND = 26, 230  # grey on which a picture with alpha is compared (facts/encoding.md)
SMOOTHING_PX, SMOOTHING_COLOUR = 7, 30  # bilateral filter: diameter in px, range in 1/255
HALF_CLEAR = 128
SAMPLE_PIXELS = 110_000  # of a large raster are searched first, on tiles
LEAST_SAMPLED = 1.5  # times that; a smaller one is searched whole
COMPARED_PIXELS = 500_000  # candidates are compared on tiles of about so many px together
SCORED_PIXELS = 2_500_000  # above that the chosen file is scored on tiles too: 16 megapixels would take 8 s

Pixels = NDArray[np.uint8]


class Raster:
    """Pixels (h, w, 4) uint8, sRGB, straight alpha; the colour of clear pixels is made 0 so that it costs nothing.

    Of a `rough` one nobody needs the files, but how heavy they would be: encoders may hurry.
    """

    def __init__(self, pixels: Pixels, *, rough: bool = False) -> None:
        self.rough = rough
        self.opaque = bool(pixels[..., 3].min() == 255)
        self.pixels = pixels if self.opaque else pixels * (pixels[..., 3:] > 0)
        self.height, self.width = pixels.shape[:2]
        self.palettes: dict[Any, Any] = {}  # found once, while its lock is held; drafts have the same
        self.finding_palettes = {smoothed: Lock() for smoothed in (False, True)}
        self._smoothed: list[Any] = []  # made once, while `_smoothing` is held; drafts have the same
        self._smoothing = Lock()
        self._preparing: Thread | None = None

    @cached_property
    def rgb(self) -> Pixels:
        """(h, w, 3) without alpha."""
        return np.ascontiguousarray(self.pixels[..., :3])

    @cached_property
    def bands(self) -> Pixels:
        """(h, w, 3) where opaque, else (h, w, 4)."""
        return self.rgb if self.opaque else self.pixels

    @cached_property
    def vips(self) -> Any:
        """As a vips image in sRGB."""
        pyvips = libvips()
        return pyvips.Image.new_from_array(self.bands).copy(interpretation="srgb")

    @property
    def smoothed(self) -> Any:
        """As a vips image whose colours are calmed where they are nearly even; edges and alpha stay."""
        with self._smoothing:
            if not self._smoothed:
                self._smoothed.append(self._calmed())
            return self._smoothed[0]

    def _calmed(self) -> Any:
        import cv2

        calm = np.asarray(cv2.bilateralFilter(self.rgb, SMOOTHING_PX, SMOOTHING_COLOUR, SMOOTHING_PX), dtype=np.uint8)
        bands = calm if self.opaque else with_alpha(calm, self.pixels[..., 3])
        return libvips().Image.new_from_array(bands).copy(interpretation="srgb")

    @cached_property
    def hard_edged(self) -> Raster:
        """Each px wholly clear or wholly opaque; itself where it is opaque."""
        if self.opaque:
            return self
        shown = np.where(self.pixels[..., 3] >= HALF_CLEAR, 255, 0).astype(np.uint8)
        return Raster(with_alpha(self.rgb, shown))

    @cached_property
    def drawn(self) -> bool:
        """Whether most pixels are the same as their neighbour: drawn rather than photographed."""
        return bool((self.pixels[:, 1:] == self.pixels[:, :-1]).all(axis=-1).mean() >= DRAWN_SHARE)

    @cached_property
    def sample(self) -> Raster | None:
        """Tiles of it as a smaller raster, to foresee how large its files get; None where it is small itself."""
        if self.width * self.height <= LEAST_SAMPLED * SAMPLE_PIXELS:
            return None
        return Raster(np.ascontiguousarray(tiled(self.pixels, SAMPLE_PIXELS)), rough=True)

    @cached_property
    def draft(self) -> Raster:
        """The same pixels, rough."""
        return self._twin(rough=True)

    @cached_property
    def finished(self) -> Raster:
        """The same pixels, not rough."""
        return self._twin(rough=False)

    def _twin(self, *, rough: bool) -> Raster:
        twin = copy(self)
        twin.rough = rough
        return twin

    @property
    def sampled_share(self) -> float:
        """The area of the sample as a share of all of it."""
        sample = self.sample
        return sample.width * sample.height / (self.width * self.height) if sample else 1.0

    def expect_score(self) -> None:
        """Begins with what `score` needs, beside the encoders, which use one core each."""
        if self._preparing is None:
            self._preparing = Thread(target=self._references, args=(SCORED_PIXELS,), daemon=True)
            self._preparing.start()

    def score(self, data: bytes) -> float:
        """SSIMULACRA2 of an encoded file against this raster; with alpha the worse of a dark and a light ground."""
        return self._scored(data, SCORED_PIXELS)

    def compared_score(self, data: bytes) -> float:
        """About that, on tiles: enough to tell which of two files is better, in a fraction of the time."""
        return self._scored(data, COMPARED_PIXELS)

    def _scored(self, data: bytes, pixels: int) -> float:
        from PIL import Image

        if self._preparing and self._kept_pixels(pixels) == SCORED_PIXELS:
            self._preparing.join()
        with Image.open(io.BytesIO(data)) as opened:
            found = np.asarray(opened.convert("RGBA"))
        return self._score_of(found, pixels)

    def score_of(self, found: Pixels) -> float:
        """The score of px (h, w, 4) that stand for this raster."""
        return self._score_of(found, SCORED_PIXELS)

    def _score_of(self, found: Pixels, pixels: int) -> float:
        if np.array_equal(found, self.pixels):
            return 100.0
        shown = self._grounds(tiled(found, pixels))
        pairs = zip(self._references(pixels), shown, strict=True)
        return float(round(max(0.0, min(reference.score(one) for reference, one in pairs)), 1))

    def _kept_pixels(self, pixels: int) -> int:
        """Which references serve for so many px: a small raster is compared whole."""
        return SCORED_PIXELS if self.width * self.height <= COMPARED_PIXELS else pixels

    def _references(self, pixels: int) -> list[Reference]:
        return self._whole_references if self._kept_pixels(pixels) == SCORED_PIXELS else self._tile_references

    @cached_property
    def _whole_references(self) -> list[Reference]:
        return self._made_references(SCORED_PIXELS)

    @cached_property
    def _tile_references(self) -> list[Reference]:
        return self._made_references(COMPARED_PIXELS)

    def _made_references(self, pixels: int) -> list[Reference]:
        from fitzle.core.encode.ssimulacra2 import Reference

        return [Reference(shown) for shown in self._grounds(tiled(self.pixels, pixels))]

    def _grounds(self, pixels: Pixels) -> list[Pixels]:
        if self.opaque:
            return [np.ascontiguousarray(pixels[..., :3])]
        alpha = pixels[..., 3:].astype(np.float32) / 255
        return [
            np.rint(pixels[..., :3] * alpha + grey * (1 - alpha)).astype(np.uint8)
            for grey in (DARK_GROUND, LIGHT_GROUND)
        ]
