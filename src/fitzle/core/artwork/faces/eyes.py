"""Eyes: whether they are open, where the iris is, which ones are red.

Contours and iris come from the iris model of the MediaPipe project (Ablavatski et al. 2020, "Real-time pupil tracking
from monocular video"); openness is the eye aspect ratio of Soukupová and Čech 2016, equation 1: the height of an eye
against its width.
"""

from __future__ import annotations

from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.faces.detecting import FoundFace, faces_in
from fitzle.core.artwork.models import run_model
from fitzle.core.artwork.sources import Pixels
from fitzle.core.geometry.rect import Point

INPUT_PX = 64
AROUND = 0.9  # of the distance between the eyes: the side of the square that the model looks at
CONTOUR = 71
CORNERS, LIDS = (0, 8), ((3, 11), (4, 12), (5, 13))
OPEN_FROM = 0.24  # measured on drawn faces: closed 0.08-0.15, open 0.39-0.41
LEAST_BETWEEN_PX = 16  # of distance between the eyes; smaller faces tell nothing
RED_SHARE = 0.25  # of the iris; a red pupil fills that much
REDNESS, LEAST_RED = 1.5, 70
PUPIL_REACH = 1.25  # times the iris, for the circle of a repair


class FoundEye(NamedTuple):
    """An eye in px of the picture: the iris's middle and radius, and how far it is open (height against width)."""

    iris: Point
    radius: float
    openness: float


def eyes_of(pixels: Pixels, face: FoundFace) -> list[FoundEye]:
    """Both eyes of a face, the one seen left first; nothing for a face too small to tell."""
    if face.between_eyes_px < LEAST_BETWEEN_PX:
        return []
    side = AROUND * face.between_eyes_px
    return [_eye(pixels, face.left_eye, side, mirrored=False), _eye(pixels, face.right_eye, side, mirrored=True)]


def has_open_eyes(pixels: Pixels, face: FoundFace) -> bool | None:
    """Whether both eyes are open; None where nothing can be told."""
    eyes = eyes_of(pixels, face)
    return min(eye.openness for eye in eyes) >= OPEN_FROM if eyes else None


def red_eyes(pixels: Pixels) -> list[tuple[Point, float]]:
    """The red ones among all eyes of a picture, each as the middle and radius, in px, of a circle to repair."""
    eyes = [eye for face in faces_in(pixels) for eye in eyes_of(pixels, face)]
    return [(eye.iris, eye.radius * PUPIL_REACH) for eye in eyes if _is_red(pixels, eye)]


def _eye(pixels: Pixels, middle: Point, side: float, *, mirrored: bool) -> FoundEye:
    """The model knows left eyes; a right one is shown to it in the mirror."""
    scale = INPUT_PX / side
    matrix = np.array([[scale, 0, INPUT_PX / 2 - scale * middle.x], [0, scale, INPUT_PX / 2 - scale * middle.y]])
    colour = np.ascontiguousarray(pixels[..., :3])
    square = cv2.warpAffine(colour, matrix, (INPUT_PX, INPUT_PX), flags=cv2.INTER_AREA)
    shown = np.ascontiguousarray(square[:, ::-1]) if mirrored else square
    outputs = run_model("iris_landmark", shown.astype(np.float32) / np.float32(255))
    outputs.sort(key=lambda found: found.size)
    iris, contour = (found.reshape(-1, 3)[:, :2].astype(np.float64) for found in outputs)
    at = iris[0]
    radius = float(np.hypot(*(iris[1:] - at).T).mean())
    x = INPUT_PX - at[0] if mirrored else at[0]
    place = Point(middle.x + (x - INPUT_PX / 2) / scale, middle.y + (at[1] - INPUT_PX / 2) / scale)
    return FoundEye(place, radius / scale, _openness(contour))


def _openness(contour: NDArray[np.float64]) -> float:
    width = float(np.hypot(*(contour[CORNERS[0]] - contour[CORNERS[1]])))
    heights = [float(np.hypot(*(contour[upper] - contour[lower]))) for upper, lower in LIDS]
    return float(np.mean(heights)) / max(width, 1e-6)


def _is_red(pixels: Pixels, eye: FoundEye) -> bool:
    height, width = pixels.shape[:2]
    left, right = max(0, int(eye.iris.x - eye.radius)), min(width, int(eye.iris.x + eye.radius) + 1)
    top, bottom = max(0, int(eye.iris.y - eye.radius)), min(height, int(eye.iris.y + eye.radius) + 1)
    part = pixels[top:bottom, left:right, :3].astype(np.float32)
    if not part.size:
        return False
    red = (part[..., 0] > REDNESS * part[..., 1:].max(axis=-1)) & (part[..., 0] >= LEAST_RED)
    return bool(red.mean() >= RED_SHARE)
