"""One palette for all frames of a loop, and a frame in it."""

from __future__ import annotations

import numpy as np
from PIL import Image
from scipy.spatial import KDTree

from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.palette import palette_picture
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import PaletteSettings
from fitzle.core.motion.reel import Reel

LOOKED_AT_PIXELS = 2_000_000  # of some frames, spread over the loop, the palette is found


def shared_palette(reel: Reel, colours: int) -> Pixels:
    """At most so many colours (n, 4) for all frames, straight alpha."""
    area = reel.size.width * reel.size.height
    numbers = reel.spread(max(2, LOOKED_AT_PIXELS // area))
    stacked = np.concatenate([reel[number] for number in numbers])
    return palette_picture(Raster(stacked), PaletteSettings(colours=colours)).colours


def in_palette(pixels: Pixels, palette: Pixels) -> Image.Image:
    """A frame with each px in the nearest colour; colours count as much as they are seen."""
    packed = np.ascontiguousarray(pixels).view(np.uint32)[..., 0]
    own, indices = np.unique(packed, return_inverse=True)
    _, nearest = KDTree(_seen(palette)).query(_seen(own.view(np.uint8).reshape(-1, 4)))
    picture = Image.fromarray(nearest.astype(np.uint8)[indices].reshape(packed.shape), "P")
    picture.putpalette(np.ascontiguousarray(palette[:, :3]).tobytes(), "RGB")
    if palette[:, 3].min() < 255:
        picture.info["transparency"] = np.ascontiguousarray(palette[:, 3]).tobytes()
    return picture


def _seen(colours: Pixels) -> np.ndarray:
    """Premultiplied, beside their alpha."""
    alpha = colours[:, 3:].astype(np.float32)
    return np.concatenate([colours[:, :3] * alpha / 255, alpha], axis=1)
