"""A focus that moves with its subject: where faces are in each moment of a loop, or where what lay under it went.

A subject is followed by the middle displacement of points on it (Kalal, Mikolajczyk and Matas 2010, "Forward-Backward
Error: Automatic Detection of Tracking Failures", pyramids of Lucas and Kanade), and found again by its first look.
"""

from __future__ import annotations

import hashlib
from functools import partial
from typing import NamedTuple

import cv2
import numpy as np
from numpy.typing import NDArray

from fitzle.core.artwork.faces.detecting import faces_in
from fitzle.core.artwork.sources import Pixels
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.kept import Kept
from fitzle.core.motion.footage import Footage
from fitzle.core.motion.looking import resized
from fitzle.core.piece.parts import Follow
from fitzle.core.units import Size

LOOKED_AT_FPS, LOOKED_AT_PX, FACES_PX = 12.5, 480, 640
SUBJECT_SHARE = 0.16  # of the short side: the box around the focus that is followed
POINTS_A_SIDE, FEWEST_POINTS = 9, 8
MOST_ASTRAY_PX = 1.5  # between a point and where it comes back to
AS_BEFORE, SURELY = 0.72, 0.8  # correlation with the first look: near by, and anywhere in the picture
SEARCHED = 1.5  # times the box, on each side of where it should be
SAME_FACES = 0.25  # of the largest face's area: smaller ones lie behind
STEADY_S = 0.3  # standard deviation of the calm hand that holds the window
JUMP = 0.08  # of the picture: a loop whose subject is so far off at its seam cuts there, and so does the window

MOST_KEPT = 64  # paths, of some kB each: a bench asks for many moments of one loop

Points = NDArray[np.float64]


class FocusPath(NamedTuple):
    """Where the focus is: (n, 2) points in fractions of the picture, evenly over `period` seconds of the footage.

    `closed` where the last one leads to the first.
    """

    points: Points
    period: float
    closed: bool

    def at(self, seconds: float) -> Point:
        """The focus of a moment."""
        count = len(self.points)
        place = (seconds % self.period) / self.period * count
        one, share = int(place) % count, place % 1
        other = (one + 1) % count if self.closed else min(one + 1, count - 1)
        x, y = self.points[one] * (1 - share) + self.points[other] * share
        return Point(float(x), float(y))


_KEPT: Kept[FocusPath | None] = Kept(MOST_KEPT)


def window_at(window: Rect, whole: Rect, focus: Point) -> Rect:
    """A window of a picture moved so that its middle is as near to the focus as the picture allows."""
    zoom = fill_window(whole, window.ratio, focus).width / window.width
    return fill_window(whole, window.ratio, focus, zoom)


def path_of(footage: Footage, follow: Follow, focus: Point, data: bytes = b"") -> FocusPath | None:
    """The way of a focus that follows something; None where it stays. It is kept by the `data` that plays."""
    if follow == "nothing":
        return None
    make = partial(faces_path, footage) if follow == "faces" else partial(subject_path, footage, focus)
    if not data:
        return make()
    return _KEPT.of((hashlib.sha256(data).hexdigest(), follow, focus, footage.period), make)


def faces_path(footage: Footage) -> FocusPath | None:
    """Where the faces of a loop are, in the middle of all that are about as large as the largest; None without any."""
    frames = _frames(footage, FACES_PX)
    found = [_faces_middle(frame) for frame in frames]
    known = [at for at, point in enumerate(found) if point]
    if not known:
        return None
    places = np.arange(len(found))
    columns = [np.interp(places, known, [found[at][axis] for at in known]) for axis in (0, 1)]  # type: ignore[index]
    return _steady(np.stack(columns, axis=1), footage.period)


def subject_path(footage: Footage, focus: Point) -> FocusPath:
    """Where what lies under the focus, as the loop begins, goes."""
    frames = [cv2.cvtColor(frame[..., :3], cv2.COLOR_RGB2GRAY) for frame in _frames(footage, LOOKED_AT_PX)]
    height, width = frames[0].shape
    begin = round(footage.begin / footage.period * len(frames)) % len(frames)
    order = [*range(begin, len(frames)), *range(begin)]
    followed = _Followed(frames[begin], Point(focus.x * width, focus.y * height))
    points = np.empty((len(frames), 2))
    for before, after in zip([begin, *order], order, strict=False):
        centre = followed.to(frames[before], frames[after]) if before != after else followed.centre
        points[after] = centre.x / width, centre.y / height
    return _steady(np.clip(points, 0, 1), footage.period)


class _Followed:
    """The box around a subject, from frame to frame; where it is lost it stays where it was until it is seen again."""

    def __init__(self, grey: NDArray[np.uint8], centre: Point) -> None:
        height, width = grey.shape
        self._side = max(8.0, SUBJECT_SHARE * min(width, height))
        self.centre, self._speed = centre, (0.0, 0.0)
        self._looks = [_cut(grey, self._box(centre))] * 2  # at first, and when it was last seen well

    def to(self, before: NDArray[np.uint8], after: NDArray[np.uint8]) -> Point:
        """Where it is in the next frame."""
        expected = Point(self.centre.x + self._speed[0], self.centre.y + self._speed[1])
        found = self._seen(after, self._box(expected, 1 + 2 * SEARCHED), AS_BEFORE)
        if found is None and (moved := self._moved(before, after)):
            found = Point(self.centre.x + moved[0], self.centre.y + moved[1])
        if found is None:
            height, width = after.shape
            found = self._seen(after, Rect(0, 0, width, height), SURELY)
        self._speed = (found.x - self.centre.x, found.y - self.centre.y) if found else (0.0, 0.0)
        self.centre = found or self.centre
        return self.centre

    def _moved(self, before: NDArray[np.uint8], after: NDArray[np.uint8]) -> tuple[float, float] | None:
        box = self._box(self.centre, 0.8)
        across, down = (np.linspace(0, 1, POINTS_A_SIDE) for _ in range(2))
        grid = np.stack(np.meshgrid(box.x + across * box.width, box.y + down * box.height), axis=-1)
        points = grid.reshape(-1, 1, 2).astype(np.float32)
        there, seen, _ = cv2.calcOpticalFlowPyrLK(before, after, points, None)
        back, again, _ = cv2.calcOpticalFlowPyrLK(after, before, there, None)
        astray = np.linalg.norm(back - points, axis=2)[:, 0]
        good = (seen[:, 0] > 0) & (again[:, 0] > 0) & (astray < MOST_ASTRAY_PX)
        if good.sum() < FEWEST_POINTS:
            return None
        x, y = np.median((there - points)[good][:, 0], axis=0)
        return float(x), float(y)

    def _seen(self, grey: NDArray[np.uint8], area: Rect, least: float) -> Point | None:
        """Where it looks as it did, inside of an area; None where nothing does, or where it has no look."""
        around, high, wide = _cut(grey, area), *self._looks[0].shape
        if around.shape[0] < high or around.shape[1] < wide or self._looks[0].std() < 1:
            return None
        likeness = np.maximum(*(cv2.matchTemplate(around, look, cv2.TM_CCOEFF_NORMED) for look in self._looks))
        _, best, _, (x, y) = cv2.minMaxLoc(likeness)
        if best < least:
            return None
        left, top = max(0, round(area.x)) + x, max(0, round(area.y)) + y
        if best >= SURELY:
            self._looks[1] = np.ascontiguousarray(grey[top : top + high, left : left + wide])
        return Point(left + wide / 2, top + high / 2)

    def _box(self, centre: Point, times: float = 1.0) -> Rect:
        side = self._side * times
        return Rect(centre.x - side / 2, centre.y - side / 2, side, side)


def _cut(grey: NDArray[np.uint8], box: Rect) -> NDArray[np.uint8]:
    left, top = max(0, round(box.x)), max(0, round(box.y))
    return np.ascontiguousarray(grey[top : max(top + 1, round(box.bottom)), left : max(left + 1, round(box.right))])


def _frames(footage: Footage, long_side: int) -> list[Pixels]:
    count = max(2, round(footage.period * min(LOOKED_AT_FPS, footage.fps)))
    factor = min(1.0, long_side / max(footage.natural))
    size = Size(*(max(16, round(side * factor)) for side in footage.natural))
    return [resized(footage.at(footage.period * number / count).kept, size) for number in range(count)]


def _faces_middle(frame: Pixels) -> tuple[float, float] | None:
    faces = [face.box for face in faces_in(frame)]
    near = [box for box in faces if box.width * box.height >= SAME_FACES * faces[0].width * faces[0].height]
    if not near:
        return None
    height, width = frame.shape[:2]
    weights = [box.width * box.height for box in near]
    x, y = (np.average([box.centre[axis] for box in near], weights=weights) for axis in (0, 1))
    return float(x / width), float(y / height)


def _steady(points: Points, period: float) -> FocusPath:
    """The path as a calm hand follows it."""
    from scipy.ndimage import gaussian_filter1d

    closed = bool(np.abs(points[-1] - points[0]).max() < JUMP)
    sigma = STEADY_S / period * len(points)
    mode = "wrap" if closed else "nearest"
    return FocusPath(np.asarray(gaussian_filter1d(points, sigma, axis=0, mode=mode)), period, closed)
