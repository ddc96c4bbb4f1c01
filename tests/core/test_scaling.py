"""Scaling is exact to a fraction of a pixel, premultiplied, and the same from working copies and caches."""

import io
import threading
from functools import cache

import numpy as np
import pytest
from PIL import Image

from fitzle.core.artwork import sources
from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.remembering import CachedSource, PixelCache
from fitzle.core.artwork.sources import BitmapSource
from fitzle.core.artwork.straight import straight
from fitzle.core.artwork.working import WorkingSource, make_working_copy
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size
from tests.make import disc, photo, saved, svg


@cache
def large(fmt: str) -> tuple[Image.Image, bytes]:
    """A picture and its file."""
    picture = photo(3000, 2000)
    return picture, saved(picture, fmt, **({"quality": 97, "subsampling": 0} if fmt == "JPEG" else {}))


@pytest.mark.parametrize(
    ("window", "size"),
    [
        (Rect(0, 312.5, 3000, 1687.5), Size(640, 360)), (Rect(100.25, 33.75, 2000, 1000), Size(500, 250)),
        (Rect(0, 0, 3000, 2000), Size(150, 100)), (Rect(700.5, 300.5, 300, 200), Size(299, 199)),
    ],
)  # fmt: skip
@pytest.mark.parametrize("fmt", ["PNG", "JPEG"])
def test_a_window_is_scaled_like_one_exact_lanczos(fmt: str, window: Rect, size: Size) -> None:
    """The two steps (decode smaller, then Lanczos) differ from a single Lanczos by at most 2.5/255 on average.

    A window that is a third of a pixel off differs by more than 4 on this grainy picture.
    """
    picture, data = large(fmt)
    box = (window.x, window.y, window.right, window.bottom)
    wanted = np.asarray(picture.resize(size, Image.Resampling.LANCZOS, box=box)).astype(int)
    found = open_source(data).pixels(window, size)
    assert found.shape == (size.height, size.width, 4)
    assert np.abs(found[..., :3] - wanted).mean() < 2.5


def test_a_shifted_window_would_be_noticed() -> None:
    """The check above can fail: a third of a pixel of the result is seen."""
    picture = photo(900, 600)
    exact = np.asarray(picture.resize((300, 200), Image.Resampling.LANCZOS, box=(0, 0, 900, 600))).astype(int)
    data = saved(picture, "PNG")
    moved = open_source(data).pixels(Rect(1.5, 1.5, 898.5, 598.5), Size(300, 200))
    right = open_source(data).pixels(Rect(0, 0, 900, 600), Size(300, 200))
    assert np.abs(moved[..., :3] - exact).mean() > 4 * np.abs(right[..., :3] - exact).mean()


def test_both_halves_meet_without_a_seam(monkeypatch: pytest.MonkeyPatch) -> None:
    source = open_source(saved(photo(1400, 1000), "PNG"))
    window, size = Rect(3.3, 2.2, 1380, 990), Size(700, 501)
    halves = source.pixels(window, size)
    monkeypatch.setattr(sources, "SPLIT_ABOVE_PIXELS", 10**9)
    whole = source.pixels(window, size).astype(int)
    assert np.abs(halves - whole).max() <= 1  # the seam's place is rounded in another digit


def test_a_large_file_is_read_in_parts_and_gives_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    data = saved(photo(1500, 1000), "PNG")
    window, size = Rect(400, 300, 600, 400), Size(300, 200)
    whole = open_source(data).pixels(window, size)
    monkeypatch.setattr(sources, "HELD_PIXELS", 1000)
    part = open_source(data).pixels(window, size)
    assert np.abs(whole.astype(int) - part).max() <= 2


def test_one_reading_serves_the_survey_and_the_fit(monkeypatch: pytest.MonkeyPatch) -> None:
    reads = []
    original = BitmapSource._decoded
    monkeypatch.setattr(BitmapSource, "_decoded", lambda self, *args: reads.append(args) or original(self, *args))
    art = read_artwork(saved(photo(3200, 2000), "JPEG"), "p.jpg")
    art.source.pixels(Rect(0, 0, 3200, 1800), Size(1280, 720))
    assert len(reads) == 1


def test_enlarging_adds_no_ringing() -> None:
    """Bicubic, not Lanczos: a black and white edge stays within its two values."""
    edge = Image.new("RGB", (40, 40), "#404040")
    edge.paste("#c0c0c0", (20, 0, 40, 40))
    pixels = open_source(saved(edge, "PNG")).pixels(Rect(0, 0, 40, 40), Size(400, 400))
    assert pixels[..., 0].min() >= 0x40 - 16
    assert pixels[..., 0].max() <= 0xC0 + 16


@pytest.mark.parametrize("side", [16, 32, 64, 100])
def test_no_colour_is_brighter_than_its_alpha(side: int) -> None:
    for data in (saved(disc(300, "#ffffff"), "PNG"), saved(disc(300, "#ffee00"), "WEBP", lossless=True), svg()):
        source = open_source(data)
        pixels = source.pixels(Rect(0, 0, source.width, source.height), Size(side, side))
        assert (pixels[..., :3] <= pixels[..., 3:]).all()


def test_straight_alpha_gives_back_the_colour() -> None:
    pixels = straight(np.array([[[64, 32, 0, 128], [0, 0, 0, 0], [10, 20, 30, 255]]], dtype=np.uint8))
    assert pixels[0, 0] == pytest.approx((128, 64, 0, 128), abs=1)
    assert pixels[0, 1].tolist() == [0, 0, 0, 0]
    assert pixels[0, 2].tolist() == [10, 20, 30, 255]


def test_small_artwork_and_vectors_need_no_working_copy() -> None:
    assert make_working_copy(open_source(saved(photo(600, 400), "JPEG"))) is None
    assert make_working_copy(open_source(svg())) is None


@pytest.mark.parametrize(("picture", "fmt"), [(photo(2600, 1300), "jpeg"), (disc(2400, margin=50), "png")])
def test_a_working_copy_draws_the_same_picture_in_the_artwork_s_own_px(picture: Image.Image, fmt: str) -> None:
    source = open_source(saved(picture, "PNG"))
    copy = make_working_copy(source)
    assert copy is not None
    assert copy[1] == fmt
    with Image.open(io.BytesIO(copy[0])) as small:
        assert max(small.size) == 2048
    work = WorkingSource(*copy, source.width, source.height)
    window = Rect(source.width / 4, source.height / 4, source.width / 2, source.height / 2)
    size = Size(320, round(320 * source.height / source.width))
    assert np.abs(work.pixels(window, size).astype(int) - source.pixels(window, size)).mean() < 3


def test_the_cache_remembers_and_stays_within_its_bytes() -> None:
    drawn = []

    class Counting:
        width = height = 10.0

        def pixels(self, window: Rect, size: Size) -> np.ndarray:
            drawn.append(size)
            return np.zeros((size.height, size.width, 4), dtype=np.uint8)

    cache = PixelCache(most_bytes=4 * 100 * 100 * 3)
    source = CachedSource("a", Counting(), cache)
    for width in (100, 100, 99, 98, 97, 100):
        source.pixels(Rect(0, 0, 10, 10), Size(width, 100))
    assert drawn == [(100, 100), (99, 100), (98, 100), (97, 100), (100, 100)]
    assert cache._held <= 4 * 100 * 100 * 3


def test_threads_drawing_from_one_source_agree() -> None:
    source = open_source(saved(photo(1200, 800), "JPEG"))
    expected = open_source(saved(photo(1200, 800), "JPEG")).pixels(Rect(0, 0, 1200, 800), Size(600, 400))
    found: list[np.ndarray] = []
    work = [
        threading.Thread(target=lambda: found.append(source.pixels(Rect(0, 0, 1200, 800), Size(600, 400))))
        for _ in range(4)
    ]
    for thread in work:
        thread.start()
    for thread in work:
        thread.join()
    assert all(np.array_equal(entry, expected) for entry in found)
    assert len(found) == 4


@pytest.mark.parametrize("side", [16, 32, 64])
def test_an_icon_made_from_a_bitmap_has_no_dark_rim(side: int) -> None:
    """Lanczos would make the disc up to 40 darker where it meets its light ground; Hamming at most 6."""
    source = open_source(saved(disc(400, "#803040", margin=60, ground="#ffffff"), "PNG"))
    pixels = source.pixels(Rect(0, 0, 400, 400), Size(side, side)).astype(int)
    assert pixels[..., 0].min() >= 0x80 - 6
    assert pixels[..., :3].max() <= 255
