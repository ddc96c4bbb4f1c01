"""A rendered picture about to be encoded, and how much an encoding of it lost."""

from __future__ import annotations

import io
from functools import cached_property
from threading import Thread
from typing import Any

import numpy as np
from numpy.typing import NDArray

from fitzle.core.libvips import libvips

DRAWN_SHARE = 0.5
DARK_GROUND, LIGHT_GROUND = 26, 230  # grey on which a picture with alpha is compared (facts/encoding.md)


class Picture:
    """Pixels (h, w, 4) uint8, sRGB, straight alpha; the colour of clear pixels is made 0 so that it costs nothing."""

    def __init__(self, pixels: NDArray[np.uint8]) -> None:
        self.opaque = bool(pixels[..., 3].min() == 255)
        self.pixels = pixels if self.opaque else pixels * (pixels[..., 3:] > 0)
        self.height, self.width = pixels.shape[:2]
        self._preparing: Thread | None = None

    @cached_property
    def rgb(self) -> NDArray[np.uint8]:
        """(h, w, 3) without alpha."""
        return np.ascontiguousarray(self.pixels[..., :3])

    @cached_property
    def bands(self) -> NDArray[np.uint8]:
        """(h, w, 3) where opaque, else (h, w, 4)."""
        return self.rgb if self.opaque else self.pixels

    @cached_property
    def vips(self) -> Any:
        """As a vips image in sRGB."""
        pyvips = libvips()
        return pyvips.Image.new_from_array(self.bands).copy(interpretation="srgb")

    @cached_property
    def drawn(self) -> bool:
        """Whether most pixels are the same as their neighbour: drawn rather than photographed."""
        return bool((self.pixels[:, 1:] == self.pixels[:, :-1]).all(axis=-1).mean() >= DRAWN_SHARE)

    def expect_scoring(self) -> None:
        """Begins with what every score of this picture needs, beside the encoders, which use one core each."""
        if self._preparing is None:
            self._preparing = Thread(target=lambda: self._references, daemon=True)
            self._preparing.start()

    def score(self, data: bytes) -> float:
        """SSIMULACRA2 of an encoded file against this picture; with alpha the worse of a dark and a light ground."""
        from PIL import Image

        if self._preparing is not None:
            self._preparing.join()
        with Image.open(io.BytesIO(data)) as opened:
            found = np.asarray(opened.convert("RGBA"))
        if np.array_equal(found, self.pixels):
            return 100.0
        pairs = zip(self._references, self._grounds(found), strict=True)
        return float(round(max(0.0, min(reference.score(shown) for reference, shown in pairs)), 1))

    @cached_property
    def _references(self) -> list[Any]:
        from fitzle.core.encode.ssimulacra2 import Reference

        return [Reference(shown) for shown in self._grounds(self.pixels)]

    def _grounds(self, pixels: NDArray[np.uint8]) -> list[NDArray[np.uint8]]:
        if self.opaque:
            return [pixels[..., :3]]
        alpha = pixels[..., 3:].astype(np.float32) / 255
        return [
            np.rint(pixels[..., :3] * alpha + grey * (1 - alpha)).astype(np.uint8)
            for grey in (DARK_GROUND, LIGHT_GROUND)
        ]
