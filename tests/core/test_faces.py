"""Faces and eyes, on people who do not exist."""

import numpy as np
import pytest
from demo.people import GUEST, Looks, person, room, together

from fitzle.core.artwork.faces.detecting import faces_in
from fitzle.core.artwork.faces.eyes import OPEN_FROM, eyes_of, has_open_eyes, red_eyes
from fitzle.core.artwork.sources import Pixels
from tests.make import photo


def shot(looks: Looks | None = None, scale: float = 1.0, x: float = 0.5, size: tuple[int, int] = (960, 720)) -> Pixels:
    return together(person(*size, looks, x, scale), room(*size))


@pytest.mark.parametrize("scale", [0.3, 0.5, 1.0, 1.5])
@pytest.mark.parametrize("looks", [Looks(), GUEST])
def test_a_face_is_found_where_it_is(scale: float, looks: Looks) -> None:
    """The box holds both eyes, and its middle lies between the eyes and the mouth."""
    [face] = faces_in(shot(looks, scale))
    head = 720 * 0.2 * scale
    assert face.left_eye.x == pytest.approx(480 - 0.32 * head, abs=0.12 * head)
    assert face.right_eye.x == pytest.approx(480 + 0.32 * head, abs=0.12 * head)
    assert face.left_eye.y == pytest.approx(720 * 0.42, abs=0.15 * head)
    assert 1.0 * head < face.box.width < 2.4 * head
    assert face.mouth.y > face.nose.y > face.left_eye.y


def test_two_faces_are_two_and_the_larger_comes_first() -> None:
    behind = together(person(1280, 720, GUEST, 0.75, 0.55), room(1280, 720))
    both = together(person(1280, 720, Looks(), 0.28, 0.9), behind)
    faces = faces_in(both)
    assert len(faces) == 2
    assert faces[0].box.x < 640 < faces[1].box.x


def test_a_small_face_in_a_large_picture_is_found_by_looking_closer() -> None:
    [face] = faces_in(shot(Looks(), 0.16, 0.8, (1600, 1000)))
    assert face.box.centre.x == pytest.approx(1280, abs=20)


@pytest.mark.parametrize("picture", [room(960, 720), np.asarray(photo(800, 600).convert("RGBA"))])
def test_no_face_is_seen_where_there_is_none(picture: Pixels) -> None:
    assert faces_in(picture) == []


@pytest.mark.parametrize("scale", [0.4, 1.0, 1.4])
@pytest.mark.parametrize("opened", [True, False])
def test_open_eyes_are_told_from_closed_ones(scale: float, opened: bool) -> None:
    picture = shot(Looks(eyes_open=opened), scale)
    [face] = faces_in(picture)
    assert has_open_eyes(picture, face) is opened
    assert all((eye.openness >= OPEN_FROM) is opened for eye in eyes_of(picture, face))


def test_a_face_too_small_to_tell_tells_nothing() -> None:
    picture = shot(Looks(), 1.0)
    [face] = faces_in(picture)
    tiny = face._replace(right_eye=face.left_eye._replace(x=face.left_eye.x + 4))
    assert has_open_eyes(picture, tiny) is None


def test_red_pupils_are_found_and_dark_ones_are_not() -> None:
    head = 720 * 0.2
    found = red_eyes(shot(Looks(pupil=0xFFC81E28, iris=0xFF7A2A24)))
    assert [round(eye.x) for eye, _ in found] == pytest.approx([480 - 0.32 * head, 480 + 0.32 * head], abs=8)
    assert all(0.04 * head < radius < 0.25 * head for _, radius in found)
    assert red_eyes(shot()) == []
