"""Faces alike in all rows: of one height, with their eyes on one line, as far as the pictures' edges allow."""

import random

import pytest

from fitzle.core.artwork.facts import ArtworkFacts, Face
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.runs.aligning import EYES, LARGEST_SHARE, aligned, aligned_all, alignment_of
from tests.core.arranging_set import facts

PORTRAIT = facts()["guest"]


def guest(width: float, height: float, x: float, y: float, size: float) -> ArtworkFacts:
    """A picture with a face of so many px, its middle at (x, y) in fractions."""
    face = Face(x=x * width - size / 2, y=y * height - size / 2, width=size, height=size, score=0.9)
    return PORTRAIT.model_copy(update={"width": width, "height": height, "faces": (face,)})


def seen(own: ArtworkFacts, ratio: float, focal: Point, zoom: float) -> tuple[float, float, float]:
    """Height of the face, its middle across and its eyes down, in parts of the frame."""
    [face] = own.faces
    window = fill_window(Rect(0, 0, own.width, own.height), ratio, focal, zoom)
    across = (face.x + face.width / 2 - window.x) / window.width
    return face.height / window.height, across, (face.y + EYES * face.height - window.y) / window.height


@pytest.mark.parametrize("ratio", [1.0, 0.8, 1.5])
def test_faces_of_different_framing_come_out_alike(ratio: float) -> None:
    rng = random.Random(7)
    pictures = {
        f"{number}": guest(
            rng.choice([1600, 2400]), rng.choice([1200, 1600]), rng.uniform(0.4, 0.6), rng.uniform(0.4, 0.55),
            rng.uniform(240, 420),
        )
        for number in range(20)
    }  # fmt: skip
    to, found = aligned_all(pictures, ratio)
    assert to and len(found) == 20
    told = [seen(pictures[name], ratio, one.focal_point, one.zoom) for name, one in found.items()]
    heights, middles, eyes = zip(*told, strict=True)
    assert max(heights) - min(heights) < 0.01, "of one height"
    assert max(abs(middle - 0.5) for middle in middles) < 0.02, "in the middle"
    assert max(abs(line - to.eye_line) for line in eyes) < 0.03, "their eyes on one line"


def test_what_a_picture_cannot_do_is_told() -> None:
    alike = [guest(1600, 1200, 0.5, 0.45, 300) for _ in range(4)]
    cornered = guest(1600, 1200, 0.08, 0.1, 300)
    to = alignment_of([*alike, cornered], 1.0)
    assert to
    fine, off = aligned(alike[0], 1.0, to), aligned(cornered, 1.0, to)
    assert fine and off and fine.off < 0.02 < off.off


def test_the_face_that_is_largest_sets_the_height_up_to_a_limit() -> None:
    to = alignment_of([guest(1600, 1200, 0.5, 0.5, 200), guest(1600, 1200, 0.5, 0.5, 600)], 1.0)
    assert to and 0.5 <= to.share <= 0.55
    huge = alignment_of([guest(1600, 1200, 0.5, 0.5, 1150)], 1.0)
    assert huge and huge.share == LARGEST_SHARE


def test_pictures_without_a_face_are_left_as_they_are() -> None:
    bare = PORTRAIT.model_copy(update={"faces": ()})
    assert alignment_of([bare], 1.0) is None and aligned_all({"a": bare}, 1.0) == (None, {})
    to, found = aligned_all({"a": bare, "b": guest(800, 800, 0.5, 0.5, 200)}, 1.0)
    assert to and list(found) == ["b"]
