"""Shortcuts over bands of pixels give exactly what NumPy gives."""

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.artwork.bands import dot, largest_difference, with_alpha
from fitzle.core.colour.srgb import Rgb

SIDES = st.integers(1, 40)
LEVEL = st.integers(0, 255)


def noise(height: int, width: int, bands: int, seed: int) -> np.ndarray:
    return np.random.default_rng(seed).integers(0, 256, (height, width, bands), dtype=np.uint8)


@given(SIDES, SIDES, st.integers(0, 999))
def test_two_pictures_differ_by_their_channel_that_differs_most(height: int, width: int, seed: int) -> None:
    one, other = noise(height, width, 3, seed), noise(height, width, 3, seed + 1)
    exact = np.abs(one.astype(int) - other.astype(int)).max(axis=-1)
    assert np.array_equal(largest_difference(one, other), exact)


@given(SIDES, SIDES, LEVEL, LEVEL, LEVEL)
def test_a_picture_differs_from_a_colour_likewise(height: int, width: int, red: int, green: int, blue: int) -> None:
    pixels = noise(height, width, 4, red)
    exact = np.abs(pixels[..., :3].astype(int) - [red, green, blue]).max(axis=-1)
    assert np.array_equal(largest_difference(pixels[..., :3], Rgb(red, green, blue)), exact)


@given(SIDES, SIDES, st.integers(0, 999))
def test_alpha_is_put_beside_colours(height: int, width: int, seed: int) -> None:
    pixels = noise(height, width, 4, seed)
    assert np.array_equal(with_alpha(pixels[..., :3], pixels[..., 3]), pixels)


@given(SIDES, SIDES, st.integers(0, 999))
def test_vectors_are_multiplied_px_by_px(height: int, width: int, seed: int) -> None:
    one, other = (noise(height, width, 3, seed + more).astype(np.float32) / 255 for more in (0, 1))
    assert np.allclose(dot(one, other), np.einsum("...i,...i", one, other), atol=1e-5)
