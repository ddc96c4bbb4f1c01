"""Faces alike in all rows: one height in the frame and one line of the eyes, as if a series were made of one piece."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from statistics import median
from typing import NamedTuple

from fitzle.core.artwork.facts import ArtworkFacts, Face
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect

EYES = 0.42  # of a face's height from its top, where the detector puts its box (measured on drawn and made faces)
USUAL_EYE_LINE = 0.4  # of the frame from its top
LARGEST_SHARE = 0.7  # of the frame's height: a face that is larger is all that one sees
MOST_ZOOM = 20.0
ROOM = (1.0, 1.08, 1.16, 1.25, 1.35, 1.5)  # times the least height
ALIKE = 0.012  # of the frame: nobody sees that a face stands elsewhere
WORTH_IT = 0.01  # of the frame: a larger face for less than that is no gain


class Alignment(NamedTuple):
    """What all rows have in common: the height of a face in parts of the frame's, and how far down its eyes are."""

    share: float
    eye_line: float


class Aligned(NamedTuple):
    """The focal point (fractions of the picture) and zoom of one picture; `off` is by how much it misses, in parts of
    the frame: its edges end where the window would have to go.
    """

    focal_point: Point
    zoom: float
    off: float


def largest_face(facts: ArtworkFacts) -> Face | None:
    """Whose picture it is; None without a face."""
    return max(facts.faces, key=lambda face: face.width * face.height, default=None)


def alignment_of(pictures: Sequence[ArtworkFacts], ratio: float) -> Alignment | None:
    """What pictures can have in common in a frame of a ratio; None where none of them has a face.

    A face can only be made larger than it is in the widest window, so the one that is largest there sets the least
    height for all. A little more of it gives windows room to move: as much as it takes for all faces to come to stand
    in the middle with their eyes on the line, or what comes nearest to that.
    """
    faces = [facts for facts in pictures if facts.faces]
    if not faces:
        return None
    least = max(face.height / _widest(facts, ratio).height for facts in faces if (face := largest_face(facts)))
    best: tuple[float, Alignment] | None = None
    for room in ROOM:
        to = _with_share(faces, min(least * room, LARGEST_SHARE), ratio)
        off = max(one.off for facts in faces if (one := aligned(facts, ratio, to)))
        if best is None or off < best[0] - WORTH_IT:
            best = (off, to)
        if off <= ALIKE:
            break
    assert best
    return best[1]


def _with_share(faces: Sequence[ArtworkFacts], share: float, ratio: float) -> Alignment:
    lines = [_nearest_line(facts, face, share, ratio) for facts in faces if (face := largest_face(facts))]
    return Alignment(share, median(lines))


def aligned(facts: ArtworkFacts, ratio: float, to: Alignment) -> Aligned | None:
    """Where a picture has to stand in a frame of a ratio; None without a face."""
    face = largest_face(facts)
    if face is None:
        return None
    whole = _whole(facts)
    zoom = min(max(to.share * _widest(facts, ratio).height / face.height, 1.0), MOST_ZOOM)
    height = _widest(facts, ratio).height / zoom
    wanted = Point(face.x + face.width / 2, _eyes(face) + (0.5 - to.eye_line) * height)
    focal = Point(_share(wanted.x - whole.x, whole.width), _share(wanted.y - whole.y, whole.height))
    window = fill_window(whole, ratio, focal, zoom)
    off = max(
        abs((face.x + face.width / 2 - window.x) / window.width - 0.5),
        abs((_eyes(face) - window.y) / window.height - to.eye_line),
        abs(face.height / window.height - to.share),
    )
    return Aligned(focal, zoom, off)


def aligned_all(pictures: Mapping[str, ArtworkFacts], ratio: float) -> tuple[Alignment | None, dict[str, Aligned]]:
    """All pictures of a run by what names them, in frames of one ratio; those without a face are left out."""
    to = alignment_of(list(pictures.values()), ratio)
    if to is None:
        return None, {}
    found = {name: one for name, facts in pictures.items() if (one := aligned(facts, ratio, to))}
    return to, found


def _nearest_line(facts: ArtworkFacts, face: Face, share: float, ratio: float) -> float:
    """The line of the eyes nearest to the usual one that the edges of a picture allow."""
    whole, height = _whole(facts), min(face.height / share, _widest(facts, ratio).height)
    least = max(0.0, (_eyes(face) - (whole.bottom - height)) / height)
    most = min(1.0, (_eyes(face) - whole.y) / height)
    return min(max(USUAL_EYE_LINE, least), max(least, most))


def _eyes(face: Face) -> float:
    return face.y + EYES * face.height


def _whole(facts: ArtworkFacts) -> Rect:
    return Rect(0, 0, facts.width, facts.height)


def _widest(facts: ArtworkFacts, ratio: float) -> Rect:
    return fill_window(_whole(facts), ratio, Point(0.5, 0.5))


def _share(distance: float, length: float) -> float:
    return min(max(distance / length, 0.0), 1.0)
