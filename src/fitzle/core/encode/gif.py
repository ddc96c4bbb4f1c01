"""GIF that does not move: at most 256 colours, and each px wholly clear or wholly opaque."""

from __future__ import annotations

import io

import numpy as np

from fitzle.core.encode.line import Line
from fitzle.core.encode.palette import LAST_STEP, colours_at, palette_picture
from fitzle.core.encode.raster import Raster
from fitzle.core.encode.settings import PaletteSettings

DITHERS = (0.0, 1.0)
SHOWN = 128  # of 255: from there on a px is opaque


def encode_gif(raster: Raster, settings: PaletteSettings) -> bytes:
    """A still GIF without metadata; what is half clear keeps its colour."""
    from PIL import Image

    found = palette_picture(raster.hard_edged, settings)
    picture = Image.fromarray(found.indices, "P")
    picture.putpalette(np.ascontiguousarray(found.colours[:, :3]).tobytes(), "RGB")
    clear = np.flatnonzero(found.colours[:, 3] < SHOWN)
    out = io.BytesIO()
    if len(clear):
        picture.save(out, "GIF", optimize=True, transparency=int(clear[0]))
    else:
        picture.save(out, "GIF", optimize=True)
    return out.getvalue()


def _line(dither: float) -> Line:
    return Line(
        "gif",
        f"dither {dither:g}",
        0,
        LAST_STEP,
        lambda step: PaletteSettings(colours=colours_at(step), dither=dither),
        encode_gif,
    )


GIF_LINES = tuple(_line(dither) for dither in DITHERS)
