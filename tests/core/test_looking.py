"""Looks at a clip: where they are taken, what is remembered of each, and the frame itself made small."""

import io
from collections.abc import Callable

import cv2
import numpy as np
import pytest

from fitzle.core.artwork.clips import looking
from fitzle.core.artwork.clips.frames import frame_at, still_of
from fitzle.core.artwork.clips.looking import LOOKS_A_SECOND, SMALL_PX, Look, looks_at
from fitzle.core.artwork.clips.opening import opened_clip
from tests.clips import clip, number_in, turned
from tests.core.test_still_proposals import RATE, SCENES, SIZE, written
from tests.make import photo

UNEVEN = [0, 40, 52, 200, 201, 400, 900, 1000, 1033, 1900]
LARGE = (1280, 720)


def looks(data: bytes, seconds: float) -> list[Look]:
    with opened_clip(io.BytesIO(data)) as open_clip:
        return list(looks_at(open_clip, seconds))


def of_pictures(*pictures: np.ndarray) -> list[Look]:
    """The looks at a clip that shows each picture for half a second."""

    def draw(at: float) -> np.ndarray:
        return pictures[min(int(at / 0.5), len(pictures) - 1)]

    height, width = pictures[0].shape[:2]
    return looks(written(0.5 * len(pictures), draw, (width, height)), 0.5 * len(pictures))


def test_a_short_clip_is_looked_at_evenly_and_in_order() -> None:
    moments = [look.seconds for look in looks(clip(), 2.0)]
    assert moments[0] == 0
    apart = np.diff(moments)
    assert (apart >= 1 / LOOKS_A_SECOND - 1e-6).all()
    assert (apart <= 1 / LOOKS_A_SECOND + 1 / RATE + 1e-6).all()


def test_moments_are_those_of_real_frames_at_any_rate() -> None:
    stamps = {stamp / 1000 for stamp in UNEVEN}
    moments = [look.seconds for look in looks(clip(stamps_ms=UNEVEN), 2.0)]
    assert moments == sorted(set(moments))
    assert all(min(abs(moment - stamp) for stamp in stamps) < 1e-3 for moment in moments)
    assert moments[0] == 0 and moments[-1] == pytest.approx(1.9, abs=1e-3)


def test_of_a_long_clip_windows_are_looked_into(monkeypatch: pytest.MonkeyPatch) -> None:
    """Two seconds taken for long: four windows of three frames, each from a key frame on."""
    monkeypatch.setattr(looking, "READ_THROUGH_SECONDS", 1.0)
    monkeypatch.setattr(looking, "WINDOWS", 4)
    monkeypatch.setattr(looking, "WINDOW_FRAMES", 3)
    moments = [look.seconds for look in looks(clip(key_every=5), 2.0)]
    assert moments == sorted(set(moments))
    assert len(moments) == 12
    assert moments[::3] == pytest.approx([0.25, 0.75, 1.25, 1.75], abs=0.2)


def test_windows_that_meet_show_no_frame_twice(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(looking, "READ_THROUGH_SECONDS", 1.0)
    moments = [look.seconds for look in looks(clip(), 2.0)]
    assert moments == sorted(set(moments))
    assert len(moments) <= 50


def test_the_frame_is_kept_small_in_its_shape() -> None:
    picture = np.asarray(photo(*LARGE))
    look = of_pictures(picture)[0]
    pixels = look.pixels()
    assert pixels.shape == (360, SMALL_PX, 3)
    wanted = cv2.resize(picture, (SMALL_PX, 360), interpolation=cv2.INTER_AREA)
    assert np.abs(pixels.astype(int) - wanted).mean() < 6, "H.264 and JPEG cost a little, another frame far more"
    assert len(look.kept) < pixels.nbytes / 5


def test_a_small_clip_is_not_enlarged() -> None:
    assert of_pictures(SCENES[0])[0].pixels().shape == (SIZE[1], SIZE[0], 3)


@pytest.mark.parametrize("turns", [1, 2, 3])
def test_what_is_kept_is_upright(turns: int) -> None:
    data = turned(clip(), turns)
    with opened_clip(io.BytesIO(data)) as open_clip:
        look = list(looks_at(open_clip, 2.0))[3]
        seen = still_of(open_clip, frame_at(open_clip, look.seconds)).pixels
    pixels = look.pixels()
    assert pixels.shape[:2] == seen.shape[:2]
    assert number_in(np.rot90(pixels, turns)) == number_in(np.rot90(seen, turns))


@pytest.mark.parametrize(
    ("change", "figure"),
    [
        (lambda picture: cv2.blur(picture, (9, 9)), "sharpness"),
        (lambda picture: (picture * 0.5).astype(np.uint8), "light"),
        (lambda picture: (picture * 0.4 + 76).astype(np.uint8), "spread"),
    ],
)
def test_each_figure_falls_with_what_it_stands_for(change: Callable[[np.ndarray], np.ndarray], figure: str) -> None:
    plain, changed = of_pictures(SCENES[1])[0], of_pictures(np.ascontiguousarray(change(SCENES[1])))[0]
    assert getattr(changed, figure) < 0.7 * getattr(plain, figure)


def test_figures_are_within_their_ranges_and_those_of_numpy() -> None:
    """The variance of the Laplacian by NumPy, from what is kept: JPEG changes it by a few per cent."""
    for look in of_pictures(SCENES[2], SCENES[3]):
        grey = cv2.cvtColor(look.pixels(), cv2.COLOR_RGB2GRAY)
        edges = cv2.Laplacian(cv2.GaussianBlur(grey, (3, 3), 0), cv2.CV_64F)
        assert look.sharpness == pytest.approx(float(edges.var()), rel=0.1)
        assert look.light == pytest.approx(float(grey.mean()) / 255, abs=0.01)
        assert look.spread == pytest.approx(float(grey.std()) / 255, abs=0.01)
        assert look.sign.shape == (9, 16, 3)
        assert look.sign.min() >= 0 and look.sign.max() <= 1


def test_signs_tell_scenes_apart_and_the_same_scene_not() -> None:
    first, *_, last = of_pictures(SCENES[0], SCENES[4])
    again = of_pictures(SCENES[0])[-1]
    assert np.abs(first.sign - again.sign).mean() < 0.01
    assert np.abs(first.sign - last.sign).mean() > 0.05
