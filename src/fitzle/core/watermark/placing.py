"""Where a mark stands in a corner, and which of its versions shows best on what is behind it."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Annotated, Literal, NamedTuple

import numpy as np
from pydantic import Field

from fitzle.core.artwork.reading import Artwork
from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.contrast import FLARE, LUMINANCE_WEIGHTS
from fitzle.core.colour.srgb import linear
from fitzle.core.findings import Frozen
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size

Corner = Literal["top left", "top right", "bottom left", "bottom right"]
LEAST_SEEN = 3.0  # to 1: WCAG 2.2, 1.4.11, for graphics that are to be made out
STANDING_OUT = 0.2  # of its area: letters of a badge are that much of it
SMALLEST_PX = 8
DRAWN_PX = 2048  # of the longer side: large enough for the corner of most pictures


class Stamp(Frozen):
    """How the mark stands: its longer side in shares of the picture's short side, its distance from both edges too."""

    corner: Corner = "bottom right"
    size: Annotated[float, Field(gt=0, le=1)] = 0.12
    distance: Annotated[float, Field(ge=0, le=0.5)] = 0.03
    opacity: Annotated[float, Field(gt=0, le=1)] = 0.8


class Placed(NamedTuple):
    """A mark at its place: px (h, w, 4) premultiplied with its opacity, left top corner, which version, contrast."""

    pixels: Pixels
    left: int
    top: int
    version: int
    contrast: float


def corner_box(size: Size, mark: Size, stamp: Stamp) -> Rect:
    """The box of a mark of this shape in the corner of a picture, in whole px."""
    short = min(size.width, size.height)
    longer = max(SMALLEST_PX, stamp.size * short)
    scale = longer / max(mark.width, mark.height)
    scale = min(scale, size.width / mark.width, size.height / mark.height)
    width, height = max(1, round(mark.width * scale)), max(1, round(mark.height * scale))
    away = round(stamp.distance * short)
    room_x, room_y = size.width - width, size.height - height
    x = min(away, room_x) if stamp.corner.endswith("left") else max(0, room_x - away)
    y = min(away, room_y) if stamp.corner.startswith("top") else max(0, room_y - away)
    return Rect(x, y, width, height)


def drawn_marks(marks: Sequence[Artwork]) -> tuple[Pixels, ...]:
    """Versions of a mark, each drawn once without the empty room around it, premultiplied; then any thread may scale
    them.
    """
    found = []
    for mark in marks:
        trimmed = mark.facts.trimmed.rect
        scale = DRAWN_PX / max(trimmed.width, trimmed.height)
        scale = scale if mark.facts.vector else min(1.0, scale)
        size = Size(max(1, round(trimmed.width * scale)), max(1, round(trimmed.height * scale)))
        found.append(mark.source.pixels(trimmed, size))
    return tuple(found)


def placed(marks: Sequence[Pixels], stamp: Stamp, behind: Pixels, box: Rect) -> Placed:
    """The version that stands out most from the px (h, w, 3 or 4) behind the box; the first one where it is enough."""
    drawn = [scaled_mark(mark, Size(round(box.width), round(box.height))) for mark in marks]
    contrasts = [_contrast(pixels, behind, stamp.opacity) for pixels in drawn]
    best = 0 if contrasts[0] >= LEAST_SEEN else contrasts.index(max(contrasts))
    faded = np.rint(drawn[best].astype(np.float32) * stamp.opacity).astype(np.uint8)
    return Placed(faded, round(box.x), round(box.y), best, round(contrasts[best], 2))


def scaled_mark(mark: Pixels, size: Size) -> Pixels:
    """A drawn mark in another size, px (h, w, 4) premultiplied."""
    import cv2

    smaller = mark.shape[0] >= size.height
    how = cv2.INTER_AREA if smaller else cv2.INTER_CUBIC
    return np.asarray(cv2.resize(mark, size, interpolation=how), dtype=np.uint8)


def _contrast(mark: Pixels, behind: Pixels, opacity: float) -> float:
    """What the fifth of the mark's area that stands out most reaches against the mean of what is behind it.

    White letters on a coloured shape are seen wherever they are, whatever the shape does.
    """
    alpha = mark[..., 3].astype(np.float64).ravel() / 255
    total = float(alpha.sum())
    if total == 0:
        return 1.0
    shown = alpha > 0
    alpha, own, back = alpha[shown], mark[..., :3].reshape(-1, 3)[shown], behind[..., :3].reshape(-1, 3)[shown]
    ground = (back * alpha[:, None]).sum(axis=0) / total
    seen = own / alpha[:, None] * opacity + ground * (1 - opacity)
    light, behind_it = (
        linear(np.clip(np.rint(px), 0, 255).astype(np.uint8)) @ LUMINANCE_WEIGHTS for px in (seen, ground)
    )
    ratios = (np.maximum(light, behind_it) + FLARE) / (np.minimum(light, behind_it) + FLARE)
    falling = np.argsort(-ratios)
    reached = int(np.searchsorted(np.cumsum(alpha[falling]), STANDING_OUT * total))
    return float(ratios[falling[min(reached, len(falling) - 1)]])


def _luminance(px: np.ndarray) -> np.ndarray:
    """Relative luminance of colours (n, 3), or of one (3,), 0 to 255."""
    return np.asarray(linear(np.clip(np.rint(px), 0, 255).astype(np.uint8)) @ LUMINANCE_WEIGHTS)
