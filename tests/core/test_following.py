"""A focus that moves with faces or with what lies under it: within a calm hand's reach of where that really is."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
import pytest
from demo.people import GUEST, Looks, person, room, together
from PIL import Image, ImageDraw

from fitzle.core.artwork.sources import Pixels
from fitzle.core.geometry.fitting import fill_window
from fitzle.core.geometry.rect import Point, Rect
from fitzle.core.motion.files import Playing, moving_file
from fitzle.core.motion.following import FocusPath, faces_path, path_of, subject_path, window_at
from fitzle.core.motion.footage import Cut, Footage, footage_of
from fitzle.core.motion.ladders import settings_at
from fitzle.core.motion.reel import Reel
from tests.make import photo

SIZE = (480, 270)
Way = Callable[[float], tuple[float, float]]  # share of the loop to a point in fractions


def there_and_back(share: float) -> tuple[float, float]:
    return 0.5 + 0.25 * math.sin(2 * math.pi * share), 0.5


def around(share: float) -> tuple[float, float]:
    return 0.5 + 0.2 * math.cos(2 * math.pi * share), 0.5 + 0.15 * math.sin(2 * math.pi * share)


def across(share: float) -> tuple[float, float]:
    return 0.2 + 0.6 * share, 0.45


def footage(frame: Callable[[float], Pixels], seconds: float = 2.0, fps: float = 12.5) -> Footage:
    count = round(seconds * fps)
    reel = Reel((frame(number / count) for number in range(count)), seconds)
    return footage_of(moving_file("webp", reel, settings_at("webp", 17, fps), Playing()), "loop.webp", Cut())


def badge_on(ground: Pixels, x: float, y: float, size: int = 40) -> Pixels:
    """A badge with a pattern of its own on a picture."""
    picture = Image.fromarray(ground.copy())
    draw, left, top = ImageDraw.Draw(picture), x * SIZE[0] - size / 2, y * SIZE[1] - size / 2
    draw.ellipse((left, top, left + size, top + size), fill="#f6b73c")
    draw.polygon([(left + size * a, top + size * b) for a, b in ((0.5, 0.1), (0.8, 0.85), (0.2, 0.6))], fill="#17443c")
    draw.rectangle((left + size * 0.55, top + size * 0.2, left + size * 0.8, top + size * 0.4), fill="#ffffff")
    return np.asarray(picture)


GROUND = np.asarray(photo(*SIZE).convert("RGBA"))


def off(path: FocusPath, way: Way, times: int = 40) -> float:
    """The farthest that a path is from the way, in shares of the picture."""
    found = (path.at(path.period * number / times) for number in range(times))
    return max(math.dist(one, way(number / times)) for number, one in enumerate(found))


@pytest.mark.parametrize("way", [there_and_back, around])
def test_a_subject_is_followed(way: Way) -> None:
    path = subject_path(footage(lambda share: badge_on(GROUND, *way(share))), Point(*way(0)))
    assert path.closed and off(path, way) < 0.11


def test_it_is_followed_from_the_moment_at_which_a_loop_begins_and_in_other_light() -> None:
    def frame(share: float) -> Pixels:
        light = 1 - 0.3 * math.sin(math.pi * share)
        shown = badge_on(GROUND, *around(share), size=34)
        return np.concatenate([(shown[..., :3] * light).astype(np.uint8), shown[..., 3:]], axis=2)

    assert off(subject_path(footage(frame, 3.0), Point(*around(0))), around) < 0.08


def test_what_was_hidden_for_a_moment_is_found_again() -> None:
    def frame(share: float) -> Pixels:
        shown = Image.fromarray(badge_on(GROUND, *around(share)))
        if 0.3 < share < 0.42:
            ImageDraw.Draw(shown).rectangle((100, 60, 330, 260), fill="#404a50")
        return np.asarray(shown)

    path = subject_path(footage(frame, 3.0), Point(*around(0)))
    assert all(math.dist(path.at(3.0 * share), around(share)) < 0.08 for share in (0.1, 0.2, 0.6, 0.7, 0.9))


def test_the_window_cuts_where_the_loop_does() -> None:
    """A subject that goes from one side to the other: at the seam the window is back where it was, without a swing."""
    path = subject_path(footage(lambda share: badge_on(GROUND, *across(share))), Point(*across(0)))
    assert not path.closed
    assert path.at(0.0).x < 0.32 and path.at(path.period - 1e-6).x > 0.65


@pytest.mark.parametrize(("looks", "scale"), [(Looks(), 0.8), (GUEST, 0.45)])
def test_faces_are_followed(looks: Looks, scale: float) -> None:
    def frame(share: float) -> Pixels:
        x, _ = there_and_back(share)
        return together(person(*SIZE, looks, x, scale), room(*SIZE))

    path = faces_path(footage(frame))
    assert path
    for share in (0.0, 0.25, 0.5, 0.75):
        assert path.at(path.period * share).x == pytest.approx(there_and_back(share)[0], abs=0.1)


def test_without_faces_the_focus_stays() -> None:
    assert faces_path(footage(lambda share: np.roll(room(*SIZE), round(99 * share), axis=1), 0.5)) is None
    assert path_of(footage(lambda _: GROUND, 0.5), "nothing", Point(0.5, 0.5)) is None


def test_a_window_follows_inside_of_the_picture_and_keeps_its_size() -> None:
    whole = Rect(0, 0, 480, 270)
    window = fill_window(whole, 1.0, Point(0.5, 0.5), 1.3)
    for x in np.linspace(-0.2, 1.2, 15):
        moved = window_at(window, whole, Point(float(x), 0.4))
        assert (moved.width, moved.height) == pytest.approx((window.width, window.height))
        assert moved.x >= -1e-9 and moved.right <= 480 + 1e-9
    assert window_at(window, whole, Point(0.5, 0.5)).centre == pytest.approx(window.centre)


def test_the_same_loop_is_followed_once() -> None:
    shown, data = footage(lambda share: badge_on(GROUND, *around(share)), 1.0), b"the bytes that play"
    first = path_of(shown, "subject", Point(*around(0)), data)
    assert path_of(shown, "subject", Point(*around(0)), data) is first
    assert path_of(shown, "subject", Point(0.1, 0.1), data) is not first
