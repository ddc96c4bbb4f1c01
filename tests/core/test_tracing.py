"""Outlines drawn from a bitmap: nearer to the true drawing than any enlargement, with as many colours as it has."""

import io
from typing import Any

import numpy as np
import pytest
from PIL import Image, ImageDraw, ImageFilter

from fitzle.core.artwork import tracing
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.tracing import traced
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size
from tests.make import opened, photo, saved

LARGE = 2048
COLOURS = ("#17443c", "#b4541a", "#f2d27a", "#5a7d9a", "#8c3b4a")


def drawn(size: int, colours: int = 3, ground: str = "#ffffff") -> Image.Image:
    """A logo of bars, a ring and a wheel, the same at any size."""
    finer = 4 if size < LARGE else 2
    picture = Image.new("RGB", (size * finer, size * finer), ground)
    brush, whole = ImageDraw.Draw(picture), size * finer
    at = [share * whole for share in (0.1, 0.3, 0.5, 0.7, 0.9)]
    brush.ellipse((at[0], at[0], at[3], at[3]), fill=COLOURS[0])
    brush.ellipse((at[1], at[1], at[2], at[2]), fill=ground)
    if colours > 1:
        brush.rectangle((at[2], at[3] + 0.05 * whole, at[4], at[4]), fill=COLOURS[1])
    if colours > 2:
        brush.polygon([(at[3], at[0]), (at[4], at[0]), (at[4], at[2])], fill=COLOURS[2])
    for number in range(3, colours):
        top = at[3] + 0.05 * whole + (number - 3) * 0.09 * whole
        brush.rectangle((at[0], top, at[1], top + 0.07 * whole), fill=COLOURS[number])
    return picture.resize((size, size), Image.Resampling.LANCZOS)


def rgba(picture: Image.Image) -> Pixels:
    return np.asarray(picture.convert("RGBA"))


def enlarged(markup: bytes, size: int = LARGE) -> Pixels:
    """The drawing as Fitzle fills a place of this size, on white."""
    source = read_artwork(markup, "traced.svg").source
    pixels = source.pixels(Rect(0, 0, source.width, source.height), Size(size, size))
    return (pixels[..., :3] + (255 - pixels[..., 3:])).astype(np.uint8)


def away(one: Pixels, other: Pixels) -> float:
    """Mean difference of 255."""
    return float(np.abs(one[..., :3].astype(int) - other[..., :3]).mean())


@pytest.mark.parametrize("blur", [0.0, 1.2])
def test_a_blurred_logo_of_300_px_is_nearer_to_the_drawing_than_when_enlarged(blur: float) -> None:
    small = drawn(300).filter(ImageFilter.GaussianBlur(blur)) if blur else drawn(300)
    truth = rgba(drawn(LARGE))
    found = enlarged(traced(rgba(small)).markup)
    ways = [rgba(small.resize((LARGE, LARGE), way)) for way in (Image.Resampling.BICUBIC, Image.Resampling.LANCZOS)]
    assert away(found, truth) < 0.6 * min(away(way, truth) for way in ways)
    assert away(found, truth) < 1.5


def test_its_edges_are_as_sharp_as_the_place_allows() -> None:
    row = enlarged(traced(rgba(drawn(300).filter(ImageFilter.GaussianBlur(1.2)))).markup)[LARGE * 4 // 10, :, 0]
    steps = np.flatnonzero(np.abs(np.diff(row.astype(int))) > 12)
    edges = np.split(steps, np.flatnonzero(np.diff(steps) > 4) + 1)
    assert len(edges) >= 4, "the ring has an outer and an inner edge on either side"
    assert max(edge[-1] - edge[0] for edge in edges) <= 3


@pytest.mark.parametrize("colours", [1, 2, 3, 4, 5])
def test_it_has_as_many_colours_as_the_logo_and_its_ground(colours: int) -> None:
    found = traced(rgba(drawn(300, colours)))
    assert found.colours == colours + 1
    assert found.error < 2


def lines(size: int) -> Image.Image:
    """Lines from a fifth of a px (at 400 px) to four, and a thin ring in a second colour across them."""
    finer = 4 if size < LARGE else 2
    whole = size * finer
    picture = Image.new("RGB", (whole, whole), "#ffffff")
    brush = ImageDraw.Draw(picture)
    for number in range(1, 8):
        at = whole * (0.1 + 0.1 * number)
        width = round(whole * 0.0015 * (number + 1))
        brush.line((0.1 * whole, at, 0.9 * whole, at + 0.05 * whole), fill=COLOURS[0], width=width)
    brush.ellipse((0.3 * whole, 0.3 * whole, 0.7 * whole, 0.7 * whole), outline=COLOURS[1], width=round(0.012 * whole))
    return picture.resize((size, size), Image.Resampling.LANCZOS)


@pytest.mark.parametrize("quality", [None, 75])
def test_thin_things_keep_their_colour(quality: int | None) -> None:
    """A ring of five px is a hundredth of the picture, and lines of two px are nowhere amid their own colour."""
    small = lines(400) if quality is None else opened(saved(lines(400), "JPEG", quality=quality))
    scaled = rgba(small.resize((LARGE, LARGE), Image.Resampling.BICUBIC))
    traced_one = traced(rgba(small))
    assert traced_one.colours == 3
    found, truth = enlarged(traced_one.markup), rgba(lines(LARGE))[..., :3]
    assert away(found, truth) < away(scaled, truth)
    ring = np.abs(truth.astype(int) - (0xB4, 0x54, 0x1A)).max(axis=-1) < 8
    assert (np.abs(found[ring].astype(int) - (0xB4, 0x54, 0x1A)).max(axis=-1) < 24).mean() > 0.9
    line = np.abs(truth.astype(int) - (0x17, 0x44, 0x3C)).max(axis=-1) < 8
    rusty = (found[..., 0] > 150) & (found[..., 2] < 80)
    assert (rusty & line).sum() < 0.02 * line.sum()


@pytest.mark.parametrize("quality", [None, 60])
def test_a_circle_comes_out_round(quality: int | None) -> None:
    """Its edge at 2048 px is within 3.5 px, two thirds of a px of the source, everywhere: noise leaves no nicks."""
    circle = Image.new("RGB", (1600, 1600), "#ffffff")
    ImageDraw.Draw(circle).ellipse((200, 200, 1400, 1400), fill=COLOURS[0])
    small = circle.resize((400, 400), Image.Resampling.LANCZOS)
    small = small if quality is None else opened(saved(small, "JPEG", quality=quality))
    dark = enlarged(traced(rgba(small)).markup)[..., 0] < 128
    y, x = np.mgrid[0:LARGE, 0:LARGE] + 0.5
    radius = np.hypot(x - LARGE / 2, y - LARGE / 2)
    assert radius[dark].max() < 768 + 3.5
    assert radius[~dark].min() > 768 - 3.5


@pytest.mark.parametrize("wished", [2, 3, 4])
def test_fewer_colours_can_be_wished_and_cost_error(wished: int) -> None:
    picture = rgba(drawn(300, 3))
    found, best = traced(picture, wished), traced(picture)
    assert found.colours == wished
    assert found.error >= best.error - 0.2


def test_more_colours_than_there_are_flat_ones_are_found_by_clustering() -> None:
    """A gradient has no flat colours to speak of; five are taken from all over it."""
    ramp = np.zeros((120, 240, 4), np.uint8)
    ramp[..., 0] = np.linspace(20, 230, 240)
    ramp[..., 2], ramp[..., 3] = 90, 255
    few, many = traced(ramp, 3), traced(ramp, 12)
    assert (few.colours, many.colours) == (3, 12)
    assert many.error < 0.6 * few.error


def test_the_same_bitmap_gives_the_same_drawing() -> None:
    picture = rgba(drawn(200))
    assert traced(picture).markup == traced(picture).markup
    assert traced(picture, 9).markup == traced(picture, 9).markup


def test_what_is_clear_stays_clear() -> None:
    """The ground taken away: nothing is drawn there."""
    logo = rgba(drawn(300)).copy()
    ground = (logo[..., :3] == 255).all(axis=-1)
    logo[ground, 3] = 0
    source = read_artwork(traced(logo).markup, "traced.svg").source
    pixels = source.pixels(Rect(0, 0, source.width, source.height), Size(300, 300))
    assert (pixels[ground, 3] < 128).mean() > 0.99
    assert (pixels[~ground, 3] >= 128).mean() > 0.97


def test_what_hides_under_clear_px_is_not_seen() -> None:
    """Files keep any colour where they are clear; none of it may run into the edges."""
    logo = rgba(drawn(300)).copy()
    logo[(logo[..., :3] == 255).all(axis=-1), 3] = 0
    ways = []
    for hidden in (0, 255, 90):
        logo[logo[..., 3] == 0, :3] = hidden
        ways.append(traced(logo).markup)
    assert ways[0] == ways[1] == ways[2]


def test_a_jpeg_s_noise_draws_no_slivers() -> None:
    out = io.BytesIO()
    drawn(300).save(out, "JPEG", quality=50)
    found = traced(rgba(Image.open(out)))
    assert found.colours == 4
    assert found.markup.count(b"<path") <= 16
    assert away(enlarged(found.markup), rgba(drawn(LARGE))) < 2


@pytest.mark.parametrize("size", [(1, 1), (2, 3), (6, 4)])
def test_a_picture_too_small_to_trace_is_told_so_or_traced(size: tuple[int, int]) -> None:
    try:
        found = traced(rgba(Image.new("RGB", size, "#17443c")))
    except ArtworkError as error:
        assert "flat" in str(error)
    else:
        assert found.colours == 1


@pytest.mark.parametrize("side", [1, 8, 32, 80, 700])
def test_no_picture_is_enlarged_so_far_that_evening_it_would_take_minutes(side: int, monkeypatch: Any) -> None:
    """A single px was blurred over a thousand before it was traced, for minutes."""
    seen: list[float] = []
    real = tracing.labelled
    monkeypatch.setattr(tracing, "labelled", lambda *given: (seen.append(given[-1]), real(*given))[1])
    traced(rgba(Image.new("RGB", (side, side), "#17443c")))
    assert seen and max(seen) <= 13  # px of sigma


def test_nothing_but_clear_px_is_nothing_to_trace() -> None:
    with pytest.raises(ArtworkError, match="no flat colours"):
        traced(np.zeros((40, 40, 4), np.uint8))


def test_a_photo_is_traced_far_from_itself_and_says_so() -> None:
    """The figure beside the picture is what a person decides by."""
    assert traced(rgba(photo(240, 160)), 6).error > 4 * traced(rgba(drawn(240))).error
