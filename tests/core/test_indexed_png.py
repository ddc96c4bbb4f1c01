"""PNG files of a palette: read back px for px by two readers, as short as the standard lets them be."""

import io
import struct

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from fitzle.core.encode.indexed_png import SIGNATURE, indexed_png
from fitzle.core.libvips import libvips

rng = np.random.default_rng(5)


def colours_of(count: int, *, clear: int = 0) -> np.ndarray:
    colours = rng.permutation(256 * 255).astype(np.uint32)[:count, None] >> np.array([0, 8, 4, 2]) & 255
    colours[:, 3] = 255
    colours[:clear, 3] = np.arange(clear) * 200 // max(1, clear)
    return rng.permutation(colours.astype(np.uint8))


def chunks_of(data: bytes) -> dict[bytes, bytes]:
    found, at = {}, len(SIGNATURE)
    while at < len(data):
        size, kind = struct.unpack(">I4s", data[at : at + 8])
        found[kind] = data[at + 8 : at + 8 + size]
        at += 12 + size
    return found


@given(st.sampled_from([1, 2, 3, 4, 5, 16, 17, 255, 256]), st.integers(1, 40), st.integers(1, 9), st.integers(0, 256))
def test_two_readers_see_what_was_written(count: int, width: int, height: int, clear: int) -> None:
    colours = colours_of(count, clear=min(clear, count))
    indices = rng.integers(0, count, (height, width)).astype(np.uint8)
    data = indexed_png(indices, colours, 6)
    with Image.open(io.BytesIO(data)) as opened:
        assert opened.format == "PNG"
        opened.load()
        assert np.array_equal(np.asarray(opened.convert("RGBA")), colours[indices])
    other = libvips().Image.new_from_buffer(data, "").colourspace("srgb").numpy()
    seen = other[..., :3] if other.shape[2] >= 3 else np.repeat(other[..., :1], 3, axis=2)
    assert np.array_equal(seen, colours[indices][..., :3])


@pytest.mark.parametrize(("count", "depth"), [(1, 1), (2, 1), (3, 2), (4, 2), (5, 4), (16, 4), (17, 8), (256, 8)])
def test_an_index_is_as_short_as_it_can_be(count: int, depth: int) -> None:
    indices = np.resize(np.arange(count), (17, 23)).astype(np.uint8)
    assert chunks_of(indexed_png(indices, colours_of(count), 9))[b"IHDR"][8] == depth


def test_colours_that_nobody_sees_weigh_nothing() -> None:
    colours = colours_of(200)
    chunks = chunks_of(indexed_png(np.full((4, 4), 150, np.uint8), colours, 9))
    assert chunks[b"PLTE"] == colours[150, :3].tobytes()
    assert chunks[b"IHDR"][8] == 1


def test_alphas_end_with_the_last_clear_colour() -> None:
    colours = np.array([[1, 2, 3, 255], [4, 5, 6, 128], [7, 8, 9, 255], [0, 0, 0, 0]], np.uint8)
    chunks = chunks_of(indexed_png(np.array([[0, 1, 2, 3]], np.uint8), colours, 9))
    assert chunks[b"tRNS"] == bytes([128, 0])
    assert b"tRNS" not in chunks_of(indexed_png(np.array([[0, 2]], np.uint8), colours, 9))


def test_the_same_picture_gives_the_same_bytes() -> None:
    colours, indices = colours_of(90), rng.integers(0, 90, (64, 64)).astype(np.uint8)
    assert indexed_png(indices, colours, 10) == indexed_png(indices.copy(), colours.copy(), 10)
