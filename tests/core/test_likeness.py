"""The same picture in another size is recognised; another picture is not."""

from functools import cache

import numpy as np
import pytest
from demo.photos import PHOTOS
from demo.photos import photo as draw_photo
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from fitzle.core.artwork.likeness import ALIKE_BITS, are_alike, differing_bits, likeness, near_hashes
from tests.make import disc, opened, photo, saved

DRAWN = tuple(PHOTOS)
COUNT = 8 + len(DRAWN)


@cache
def picture_of(index: int) -> Image.Image:
    """One of several pictures; made when it is asked for, since each process of the tests reads this file."""
    if index < len(DRAWN):
        return opened(draw_photo(PHOTOS[DRAWN[index]], index)).convert("RGB").resize((1200, 800))
    return photo(600, 400, index)


def hash_of(picture: Image.Image) -> str:
    return likeness(np.asarray(picture.convert("RGBA")))


@pytest.mark.parametrize("index", range(COUNT))
@pytest.mark.parametrize(("share", "quality"), [(1, 40), (0.5, 90), (0.1, 40), (2, 75)])
def test_size_and_quality_do_not_matter(index: int, share: float, quality: int) -> None:
    picture = picture_of(index)
    size = (round(picture.width * share), round(picture.height * share))
    again = opened(saved(picture.resize(size, Image.BICUBIC), "JPEG", quality=quality))
    assert differing_bits(hash_of(picture), hash_of(again)) <= ALIKE_BITS


def test_different_pictures_differ() -> None:
    hashes = [hash_of(picture_of(index)) for index in range(COUNT)]
    for index, one in enumerate(hashes):
        for other in hashes[index + 1 :]:
            assert not are_alike(one, other, (1.5, 1.5))


def test_a_mark_is_told_by_its_shape_not_by_its_ground() -> None:
    small, large = disc(100, "#17443c", 20), disc(400, "#17443c", 80)
    assert are_alike(hash_of(small), hash_of(large), (1, 1))
    assert not are_alike(hash_of(small), hash_of(large), (1, 1.2))


@given(st.lists(st.integers(0, 2**64 - 1), min_size=1, max_size=30), st.lists(st.integers(0, 63), max_size=8))
def test_near_hashes_are_those_that_differ_in_few_bits(numbers: list[int], flips: list[int]) -> None:
    one = numbers[0]
    for flip in flips:
        one ^= 1 << flip
    hashes = [f"{number:016x}" for number in numbers]
    exact = [place for place, other in enumerate(hashes) if differing_bits(f"{one:016x}", other) <= ALIKE_BITS]
    assert near_hashes(f"{one:016x}", np.array(numbers, dtype=np.uint64)) == exact


def test_an_even_picture_is_like_nothing() -> None:
    even = hash_of(Image.new("RGB", (40, 40), "#17443c"))
    assert not are_alike(even, even, (1, 1))
