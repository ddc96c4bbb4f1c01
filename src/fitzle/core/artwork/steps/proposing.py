"""Steps that a calculation proposes for a picture; the person accepts, changes or drops them."""

from __future__ import annotations

from collections.abc import Callable
from typing import Literal

from fitzle.core.artwork.faces.detecting import faces_in
from fitzle.core.artwork.faces.eyes import red_eyes
from fitzle.core.artwork.own_colours import own_colours
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.cropping import contents_window
from fitzle.core.artwork.steps.document import AnyStep, Crop, Eye, Recolour, RedEyes, Trim, Window
from fitzle.core.artwork.steps.improving import improvement
from fitzle.core.artwork.steps.material import Material, as_bitmap
from fitzle.core.colour.dark_version import for_dark_grounds
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect

Proposal = Literal["improve", "red-eyes", "subject", "dark-version"]
LOOKED_AT_PX = 1280
HEAD_ROOM = 0.75  # of a face's height, left around a crop to faces
AIR = 0.04  # of the contents' larger side, left around a crop to anything else
AGAIN = "Nothing was changed."


def proposed(kind: Proposal, material: Material, step_id: str, ratio: float | None = None) -> AnyStep:
    """A step for a picture; `ratio` is the shape that a crop must have.

    Raises ArtworkError where there is nothing to propose, in words for the person.
    """
    pixels = as_bitmap(material, LOOKED_AT_PX).pixels
    return _MAKERS[kind](pixels, step_id, ratio)


def _improve(pixels: Pixels, step_id: str, _ratio: float | None) -> AnyStep:
    step = improvement(pixels, step_id)
    if not any(step.model_dump(exclude={"id", "on", "kind"}).values()):
        raise ArtworkError("its light and colours are well balanced already", advice=AGAIN)
    return step


def _red_eyes(pixels: Pixels, step_id: str, _ratio: float | None) -> AnyStep:
    height, width = pixels.shape[:2]
    eyes = tuple(
        Eye(x=_share(place.x, width), y=_share(place.y, height), radius=min(0.25, radius / min(width, height)))
        for place, radius in red_eyes(pixels)
    )
    if not eyes:
        raise ArtworkError("no red eyes were found", advice="Point at them yourself.")
    return RedEyes(id=step_id, eyes=eyes)


def _subject(pixels: Pixels, step_id: str, ratio: float | None) -> AnyStep:
    height, width = pixels.shape[:2]
    box = _faces_box(pixels) or _contents_box(pixels)
    if box is None:
        raise ArtworkError("neither a face nor a flat or clear margin says what the subject is", advice="Crop by hand.")
    if ratio:
        box = _shaped(box, ratio, Rect(0, 0, width, height))
    left, top = max(0.0, box.x), max(0.0, box.y)
    right, bottom = min(float(width), box.right), min(float(height), box.bottom)
    window = Window(x=left / width, y=top / height, width=(right - left) / width, height=(bottom - top) / height)
    return Crop(id=step_id, window=window)


def _faces_box(pixels: Pixels) -> Rect | None:
    """All faces of about the size of the largest, with room above and below."""
    faces = faces_in(pixels)
    if not faces:
        return None
    chosen = [face for face in faces if face.box.height > 0.4 * faces[0].box.height]
    boxes = [face.box.inset(-HEAD_ROOM * face.box.height) for face in chosen]
    left, top = min(box.x for box in boxes), min(box.y for box in boxes)
    return Rect(left, top, max(box.right for box in boxes) - left, max(box.bottom for box in boxes) - top)


def _contents_box(pixels: Pixels) -> Rect | None:
    window = contents_window(pixels, Trim(id="t").tolerance)
    if window is None:
        return None
    height, width = pixels.shape[:2]
    box = Rect(window.x * width, window.y * height, window.width * width, window.height * height)
    return box.inset(-AIR * max(box.width, box.height))


def _shaped(box: Rect, ratio: float, whole: Rect) -> Rect:
    """A window of the ratio that holds the box where the picture has room for it, and as much of it as it can."""
    wide = max(box.width, box.height * ratio)
    scale = min(1.0, whole.width / wide, whole.height * ratio / wide)
    size = (wide * scale, wide * scale / ratio)
    room = Rect(box.centre.x - size[0] / 2, box.centre.y - size[1] / 2, *size)
    moved = room.moved(max(0.0, -room.x) - max(0.0, room.right - whole.width), 0)
    moved = moved.moved(0, max(0.0, -moved.y) - max(0.0, moved.bottom - whole.height))
    return fill_window(moved, ratio, Point(0.5, 0.5))


def _dark_version(pixels: Pixels, step_id: str, _ratio: float | None) -> AnyStep:
    pairs = for_dark_grounds([entry.hex for entry in own_colours(pixels)])
    if not pairs:
        raise ArtworkError("all its colours stand out on dark grounds already", advice=AGAIN)
    return Recolour(id=step_id, colours=tuple(pairs))


def _share(value: float, of: float) -> float:
    return min(1.0, max(0.0, value / of))


_MAKERS: dict[str, Callable[[Pixels, str, float | None], AnyStep]] = {
    "improve": _improve,
    "red-eyes": _red_eyes,
    "subject": _subject,
    "dark-version": _dark_version,
}
