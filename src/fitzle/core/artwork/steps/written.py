"""What the steps made as a file that loses nothing: SVG for a drawing, PNG for pixels."""

from __future__ import annotations

import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.drawing import markup_of
from fitzle.core.artwork.steps.material import Drawing, Material
from fitzle.core.libvips import libvips

COMPRESSION = 2  # a tenth heavier than 6, three times as fast


def file_of(material: Material) -> bytes:
    """The bytes of the file."""
    return markup_of(material) if isinstance(material, Drawing) else png_of(material.pixels)


def png_of(pixels: Pixels) -> bytes:
    """Pixels (h, w, 4), straight alpha, as a PNG; without an alpha channel where they are opaque."""
    pyvips = libvips()
    opaque = bool(pixels[..., 3].min() == 255)
    bands = np.ascontiguousarray(pixels[..., :3]) if opaque else pixels
    image = pyvips.Image.new_from_array(bands).copy(interpretation="srgb")
    return bytes(image.pngsave_buffer(compression=COMPRESSION, keep="none"))
