"""Enlarged logos are found out by the width of their edges; logos of their own size are taken at their word."""

import numpy as np
import pytest
from PIL import Image

from fitzle.core.artwork.detail import detail_share
from fitzle.core.artwork.edge_detail import edge_factor, edges_along_rows
from fitzle.core.artwork.glyphs import glyph_svg
from fitzle.core.artwork.judging import brightness
from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.reading import read_and_judge
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size
from tests.make import disc, opened, saved

WITHIN = 0.15
GLYPHS = ["anchor", "bike", "bolt", "leaf", "mountain", "tools"]
WAYS = [Image.Resampling.BICUBIC, Image.Resampling.LANCZOS, Image.Resampling.BILINEAR]


def mark(name: str, side: int, colour: str = "#17443c", ground: str | None = "#fbfaf5") -> Image.Image:
    """A glyph at a size, on a ground or on none."""
    source = open_source(glyph_svg(name, "outline", colour))
    pixels = source.pixels(Rect(0, 0, source.width, source.height), Size(side, side))
    alpha = pixels[..., 3:] / 255
    straight = np.where(alpha > 0, pixels[..., :3] / np.maximum(alpha, 1 / 255), 0)
    picture = Image.fromarray(np.dstack([straight, pixels[..., 3]]).round().astype(np.uint8))
    return Image.alpha_composite(Image.new("RGBA", picture.size, ground), picture).convert("RGB") if ground else picture


def plane(picture: Image.Image, quality: int | None = None) -> np.ndarray:
    picture = opened(saved(picture, "JPEG", quality=quality)) if quality else picture
    return np.asarray(picture.convert("L")).astype(np.float32)


@pytest.mark.parametrize("quality", [None, 90, 75])
@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize("name", GLYPHS)
def test_an_enlarged_mark_is_found_out_whatever_enlarged_it(
    name: str, way: Image.Resampling, quality: int | None
) -> None:
    for before, after in ((500, 2048), (256, 700)):
        large = mark(name, before).resize((after, after), way)
        assert detail_share(plane(large, quality)) * after == pytest.approx(before, rel=WITHIN)


@pytest.mark.parametrize("quality", [None, 90, 75])
@pytest.mark.parametrize("name", GLYPHS)
def test_a_mark_of_its_own_size_is_taken_at_its_word(name: str, quality: int | None) -> None:
    for side in (128, 256, 500, 1024):
        assert detail_share(plane(mark(name, side), quality)) > 0.85


@pytest.mark.parametrize("colour", ["#111111", "#ffffff", "#b4541a"])
def test_a_clear_mark_is_found_out_in_any_colour(colour: str) -> None:
    large = mark("bike", 300, colour, ground=None).resize((1500, 1500), Image.Resampling.BICUBIC)
    facts = read_and_judge(saved(large, "PNG"), "logo.png").facts
    assert facts.detail_px == pytest.approx(300, rel=WITHIN)
    assert "It was enlarged" in facts.warnings[-1]


def test_a_pale_mark_is_found_out_and_a_fainter_one_is_not_accused() -> None:
    pale = mark("leaf", 400, "#f2d9a0").resize((1600, 1600), Image.Resampling.BICUBIC)
    assert detail_share(plane(pale)) * 1600 == pytest.approx(400, rel=WITHIN)
    assert detail_share(plane(mark("leaf", 400, "#22554a", "#17443c"), 80)) == 1


@pytest.mark.parametrize("lines", [3, 9, 17])
def test_a_pattern_of_lines_is_not_taken_for_an_old_grid(lines: int) -> None:
    picture = np.full((128, 128), 250, np.float32)
    picture[:: 128 // lines] = 40
    assert detail_share(picture) == 1


def test_widths_of_edges_are_those_of_the_ramp() -> None:
    """Of a straight ramp of n px, 4 x (1 - x) adds up to two thirds of n; and ramps do not overshoot."""
    ramp = np.interp(np.arange(200), [90, 102], [20, 220])
    edges = edges_along_rows(np.tile(ramp, (80, 1)).astype(np.float32))
    assert edges.width == pytest.approx(8, abs=0.1)
    assert edges.cosine == pytest.approx(1)
    assert np.nanmax(edges.overshoot) < 0.01


def test_a_slanting_edge_is_measured_straight_across() -> None:
    rows, columns = np.mgrid[0:200, 0:200]
    for degrees in (0, 10, 20):
        across = (columns - 100) * np.cos(np.radians(degrees)) + (rows - 100) * np.sin(np.radians(degrees))
        edges = edges_along_rows(np.interp(across, [-6, 6], [20, 220]).astype(np.float32))
        assert np.median(edges.width) == pytest.approx(8, abs=0.2)


def test_noise_is_left_to_other_measures() -> None:
    noise = np.random.default_rng(3).normal(128, 20, (300, 300)).astype(np.float32)
    assert edge_factor(noise) is None


def test_brightness_is_that_on_the_ground_where_more_shows() -> None:
    for shade in (0, 255):
        pixels = np.zeros((40, 40, 4), np.uint8)
        pixels[10:30, 10:30] = (shade, shade, shade, 255)
        assert np.ptp(brightness(pixels)) == 255


def test_a_mark_enlarged_in_a_webp_is_found_out() -> None:
    large = mark("leaf", 300).resize((1200, 1200), Image.Resampling.BICUBIC)
    facts = read_and_judge(saved(large, "WEBP", quality=85), "leaf.webp").facts
    assert facts.detail_px == pytest.approx(300, rel=WITHIN)


def test_a_mark_without_smooth_edges_is_found_out_if_not_as_exactly() -> None:
    """All its edges lie right between two px, which no width tells: its detail comes out up to a half too large."""
    large = disc(300, ground="#ffffff").convert("RGB").resize((1200, 1200), Image.Resampling.BICUBIC)
    assert 300 * (1 - WITHIN) < detail_share(plane(large)) * 1200 < 300 * 1.5
