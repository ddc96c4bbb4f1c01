"""Pictures and screenshots out of files, as learning wants them: sRGB and of a size that can be looked at."""

from __future__ import annotations

from typing import TYPE_CHECKING

import numpy as np

from fitzle.core.artwork.opening import open_source
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect
from fitzle.core.learning.placement import Pixels
from fitzle.core.units import Size

if TYPE_CHECKING:
    from fitzle.core.artwork.limits import Limits

LARGEST_SIDE, MOST_PIXELS = 20_000, 40_000_000  # of a screenshot: a very long page
LARGEST_PICTURE = 3000  # px of the long side; a larger one is reduced, since no screen shows more of it
LEAST_SIDE = 16
STEPS = 16  # of colours that are told apart when the commonest one is looked for


def read_pair(picture: bytes, screenshot: bytes, limits: Limits) -> tuple[Pixels, Pixels, float]:
    """The picture, the screenshot, and how many px of the file each px of the picture stands for.

    A picture with transparency is laid on the commonest colour of the screenshot: so it is seen there most likely.
    Raises ArtworkError.
    """
    shot = read_screenshot(screenshot, limits)
    source = open_source(picture, limits)
    reduction = max(1.0, max(source.width, source.height) / LARGEST_PICTURE)
    small = Size(max(1, round(source.width / reduction)), max(1, round(source.height / reduction)))
    if min(small) < LEAST_SIDE:
        raise ArtworkError("this picture is too small to be found", advice="It needs 16 px on its short side.")
    drawn = source.pixels(_whole(source.width, source.height), small)
    return _rgb(drawn, commonest_colour(shot)), shot, source.width / small.width


def read_screenshot(screenshot: bytes, limits: Limits) -> Pixels:
    """A screenshot alone. Raises ArtworkError."""
    shot_source = open_source(screenshot, limits)
    size = Size(round(shot_source.width), round(shot_source.height))
    if max(size) > LARGEST_SIDE or size.width * size.height > MOST_PIXELS:
        raise ArtworkError(
            f"this screenshot has {size.width} × {size.height} px; {LARGEST_SIDE:,} px and {MOST_PIXELS // 10**6}"
            " million px are the most",
            advice="Take one of the part where the picture is.",
        )
    if min(size) < LEAST_SIDE:
        raise ArtworkError(f"this screenshot has {size.width} × {size.height} px", advice="It is too small to look at.")
    return _rgb(shot_source.pixels(_whole(shot_source.width, shot_source.height), size), (255, 255, 255))


def commonest_colour(shot: Pixels) -> tuple[int, int, int]:
    """The colour that most px of a screenshot have, within a sixteenth of each channel."""
    some = shot[::4, ::4].reshape(-1, 3)
    codes = (some // STEPS).astype(np.int64) @ np.array([STEPS * STEPS, STEPS, 1])
    common = some[codes == np.bincount(codes).argmax()]
    red, green, blue = (int(value) for value in np.median(common, 0))
    return red, green, blue


def _whole(width: float, height: float) -> Rect:
    return Rect(0, 0, width, height)


def _rgb(premultiplied: Pixels, ground: tuple[int, int, int]) -> Pixels:
    """Premultiplied RGBA on a ground."""
    if premultiplied.shape[2] == 3:
        return np.ascontiguousarray(premultiplied)
    colours, alpha = premultiplied[..., :3].astype(np.float32), premultiplied[..., 3:].astype(np.float32) / 255
    laid = colours + (1 - alpha) * np.array(ground, dtype=np.float32)
    return np.asarray(laid.clip(0, 255).round(), dtype=np.uint8)
