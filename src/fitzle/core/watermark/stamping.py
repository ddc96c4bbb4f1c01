"""A mark laid into pictures: upright, in sRGB, in the format that they have, with nothing private kept."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, NamedTuple

import numpy as np

from fitzle.core.artwork.judging import jpeg_quality
from fitzle.core.artwork.limits import DEFAULT_LIMITS
from fitzle.core.artwork.opening import open_bitmap
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError, FitzleError
from fitzle.core.formats import CLIPS, MOVING, format_named
from fitzle.core.libvips import libvips
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.footage import Cut, footage_of
from fitzle.core.motion.ladders import highest, settings_at
from fitzle.core.motion.reel import Reel
from fitzle.core.units import Size
from fitzle.core.watermark.looking import markable_format
from fitzle.core.watermark.placing import Placed, Stamp, corner_box, placed

USUAL_QUALITY, LEAST_QUALITY = 92, 80
MOST_FPS = 50.0


class Stamped(NamedTuple):
    """A picture with its mark: the file, its ending, which version of the mark it got, and how it stands out."""

    data: bytes
    extension: str
    version: int
    contrast: float


def stamped(data: bytes, name: str, marks: Sequence[Pixels], stamp: Stamp, *, keep_details: bool = False) -> Stamped:
    """A picture, a moving one or a clip with a mark in its corner; `marks` are the
    `drawn_marks` of versions of one mark, the usual one first.

    `keep_details` keeps what the camera wrote. Raises ArtworkError or LimitError about `name`.
    """
    try:
        if sniff_format(data) in CLIPS:
            from fitzle.core.watermark.clips import stamped_clip  # loads what pictures do not need

            return stamped_clip(data, marks, stamp)
        fmt = markable_format(data)
        source = open_bitmap(data, fmt, DEFAULT_LIMITS)
        if source.frames > 1:
            return _moving(data, "apng" if fmt == "png" else fmt, marks, stamp)
        return _still(data, fmt, marks, stamp, keep_details)
    except FitzleError as error:
        raise error.about(name) from error


def laid(pixels: Pixels, mark: Placed) -> Pixels:
    """Px (h, w, 4), straight alpha, with a mark laid over them."""
    height, width = mark.pixels.shape[:2]
    out = pixels.copy()
    part = out[mark.top : mark.top + height, mark.left : mark.left + width].astype(np.float32)
    over = mark.pixels.astype(np.float32)
    clear = 1 - over[..., 3:] / 255
    alpha = over[..., 3:] + part[..., 3:] * clear
    colour = over[..., :3] * 255 + part[..., :3] * part[..., 3:] * clear
    part[..., :3] = np.divide(colour, alpha, out=np.zeros_like(colour), where=alpha > 0)
    part[..., 3:] = alpha
    out[mark.top : mark.top + height, mark.left : mark.left + width] = np.rint(part).astype(np.uint8)
    return out


def _still(data: bytes, fmt: str, marks: Sequence[Pixels], stamp: Stamp, keep_details: bool) -> Stamped:
    pyvips = libvips()
    try:
        image = _in_srgb(pyvips.Image.new_from_buffer(data, "").autorot())
        size = Size(image.width, image.height)
        box = corner_box(size, _shape(marks[0]), stamp)
        region = image.crop(round(box.x), round(box.y), round(box.width), round(box.height))
        behind = np.asarray(region.numpy(), dtype=np.uint8)
        mark = placed(marks, stamp, behind, box)
        over = laid(_with_alpha(behind), mark._replace(left=0, top=0))[..., : image.bands]
        patch = pyvips.Image.new_from_array(np.ascontiguousarray(over)).copy(interpretation="srgb")
        done = image.insert(patch, mark.left, mark.top)
        return Stamped(_saved(done, fmt, data, keep_details), format_named(fmt).extension, mark.version, mark.contrast)
    except pyvips.Error as error:
        raise ArtworkError("the picture data is damaged", advice="Export it again.") from error


def _in_srgb(image: Any) -> Any:
    """8 bits, three bands or four, whatever profile it has."""
    if image.get_typeof("icc-profile-data"):
        image = image.icc_transform("srgb", embedded=True)
    image = image.colourspace("srgb")
    if image.format != "uchar":
        image = image.cast("uchar")
    return image.copy_memory()  # it is read twice: behind the mark, and when it is saved


def _with_alpha(pixels: Pixels) -> Pixels:
    if pixels.shape[2] == 4:
        return pixels
    return np.concatenate([pixels, np.full((*pixels.shape[:2], 1), 255, np.uint8)], axis=2)


def _saved(image: Any, fmt: str, original: bytes, keep_details: bool) -> bytes:
    keep = "all" if keep_details else "none"
    if fmt == "jpeg":
        quality = max(LEAST_QUALITY, jpeg_quality(original) or USUAL_QUALITY)
        return bytes(image.jpegsave_buffer(Q=quality, optimize_coding=True, keep=keep))
    if fmt == "png":
        return bytes(image.pngsave_buffer(compression=6, keep=keep))
    if fmt == "webp":
        return bytes(image.webpsave_buffer(Q=USUAL_QUALITY, effort=3, keep=keep))
    if fmt == "avif":
        return bytes(image.heifsave_buffer(Q=75, compression="av1", effort=2, keep=keep))
    return bytes(image.gifsave_buffer(dither=0, effort=3, keep=keep))


def _moving(data: bytes, fmt: str, marks: Sequence[Pixels], stamp: Stamp) -> Stamped:
    """Each frame with the mark; which version, the first one decides, so that it does not flicker."""
    footage = footage_of(data, "", Cut(), fps=MOST_FPS)
    size = footage.natural
    box = corner_box(size, _shape(marks[0]), stamp)
    count = max(2, round(footage.period * min(MOST_FPS, footage.fps)))
    first = footage.full_picture(0.0)
    behind = first[round(box.y) : round(box.bottom), round(box.x) : round(box.right)]
    mark = placed(marks, stamp, behind, box)
    frames = (laid(footage.full_picture(footage.period * number / count), mark) for number in range(count))
    reel = Reel(frames, footage.period)
    known = next(one for one in MOVING if one == fmt)
    data = moving_file(known, reel, settings_at(known, highest(known), reel.fps), Playing())
    return Stamped(data, format_named(fmt).extension, mark.version, mark.contrast)


def _shape(mark: Pixels) -> Size:
    return Size(mark.shape[1], mark.shape[0])
