"""The part of a screenshot around a picture, cut out to be the scene that the picture is seen in."""

from __future__ import annotations

import io
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from fitzle.core.learning.result import PixelBox

MARGIN_PX = 240  # of the page, on each side
LONGEST_PX = 1600  # of the page: what is seen at once


class Around(NamedTuple):
    """A PNG at the screenshot's density, and the box of the picture in it, in px of the page."""

    png: bytes
    box: PixelBox


def around(shot: NDArray[np.uint8], box: PixelBox, density: float) -> Around:
    """What stands around a box (px of the screenshot, (h, w, 3)), up to MARGIN_PX and to the screenshot's edges."""
    from PIL import Image

    height, width = shot.shape[:2]
    margin = MARGIN_PX * density
    left, top = max(0, round(box.x - margin)), max(0, round(box.y - margin))
    right, bottom = min(width, round(box.x + box.width + margin)), min(height, round(box.y + box.height + margin))
    right, bottom = min(right, left + round(LONGEST_PX * density)), min(bottom, top + round(LONGEST_PX * density))
    out = io.BytesIO()
    Image.fromarray(np.ascontiguousarray(shot[top:bottom, left:right, :3])).save(out, "PNG", compress_level=6)
    within = PixelBox(
        x=(box.x - left) / density, y=(box.y - top) / density, width=box.width / density, height=box.height / density
    )
    return Around(out.getvalue(), within)
