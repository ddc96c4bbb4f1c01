"""One entrance to the cut-out engines: picks by measured confidence and says which one it used."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal, NamedTuple

import numpy as np

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.cutout.backdrop import Lab
from fitzle.core.artwork.cutout.clipping import wider_box
from fitzle.core.artwork.cutout.flat import Holes, cut_flat, flat_confidence
from fitzle.core.artwork.cutout.person import person_mask
from fitzle.core.artwork.cutout.refining import Hints, refined
from fitzle.core.artwork.cutout.salient import salient_box
from fitzle.core.artwork.cutout.subject import subject_mask
from fitzle.core.artwork.cutout.unmixing import Mask, Plane
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError, NoSubjectFound, ValueOutOfRange
from fitzle.core.geometry.rect import Rect

Method = Literal["auto", "flat", "person", "object"]
SURE = 0.5  # of 1; below, no engine is used unasked
CERTAIN = 0.9  # of a flat backdrop: nobody is looked for before it
TOLERANCES = (0.1, 10.0)
SOFTNESSES_PX = (0.5, 16.0)


class CutOut(NamedTuple):
    """The picture (h, w, 4), straight alpha, the engine that cut it and how sure that is, 0 to 1.

    `wider` (px) is offered where the cut runs along a side of the box that was drawn, as the box cuts the subject.
    """

    pixels: Pixels
    method: str
    confidence: float
    wider: Rect | None = None


class Wishes(NamedTuple):
    """How it is to be cut: how much counts as backdrop (1: as measured), how soft the edge, what becomes of holes.

    `box` (px) is where the subject is; `keep` and `drop` (h, w) are what it is and is not.
    """

    tolerance: float = 1.0
    softness_px: float = 1.0
    holes: Holes = "auto"
    box: Rect | None = None
    keep: Mask | None = None
    drop: Mask | None = None


def cut_out(pixels: Pixels, method: Method = "auto", wishes: Wishes | None = None) -> CutOut:
    """Cuts the subject out of a picture (h, w, 4), straight alpha.

    Raises ArtworkError when the picture is transparent already, when `auto` finds nothing it is sure of, or when the
    engine chosen finds no subject; ValueOutOfRange for wishes that make no sense.
    """
    wishes = wishes or Wishes()
    _check("tolerance", wishes.tolerance, TOLERANCES)
    _check("softness", wishes.softness_px, SOFTNESSES_PX)
    if pixels[..., 3].min() < 255:
        raise ArtworkError("its background is transparent already", advice="There is nothing to cut out.")
    if method == "auto":
        return _by_confidence(pixels, wishes)
    return _ENGINES[method](pixels, wishes)


def _by_confidence(pixels: Pixels, wishes: Wishes) -> CutOut:
    """The flat engine where it is certain, else the surer one of it and the one for people, else the subject shown."""
    flat = flat_confidence(pixels)
    person = _person(pixels, wishes, least=max(SURE, flat)) if flat < CERTAIN else None
    if person:
        return person
    cut = _flat(pixels, wishes) if flat >= SURE else None
    if cut and cut.confidence >= SURE:
        return cut
    if wishes.box or (wishes.keep is not None and wishes.keep.any()):
        return _object(pixels, wishes)
    raise _nothing_found(pixels)


def _nothing_found(pixels: Pixels) -> NoSubjectFound:
    box = salient_box(pixels)
    own = "Draw a box around the subject" if box is None else "Use the box that is proposed, or draw one"
    error = NoSubjectFound(
        "there is neither a flat backdrop nor a person to go by",
        advice=f"{own}; or choose the flat backdrop to take away what is like the border.",
    )
    height, width = pixels.shape[:2]
    error.box = (box.x / width, box.y / height, box.width / width, box.height / height) if box else None
    return error


def _flat(pixels: Pixels, wishes: Wishes) -> CutOut:
    cut = cut_flat(pixels, wishes.tolerance, wishes.holes, wishes.softness_px, wishes.keep, wishes.drop)
    alpha = _only_in_box(cut.alpha, wishes.box)
    return CutOut(_joined(cut.colours, alpha), "flat", cut.confidence)


def _person(pixels: Pixels, wishes: Wishes, least: float = 0.0) -> CutOut | None:
    found = person_mask(pixels, wishes.box)
    if found.confidence < least:
        return None
    edge = refined(pixels, found.mask > wishes_threshold(wishes), Hints(wishes.keep, wishes.drop), wishes.softness_px)
    return CutOut(_joined(edge.colours, edge.alpha), "person", found.confidence)


def _person_for_sure(pixels: Pixels, wishes: Wishes) -> CutOut:
    cut = _person(pixels, wishes)
    if cut is None or cut.pixels[..., 3].max() < 128:
        raise ArtworkError("there is no person to be found", advice="Draw a box around the subject instead.")
    return cut


def _object(pixels: Pixels, wishes: Wishes) -> CutOut:
    hints = Hints(wishes.keep, wishes.drop)
    edge = refined(pixels, subject_mask(pixels, wishes.box, hints), hints, wishes.softness_px)
    wider = wider_box(edge.alpha, wishes.box) if wishes.box else None
    return CutOut(_joined(edge.colours, edge.alpha), "object", SURE, wider)


_ENGINES: dict[str, Callable[[Pixels, Wishes], CutOut]] = {
    "flat": _flat,
    "person": _person_for_sure,
    "object": _object,
}


def wishes_threshold(wishes: Wishes) -> float:
    """How sure the network must be of a px: less with a smaller tolerance for background, more with a larger one."""
    return float(np.clip(0.5 * wishes.tolerance, 0.05, 0.95))


def _only_in_box(alpha: Plane, box: Rect | None) -> Plane:
    if box is None:
        return alpha
    inside = np.zeros_like(alpha)
    rows, columns = slice(round(box.y), round(box.bottom)), slice(round(box.x), round(box.right))
    inside[rows, columns] = alpha[rows, columns]
    return inside


def _joined(colours: Lab, alpha: Plane) -> Pixels:
    coverage = np.rint(np.clip(alpha, 0, 1) * 255).astype(np.uint8)
    return with_alpha(np.rint(np.clip(colours, 0, 255)).astype(np.uint8), coverage)


def _check(name: str, value: float, between: tuple[float, float]) -> None:
    low, high = between
    if not low <= value <= high:
        raise ValueOutOfRange(f"this {name} makes no sense", expected=f"{low:g} to {high:g}", actual=f"{value:g}")
