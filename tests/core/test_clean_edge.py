"""The fringe of an earlier background, taken off the edge of cut-out artwork."""

from __future__ import annotations

import io

import cv2
import numpy as np
import pytest
from PIL import Image

from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.clean_edge import with_clean_edge
from fitzle.core.colour.srgb import Rgb
from fitzle.core.errors import ArtworkError
from fitzle.core.eye.halo import bad_rim
from tests.core.judged import drawings

DARK, LIGHT = Rgb(23, 24, 26), Rgb(255, 255, 255)


def _opened(data: bytes) -> Pixels:
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA"))


def _disc(colour: Rgb, around: Rgb, *, opaque: bool, size: int = 320) -> Pixels:
    """A disc cut from a ground by a threshold: its edge px keep that ground in them, half clear or opaque."""
    y, x = np.mgrid[:size, :size] + 0.5
    own = np.clip(size * 0.4 - np.hypot(x - size / 2, y - size / 2) + 0.5, 0, 1)
    own = cv2.GaussianBlur(own, (0, 0), 0.8)
    colours = own[..., None] * colour + (1 - own[..., None]) * np.array(around)
    alpha = (own > 0.02) * 255 if opaque else own**0.1 * 255
    return np.dstack([np.rint(colours), np.rint(alpha)]).astype(np.uint8)


@pytest.mark.parametrize("opaque", [True, False])
@pytest.mark.parametrize(
    ("colour", "around", "page"),
    [
        (Rgb(180, 84, 26), LIGHT, DARK),
        (Rgb(244, 208, 111), Rgb(0, 0, 0), LIGHT),
        (Rgb(27, 73, 120), Rgb(0, 255, 0), DARK),
    ],
)
def test_a_fringe_goes_and_the_subject_keeps_its_colour(colour: Rgb, around: Rgb, page: Rgb, opaque: bool) -> None:
    fringed = _disc(colour, around, opaque=opaque)
    assert bad_rim(fringed, page) > 0.1
    cleaned = with_clean_edge(fringed, 8)
    assert bad_rim(cleaned, page) <= 0.1
    area = cleaned[..., 3].sum() / 255 / (np.pi * (0.4 * 320) ** 2)
    assert area == pytest.approx(1, abs=0.03), "it is as large as what was cut"
    shown = cleaned[..., 3] > 128
    assert np.abs(cleaned[shown][:, :3].astype(int) - colour).max() <= 56, "at most a quarter of the way to the ground"
    solid = fringed[..., 3] * (cv2.erode((fringed[..., 3] > 250).astype(np.uint8), np.ones((17, 17))) > 0) > 250
    assert (cleaned[solid] == fringed[solid]).all(), "what lies inside is not touched"


@pytest.mark.parametrize("rim", ["#ffffff", "#00ff00"])
def test_a_rim_of_one_colour_goes(rim: str) -> None:
    cleaned = with_clean_edge(_opened(drawings.cut_out(rim, "#3c1e0a", 2)), 8)
    assert bad_rim(cleaned, DARK) <= 0.1


def test_thin_strokes_keep_their_own_colours() -> None:
    """Where a stroke is thinner than the fringe may reach its middle says what its colour is."""
    picture = np.zeros((200, 200, 4), np.uint8)
    picture[90:94, 10:190] = (200, 30, 30, 255)
    picture[89, 10:190] = picture[94, 10:190] = (230, 230, 230, 140)
    picture[120:180, 20:180] = (20, 60, 160, 255)
    cleaned = with_clean_edge(picture, 16)
    assert (cleaned[91:93, 20:180, :3] == (200, 30, 30)).all() and (cleaned[91:93, 20:180, 3] == 255).all()
    assert (cleaned[125:175, 25:175] == picture[125:175, 25:175]).all()
    outer = cleaned[89, 20:180]
    assert (np.abs(outer[outer[:, 3] > 12][:, :3].astype(int) - (200, 30, 30)).max() if outer[:, 3].max() else 0) <= 2


def test_what_has_no_fringe_is_told_and_not_touched() -> None:
    clean = _opened(drawings.cut_out("#b4541a", "#b4541a", 2))
    with pytest.raises(ArtworkError, match="clean already"):
        with_clean_edge(clean, 8)
    with pytest.raises(ArtworkError, match="no clear background"):
        with_clean_edge(np.full((20, 20, 4), 255, np.uint8), 8)
    with pytest.raises(ArtworkError, match="clean already"):
        with_clean_edge(np.zeros((20, 20, 4), np.uint8), 8)


@pytest.mark.parametrize("shape", [(1, 1), (1, 40), (3, 3)])
def test_tiny_pictures(shape: tuple[int, int]) -> None:
    rng = np.random.default_rng(3)
    picture = rng.integers(0, 255, (*shape, 4)).astype(np.uint8)
    try:
        assert with_clean_edge(picture, 32).shape == picture.shape
    except ArtworkError as error:
        assert "edge" in error.message
