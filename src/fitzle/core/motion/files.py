"""Moving files of frames: APNG, animated WebP, AVIF sequence, GIF and videos, each as its settings say.

Each loops as often as it is told (0: for ever), and lasts as long as the loop to the step that its format counts in.
"""

from __future__ import annotations

import io
from collections.abc import Callable
from typing import NamedTuple

import numpy as np
from PIL import Image

from fitzle.core.artwork.sources import Pixels
from fitzle.core.encode.settings import MovingSettings
from fitzle.core.formats import Format
from fitzle.core.libvips import libvips
from fitzle.core.motion.frames import delays
from fitzle.core.motion.lighter_gif import lighter_gif
from fitzle.core.motion.palette import in_palette, shared_palette
from fitzle.core.motion.reel import Reel
from fitzle.core.motion.video import video_file

GIF_STEPS, MS = 100, 1000  # in a second
LEAST_GIF_STEPS = 2  # players slow down what is shown for less
SEEN = 128  # alpha from which a px of a GIF is there
WEBP_EFFORT, AVIF_SPEED = 4, 8


class Playing(NamedTuple):
    """What a file says of its loop beside its frames: how often (0: for ever), and the ground of half-clear edges."""

    loop: int = 0
    ground: tuple[int, int, int] = (255, 255, 255)


def moving_file(fmt: Format, reel: Reel, settings: MovingSettings, playing: Playing) -> bytes:
    """The file; `fmt` is one of `formats.MOVING`."""
    return _WRITERS[fmt](reel, settings, playing)


def apng(reel: Reel, settings: MovingSettings, playing: Playing) -> bytes:
    """Every pixel as it was drawn, or in one palette for all frames (PNG Specification, Third Edition: APNG).

    Of a frame only what changed is kept, and replaces what was there, its alpha too.
    """
    if settings.colours is None:
        pictures = [Image.fromarray(pixels) for pixels in reel]
    else:
        palette = shared_palette(reel, settings.colours)
        pictures = [in_palette(pixels, palette) for pixels in reel]
    return _by_pillow(pictures, reel, "PNG", loop=playing.loop, disposal=0, blend=0, default_image=False)


def animated_webp(reel: Reel, settings: MovingSettings, playing: Playing) -> bytes:
    """Lossy, with its alpha whole; one key frame, since a loop is played from its beginning."""
    pictures = [Image.fromarray(pixels) for pixels in reel]
    options = {"quality": settings.quality, "method": WEBP_EFFORT, "background": (0, 0, 0, 0), "kmax": 0}
    return _by_pillow(pictures, reel, "WEBP", loop=playing.loop, **options)


def avif_sequence(reel: Reel, settings: MovingSettings, _playing: Playing) -> bytes:
    """Lossy; always played again and again. One thread, so that every machine gives the same bytes."""
    pictures = [Image.fromarray(pixels) for pixels in reel]
    return _by_pillow(pictures, reel, "AVIF", quality=settings.quality, speed=AVIF_SPEED, max_threads=1)


def animated_gif(reel: Reel, settings: MovingSettings, playing: Playing) -> bytes:
    """At most 256 colours a frame; edges that are half clear are mixed with the ground, alpha has one bit."""
    pyvips = libvips()
    width, height = reel.size
    stacked = np.empty((height * len(reel), width, 4), np.uint8)
    for number, pixels in enumerate(reel):
        stacked[number * height : (number + 1) * height] = matted(pixels, playing.ground)
    image = pyvips.Image.new_from_memory(stacked.data, width, height * len(reel), 4, "uchar")
    image = image.copy(interpretation="srgb")
    steps = [max(LEAST_GIF_STEPS, one) for one in delays(reel.period, len(reel), GIF_STEPS)]
    image.set_type(pyvips.GValue.gint_type, "page-height", height)
    image.set_type(pyvips.GValue.array_int_type, "delay", [one * 10 for one in steps])
    image.set_type(pyvips.GValue.gint_type, "loop", playing.loop)
    bits = max(1, ((settings.colours or 256) - 1).bit_length())
    data = bytes(image.gifsave_buffer(dither=0, effort=1, bitdepth=bits, interframe_maxerror=settings.tolerance))
    return lighter_gif(data, settings.lossiness) if settings.lossiness else data


def matted(pixels: Pixels, ground: tuple[int, int, int]) -> Pixels:
    """Opaque on the ground where anything is seen of it, clear elsewhere."""
    alpha = pixels[..., 3:]
    if alpha.min() == 255:
        return pixels
    share = alpha.astype(np.float32) / 255
    mixed = np.rint(pixels[..., :3] * share + np.array(ground, np.float32) * (1 - share)).astype(np.uint8)
    there = np.where(alpha >= SEEN, 255, 0).astype(np.uint8)
    return np.concatenate([mixed, there], axis=2)


def _by_pillow(pictures: list[Image.Image], reel: Reel, fmt: str, **options: object) -> bytes:
    first, *others = pictures
    out = io.BytesIO()
    durations = delays(reel.period, len(reel), MS)
    first.save(out, fmt, save_all=True, append_images=others, duration=durations, **options)
    return out.getvalue()


_Writer = Callable[[Reel, MovingSettings, Playing], bytes]
_WRITERS: dict[str, _Writer] = {
    "gif": animated_gif,
    "apng": apng,
    "webp": animated_webp,
    "avif": avif_sequence,
    "mp4": lambda reel, settings, playing: video_file("mp4", reel, settings, playing.ground),
    "webm": lambda reel, settings, playing: video_file("webm", reel, settings, playing.ground),
}
