"""Faces found by BlazeFace (Bazarevsky et al. 2019, "BlazeFace: Sub-millisecond Neural Face Detection"), back model."""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.models import run_model
from fitzle.core.artwork.sources import Pixels
from fitzle.core.geometry.rect import Point, Rect

Floats = NDArray[np.float64]

INPUT_PX = 256
LAYERS = ((16, 2), (32, 6))  # px between anchors, anchors at each place
LEAST_SCORE = 0.7  # facts/cutout.md: enough to crop by
SAME_FACE = 0.3  # intersection over union
MOST_FACES = 40
LOGIT_BOUND = 50.0
TILE_SHARE = 0.75  # of the next tile lies beyond this one
LARGE_FROM_PX = 700  # from there a picture is searched in tiles too, for faces too small for the whole


class FoundFace(NamedTuple):
    """A face: box, eyes (as seen: left one first), nose and mouth in px of the picture, and the score 0 to 1."""

    box: Rect
    left_eye: Point
    right_eye: Point
    nose: Point
    mouth: Point
    score: float

    @property
    def between_eyes_px(self) -> float:
        """The distance of the eyes."""
        return float(np.hypot(self.right_eye.x - self.left_eye.x, self.right_eye.y - self.left_eye.y))


def faces_in(pixels: Pixels, least_score: float = LEAST_SCORE) -> list[FoundFace]:
    """Faces of a picture (h, w, 3 or 4), the largest first; transparent px count as what colour they have."""
    colour = np.ascontiguousarray(pixels[..., :3])
    height, width = colour.shape[:2]
    found = _in_window(colour, Rect(0, 0, width, height), least_score)
    if max(height, width) >= LARGE_FROM_PX:
        for window in _tiles(width, height):
            found += _in_window(colour, window, least_score)
    return sorted(_distinct(found)[:MOST_FACES], key=lambda face: -face.box.width * face.box.height)


def _tiles(width: int, height: int) -> list[Rect]:
    """Square tiles of half the long side that overlap."""
    side = max(width, height) / 2
    across, down = (_starts(length, min(side, length)) for length in (width, height))
    return [Rect(x, y, min(side, width), min(side, height)) for y in down for x in across]


def _starts(length: float, side: float) -> list[float]:
    count = max(1, int(np.ceil((length - side) / (side * TILE_SHARE))) + 1)
    return [0.0] if count == 1 else list(np.linspace(0, length - side, count))


def _in_window(colour: NDArray[np.uint8], window: Rect, least_score: float) -> list[FoundFace]:
    """Faces in a part of the picture, which is set into a square for the model."""
    x, y = int(window.x), int(window.y)
    part = colour[y : int(window.bottom), x : int(window.right)]
    height, width = part.shape[:2]
    scale = INPUT_PX / max(height, width)
    size = (max(1, round(width * scale)), max(1, round(height * scale)))
    square = np.zeros((INPUT_PX, INPUT_PX, 3), np.uint8)
    left, top = (INPUT_PX - size[0]) // 2, (INPUT_PX - size[1]) // 2
    square[top : top + size[1], left : left + size[0]] = cv2.resize(part, size, interpolation=cv2.INTER_AREA)
    regressed, logits = run_model("face_detection_back", square.astype(np.float32) / 127.5 - 1)
    scores = 1 / (1 + np.exp(-np.clip(logits[:, 0].astype(float), -LOGIT_BOUND, LOGIT_BOUND)))
    kept = np.flatnonzero(scores >= least_score)
    places = regressed[kept].astype(float).reshape(len(kept), 8, 2) / INPUT_PX
    places[:, [0, 2, 3, 4, 5, 6, 7]] += _ANCHORS[kept][:, None]
    offset, factor = np.array([left, top]), 1 / scale
    return [
        _face((place * INPUT_PX - offset) * factor + [x, y], place[1] * INPUT_PX * factor, float(score))
        for place, score in zip(places, scores[kept], strict=True)
    ]


def _face(points: Floats, size: Floats, score: float) -> FoundFace:
    """Row 0 is the middle of the box; then the person's right eye (seen left), left eye, nose, mouth, ears."""
    middle = points[0]
    box = Rect(float(middle[0] - size[0] / 2), float(middle[1] - size[1] / 2), float(size[0]), float(size[1]))
    eyes = sorted((Point(*map(float, points[2])), Point(*map(float, points[3]))))
    return FoundFace(box, eyes[0], eyes[1], Point(*map(float, points[4])), Point(*map(float, points[5])), score)


def _anchors() -> Floats:
    """The middles of all anchors in fractions of the input, (896, 2)."""
    rows = []
    for step, count in LAYERS:
        places = (np.arange(INPUT_PX // step) + 0.5) * step / INPUT_PX
        grid = np.stack(np.meshgrid(places, places), axis=-1).reshape(-1, 2)
        rows.append(np.repeat(grid, count, axis=0))
    return np.concatenate(rows)


_ANCHORS = _anchors()


def _distinct(faces: list[FoundFace]) -> list[FoundFace]:
    """Each face once, by its best score."""
    kept: list[FoundFace] = []
    for face in sorted(faces, key=lambda one: -one.score):
        if all(_overlap(face.box, other.box) < SAME_FACE for other in kept):
            kept.append(face)
    return kept


def _overlap(one: Rect, other: Rect) -> float:
    """Intersection over the smaller of both: a tile may have cut a face in two."""
    across = min(one.right, other.right) - max(one.x, other.x)
    down = min(one.bottom, other.bottom) - max(one.y, other.y)
    least = min(one.width * one.height, other.width * other.height)
    return max(0.0, across) * max(0.0, down) / max(least, 1e-9)
