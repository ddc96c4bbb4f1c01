"""Moving files of frames: APNG, animated WebP and GIF. Each loops as often as it is told (0: for ever)."""

from __future__ import annotations

import io
from collections.abc import Sequence

import numpy as np
from PIL import Image

from fitzle.core.artwork.sources import Pixels
from fitzle.core.libvips import libvips
from fitzle.core.motion.frames import delays

GIF_STEPS, MS = 100, 1000  # in a second
LEAST_GIF_STEPS = 2  # players slow down what is shown for less
SEEN = 128  # alpha from which a px of a GIF is there


def apng(pictures: Sequence[Pixels], period: float, loop: int = 0) -> bytes:
    """Every pixel as it was drawn (PNG Specification, Third Edition: APNG)."""
    return _by_pillow(pictures, period, "PNG", loop=loop, disposal=1, blend=0, default_image=False)


def animated_webp(pictures: Sequence[Pixels], period: float, quality: int, loop: int = 0) -> bytes:
    """Lossy, with its alpha whole; quality of 1 to 100."""
    return _by_pillow(pictures, period, "WEBP", loop=loop, quality=quality, method=4, minimize_size=True)


def animated_gif(pictures: Sequence[Pixels], period: float, ground: tuple[int, int, int], loop: int = 0) -> bytes:
    """At most 256 colours each; edges that are half clear are mixed with the ground, alpha has one bit."""
    pyvips = libvips()
    flat = np.concatenate([_matted(one, ground) for one in pictures])
    height, width = pictures[0].shape[:2]
    image = pyvips.Image.new_from_memory(flat.tobytes(), width, height * len(pictures), 4, "uchar")
    image = image.copy(interpretation="srgb")
    steps = [max(LEAST_GIF_STEPS, one) for one in delays(period, len(pictures), GIF_STEPS)]
    image.set_type(pyvips.GValue.gint_type, "page-height", height)
    image.set_type(pyvips.GValue.array_int_type, "delay", [one * 10 for one in steps])
    image.set_type(pyvips.GValue.gint_type, "loop", loop)
    return bytes(image.gifsave_buffer(dither=0, effort=1, interframe_maxerror=0))


def _by_pillow(pictures: Sequence[Pixels], period: float, fmt: str, **options: object) -> bytes:
    first, *others = (Image.fromarray(np.ascontiguousarray(one)) for one in pictures)
    out = io.BytesIO()
    first.save(out, fmt, save_all=True, append_images=others, duration=delays(period, len(pictures), MS), **options)
    return out.getvalue()


def _matted(pixels: Pixels, ground: tuple[int, int, int]) -> Pixels:
    """Opaque on the ground where anything is seen of it, clear elsewhere."""
    alpha = pixels[..., 3:].astype(np.float32) / 255
    mixed = np.rint(pixels[..., :3] * alpha + np.array(ground, np.float32) * (1 - alpha)).astype(np.uint8)
    there = np.where(pixels[..., 3] >= SEEN, 255, 0).astype(np.uint8)
    return np.dstack([mixed, there])
