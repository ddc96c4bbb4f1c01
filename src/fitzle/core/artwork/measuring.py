"""Trimmed box, visual weight, reach, backdrop and edge colours, measured on pixels."""

from __future__ import annotations

from typing import Any, NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.bands import largest_difference
from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.oklab import oklab
from fitzle.core.colour.srgb import Rgb, to_hex
from fitzle.core.geometry.rect import Rect

VISIBLE_ALPHA = 8  # of 255; below that a pixel does not show on any ground
BACKDROP_DISTANCE = 0.035  # OKLab; wider than JPEG noise at quality 75 on a flat backdrop, measured up to 0.03
BACKDROP_SHARE = 0.9  # of the border, its worst side dropped (facts/cutout.md)
# Of 255 in any channel: what counts as different from the backdrop. Ringing of JPEG at quality 75 reaches 23.
BACKDROP_STEP = 12
BACKDROP_STEP_JPEG = 24

Mask = NDArray[np.bool_]


class Extent(NamedTuple):
    """A box in px and the middle of the visual weight in fractions of that box."""

    box: Rect
    weight_x: float
    weight_y: float


def backdrop_colour(pixels: Pixels) -> Rgb | None:
    """The colour of a single-coloured surrounding of an opaque picture (h, w, 4), or None."""
    sides = [pixels[0, :, :3], pixels[-1, :, :3], pixels[:, 0, :3], pixels[:, -1, :3]]
    border = np.concatenate(sides)
    middle = np.median(border, axis=0).astype(np.uint8)
    shares = sorted(
        float((np.linalg.norm(oklab(side) - oklab(middle[None]), axis=-1) < BACKDROP_DISTANCE).mean()) for side in sides
    )
    if sum(shares[1:]) / 3 < BACKDROP_SHARE:
        return None
    red, green, blue = (int(value) for value in middle)
    return Rgb(red, green, blue)


def backdrop_step(fmt: str) -> int:
    """How far from the backdrop a pixel of this format must be to count as contents."""
    return BACKDROP_STEP_JPEG if fmt == "jpeg" else BACKDROP_STEP


def extent_of_image(image: Any, backdrop: Rgb | None, step: int = BACKDROP_STEP) -> Extent | None:
    """The box of what shows in a vips image, exact to the pixel, read once from top to bottom; None if nothing does.

    With a backdrop the image counts as opaque, whether it has a band of alpha or not (moving ones always do).
    """
    if backdrop is not None:
        away = (image.extract_band(0, n=3) - list(backdrop)).abs()
        mass = away.extract_band(0)
        for band in (1, 2):
            mass = (mass > away.extract_band(band)).ifthenelse(mass, away.extract_band(band))
        mass = (mass > step).ifthenelse(255, 0)
    elif image.bands == 4:
        mass = (image.extract_band(3) > VISIBLE_ALPHA).ifthenelse(image.extract_band(3), 0)
    else:
        return Extent(Rect(0, 0, image.width, image.height), 0.5, 0.5)
    columns, rows = mass.cast("uchar").project()
    return _extent(columns.numpy().ravel(), rows.numpy().ravel())


def _extent(columns: NDArray[Any], rows: NDArray[Any]) -> Extent | None:
    across, down = np.flatnonzero(columns), np.flatnonzero(rows)
    if not len(across):
        return None
    x, y = int(across[0]), int(down[0])
    width, height = int(across[-1]) - x + 1, int(down[-1]) - y + 1
    centre_x = float(np.average(np.arange(len(columns)) + 0.5, weights=columns)) - x
    centre_y = float(np.average(np.arange(len(rows)) + 0.5, weights=rows)) - y
    return Extent(Rect(x, y, width, height), centre_x / width, centre_y / height)


def extent_of_pixels(pixels: Pixels) -> Extent | None:
    """Like `extent_of_image` for pixels (h, w, 4) with alpha."""
    mass = np.where(pixels[..., 3] > VISIBLE_ALPHA, pixels[..., 3], 0).astype(np.float64)
    return _extent(mass.sum(axis=0), mass.sum(axis=1))


def shown_mask(pixels: Pixels, backdrop: Rgb | None, step: int = BACKDROP_STEP) -> Mask:
    """Which pixels (h, w, 4) belong to the contents: not transparent, not backdrop."""
    shown: Mask = pixels[..., 3] >= 128
    if backdrop is not None:
        shown &= largest_difference(pixels[..., :3], backdrop) > step
    return shown


def reach(mask: Mask) -> float:
    """Largest distance of the contents from the middle of their box, in fractions of half its diagonal."""
    if mask.all():
        return 1.0
    points = np.argwhere(mask)
    if not len(points):
        return 1.0
    low, high = points.min(axis=0), points.max(axis=0) + 1
    middle, half = (low + high) / 2, float(np.linalg.norm(high - low)) / 2
    farthest = float(np.sqrt(((np.abs(points + 0.5 - middle) + 0.25) ** 2).sum(axis=1)).max())
    return round(min(1.0, farthest / half), 4)


def outline_mask(mask: Mask) -> Mask:
    """The pixels of the contents that touch something that is not contents, the picture's border included."""
    inner = cv2.erode(mask.astype(np.uint8), np.ones((3, 3), np.uint8), borderType=cv2.BORDER_CONSTANT, borderValue=0)
    return np.asarray(mask & (inner == 0), dtype=bool)


def alpha_kind(alpha: NDArray[np.uint8]) -> str:
    """`none`, `edges` (part-transparent pixels only along outlines) or `soft`."""
    if int(alpha.min()) == 255:
        return "none"
    partial = ((alpha > VISIBLE_ALPHA) & (alpha < 247)).astype(np.uint8)
    wide = cv2.erode(partial, np.ones((3, 3), np.uint8), borderType=cv2.BORDER_CONSTANT, borderValue=0)
    return "soft" if wide.sum() > 0.002 * max(1, int((alpha > VISIBLE_ALPHA).sum())) else "edges"


def hex_or_none(colour: Rgb | None) -> str | None:
    """A colour's hex code, None for none."""
    return to_hex(colour) if colour else None
