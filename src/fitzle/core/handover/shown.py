"""What a destination shows beside the file that it was given, with the measured difference."""

from __future__ import annotations

import cv2
import numpy as np

from fitzle.core.artwork.sources import Pixels
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.encode.ssimulacra2 import LEAST_SIDE_PX, Reference
from fitzle.core.findings import Frozen

SAME, CLOSE = 99.5, 70.0  # SSIMULACRA2: nothing to tell apart, and good
MOST_PX = 1600  # of the long side; larger pictures are compared at that size
SAME_SHAPE = 0.03  # of the ratio of sides


class Shown(Frozen):
    """How a picture is shown: its size in px, what is left of its looks (100: all), and the same in words.

    `score` is None where it is shown in another shape, and the two cannot be laid over each other. `clear` says that
    part of it was cut away.
    """

    width: int
    height: int
    score: float | None
    mean: float | None
    clear: bool
    words: str


def as_shown(own: Pixels, shown: Pixels, ground: str) -> Shown:
    """Compares the delivered file with what is shown, both (h, w, 4) with straight alpha, on a ground (hex).

    The file is scaled to the size shown; where the destination cut parts away only what is left is compared.
    """
    height, width = shown.shape[:2]
    clear = bool(shown[..., 3].min() < 255 and _cut(own, shown))
    ratio = (width / height) / (own.shape[1] / own.shape[0])
    if abs(ratio - 1) > SAME_SHAPE:
        return Shown(
            width=width, height=height, score=None, mean=None, clear=clear, words=_words(own, shown, None, clear)
        )
    scale = min(1.0, MOST_PX / max(width, height))
    size = (max(1, round(width * scale)), max(1, round(height * scale)))
    one, other = _at(own, size), _at(shown, size)
    if clear:
        one = np.dstack([one[..., :3], np.minimum(one[..., 3], other[..., 3])])
    ours, theirs = _on(one, ground), _on(other, ground)
    mean = float(np.abs(ours.astype(np.int16) - theirs).mean())
    score = float(Reference(ours).score(theirs)) if min(size) >= LEAST_SIDE_PX else 100.0 - mean
    return Shown(
        width=width, height=height, score=round(score, 1), mean=round(mean, 2), clear=clear,
        words=_words(own, shown, score, clear),
    )  # fmt: skip


def _at(pixels: Pixels, size: tuple[int, int]) -> Pixels:
    """Scaled by areas, premultiplied meanwhile so that clear px lend no colour."""
    if (pixels.shape[1], pixels.shape[0]) == size:
        return pixels
    alpha = pixels[..., 3:].astype(np.float32) / 255
    packed = np.dstack([pixels[..., :3] * alpha, alpha * 255])
    scaled = cv2.resize(packed, size, interpolation=cv2.INTER_AREA if size[0] < pixels.shape[1] else cv2.INTER_CUBIC)
    colour = scaled[..., :3] * 255 / np.maximum(scaled[..., 3:], 1e-3)
    whole: Pixels = np.rint(np.clip(np.dstack([colour, scaled[..., 3]]), 0, 255)).astype(np.uint8)
    return whole


def _on(pixels: Pixels, ground: str) -> Pixels:
    alpha = pixels[..., 3:].astype(np.float32) / 255
    mixed = pixels[..., :3] * alpha + np.array(parse_hex(ground), np.float32) * (1 - alpha)
    flat: Pixels = np.rint(mixed).astype(np.uint8)
    return flat


def _cut(own: Pixels, shown: Pixels) -> bool:
    """Whether more of it is clear than of the file."""
    return float((shown[..., 3] < 128).mean()) > float((own[..., 3] < 128).mean()) + 0.02


def _words(own: Pixels, shown: Pixels, score: float | None, clear: bool) -> str:
    same_size = own.shape[:2] == shown.shape[:2]
    how = [] if same_size else [f"scaled to {shown.shape[1]} × {shown.shape[0]} px"]
    how += ["cut to its shape"] if clear else []
    if score is None:
        return f"shown in another shape, {', '.join(how)}"
    if score >= SAME:
        return f"shown {', '.join(how)}, else as it was sent" if how else "shown as it was sent"
    looks = f"looks {score:.0f} of 100" + ("" if score >= CLOSE else ": it was packed again, and shows it")
    return f"shown {', '.join(how)}; {looks}" if how else f"packed again; {looks}"
