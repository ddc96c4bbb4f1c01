"""A picture or clip looked at before it is marked: how large it is, and how a mark would stand out in its corner."""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import Any, NamedTuple

import cv2
import numpy as np

from fitzle.core.artwork.clips.opening import opened_clip
from fitzle.core.artwork.clips.probing import probe
from fitzle.core.artwork.limits import DEFAULT_LIMITS, Limits
from fitzle.core.artwork.opening import known_format, open_bitmap
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError, FitzleError, LimitError
from fitzle.core.formats import CLIPS, label_of
from fitzle.core.geometry.rect import Rect
from fitzle.core.libvips import libvips
from fitzle.core.units import Size
from fitzle.core.watermark.placing import Placed, Stamp, corner_box, placed, scaled_mark

STILL_FORMATS = ("jpeg", "png", "webp", "avif", "gif")
LONGEST_CLIP_S = 15 * 60.0
LOOK_PX = 96  # longer side: what is behind a mark is told by its mean
TOLD_PX = 32  # of the mark, where only its mean colour counts


class Look(NamedTuple):
    """The upright size in px, whether it is a clip, and px (h, w, 4) straight alpha, at most so large as asked."""

    size: Size
    clip: bool
    pixels: Pixels


def markable_format(data: bytes, limits: Limits = DEFAULT_LIMITS) -> str:
    """The format of a picture that a mark can be laid into; raises ArtworkError for any other."""
    fmt = known_format(data, limits)
    if fmt not in STILL_FORMATS:
        raise ArtworkError(
            f"a mark cannot be laid into a {label_of(fmt)}", advice="Choose JPEG, PNG, WebP, AVIF, GIF or a clip."
        )
    return fmt


def check_length(seconds: float) -> None:
    """Raises LimitError for a clip that is too long to be marked."""
    if seconds > LONGEST_CLIP_S:
        raise LimitError(
            f"the clip lasts {seconds / 60:.0f} minutes", advice=f"At most {LONGEST_CLIP_S / 60:.0f} are marked."
        )


def looked_at(data: bytes, name: str, longest: int = LOOK_PX, limits: Limits = DEFAULT_LIMITS) -> Look:
    """A picture, or the first moments of a clip, with its longer side at most `longest` px.

    Raises ArtworkError or LimitError about `name` for what cannot be marked.
    """
    try:
        return _clip(data, longest, limits) if sniff_format(data) in CLIPS else _picture(data, longest, limits)
    except FitzleError as error:
        raise error.about(name) from error


def small_marks(marks: Sequence[Pixels]) -> tuple[Pixels, ...]:
    """Drawn versions of a mark as small as `foreseen` needs them."""
    return tuple(scaled_mark(mark, _told(Size(mark.shape[1], mark.shape[0]))) for mark in marks)


def foreseen(look: Look, marks: Sequence[Pixels], stamp: Stamp) -> Placed:
    """Which of the `small_marks` the picture likely gets, and how it likely stands out."""
    shape = Size(marks[0].shape[1], marks[0].shape[0])
    box = corner_box(look.size, shape, stamp)
    behind = _part(look, box)
    told = Size(shape.width, shape.height)
    stretched = np.asarray(cv2.resize(behind, told, interpolation=cv2.INTER_AREA), dtype=np.uint8)
    return placed(marks, stamp, stretched, Rect(0, 0, told.width, told.height))


def shown_marked(look: Look, marks: Sequence[Pixels], stamp: Stamp) -> tuple[Pixels, Placed]:
    """The look itself with its mark, for a proof: px (h, w, 4), straight alpha, and what was placed."""
    from fitzle.core.watermark.stamping import laid

    height, width = look.pixels.shape[:2]
    box = corner_box(Size(width, height), Size(marks[0].shape[1], marks[0].shape[0]), stamp)
    behind = look.pixels[round(box.y) : round(box.bottom), round(box.x) : round(box.right)]
    mark = placed(marks, stamp, behind, box)
    return laid(look.pixels, mark), mark


def _told(size: Size) -> Size:
    scale = TOLD_PX / max(size)
    return Size(max(1, round(size.width * scale)), max(1, round(size.height * scale)))


def _part(look: Look, box: Rect) -> Pixels:
    """What is behind a box of the whole picture; at least one px of the look."""
    height, width = look.pixels.shape[:2]
    across, down = width / look.size.width, height / look.size.height
    left, top = min(int(box.x * across), width - 1), min(int(box.y * down), height - 1)
    right = max(left + 1, min(width, round(box.right * across)))
    bottom = max(top + 1, min(height, round(box.bottom * down)))
    return look.pixels[top:bottom, left:right]


def _picture(data: bytes, longest: int, limits: Limits) -> Look:
    pyvips = libvips()
    source = open_bitmap(data, markable_format(data, limits), limits)
    try:
        small = pyvips.Image.thumbnail_buffer(data, longest, height=longest, size="down", output_profile="srgb")
        return Look(Size(round(source.width), round(source.height)), False, _rgba(small))
    except pyvips.Error as error:
        raise ArtworkError("the picture data is damaged", advice="Export it again.") from error


def _rgba(image: Any) -> Pixels:
    if image.interpretation != "srgb":
        image = image.colourspace("srgb")
    if not image.hasalpha():
        image = image.bandjoin(255)
    return np.asarray(image.cast("uchar").numpy(), dtype=np.uint8)


def _clip(data: bytes, longest: int, limits: Limits) -> Look:
    with opened_clip(io.BytesIO(data), limits) as clip:
        facts = probe(clip, limits)
    check_length(facts.seconds)
    pixels = facts.poster.pixels
    scale = longest / max(facts.width, facts.height)
    if scale < 1:
        size = (max(1, round(facts.width * scale)), max(1, round(facts.height * scale)))
        pixels = np.asarray(cv2.resize(pixels, size, interpolation=cv2.INTER_AREA), dtype=np.uint8)
    return Look(Size(facts.width, facts.height), True, pixels)
