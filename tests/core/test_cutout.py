"""Cutting out from a flat backdrop, measured against logos whose coverage is known."""

from functools import cache

import cv2
import numpy as np
import pytest
from PIL import Image, ImageDraw

from fitzle.core.artwork.cutout.backdrop import backdrop_of, border_of
from fitzle.core.artwork.cutout.cutting import Wishes, cut_out
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError, ValueOutOfRange
from tests.badges import BACKDROPS, INKS, badge, badge_on
from tests.make import averaged, disc, opened, photo, saved

LARGEST_ERROR = 2.5  # mean absolute error of coverage, times 1000
SIZE = (1280, 960)  # the figure is promised at this size: edges weigh less in larger pictures
FINE = 4
Colours = tuple[str, str]
LOGOS: dict[str, tuple[Colours, tuple[int, int, int], bool]] = {
    "white": (("#17443c", "#f4d06f"), (255, 255, 255), False),
    "coloured": (("#17443c", "#b4541a"), (236, 200, 160), False),
    "dark": (("#f6e7b8", "#b4541a"), (30, 36, 40), False),
    "vignette": (("#17443c", "#b4541a"), (240, 236, 228), True),
    "pale": (("#e6e2da", "#dfe8ea"), (255, 255, 255), False),
}


@cache
def logo(colours: Colours) -> tuple[np.ndarray, np.ndarray]:
    """Colours (h, w, 3) and coverage (h, w) of a ring with a dot, bars and thin lines, averaged from 4 x 4 samples."""
    first, second = colours
    picture = Image.new("RGBA", (SIZE[0] * FINE, SIZE[1] * FINE), (0, 0, 0, 0))
    draw = ImageDraw.Draw(picture)

    def at(*figures: float) -> tuple[float, ...]:
        return tuple(2 * FINE * figure for figure in figures)

    draw.ellipse(at(100, 90, 380, 370), fill=first)
    draw.ellipse(at(170, 160, 310, 300), fill=(0, 0, 0, 0))
    draw.ellipse(at(200, 190, 280, 270), fill=second)
    draw.rounded_rectangle(at(400, 150, 560, 210), 30 * FINE, fill=first)
    draw.rectangle(at(400, 240, 530, 260), fill=second)
    for line in range(8):
        draw.line(at(400 + 20 * line, 300, 440 + 20 * line, 380), fill=first, width=3 * FINE)
    samples = np.asarray(picture).astype(np.float32)
    coverage = samples[..., 3:] / 255
    alpha = averaged(coverage, FINE)
    return averaged(samples[..., :3] * coverage, FINE) / np.maximum(alpha, 1e-6), alpha[..., 0]


def on_backdrop(name: str, quality: int | None) -> Pixels:
    """A logo on its backdrop, as a camera or a writer of JPEGs leaves it: (h, w, 4), opaque."""
    colours, backdrop, darkens = LOGOS[name]
    own, alpha = logo(colours)
    ground = np.broadcast_to(np.array(backdrop, float), own.shape).copy()
    if darkens:
        y, x = np.mgrid[0 : SIZE[1], 0 : SIZE[0]]
        ground *= 1 - 0.5 * ((x / SIZE[0] - 0.5) ** 2 + (y / SIZE[1] - 0.5) ** 2)[..., None]
    mixed = own * alpha[..., None] + ground * (1 - alpha[..., None])
    picture = Image.fromarray(np.rint(np.clip(mixed, 0, 255)).astype(np.uint8))
    return pixels_of(opened(saved(picture, "JPEG", quality=quality)) if quality else picture)


def pixels_of(picture: Image.Image) -> Pixels:
    return np.asarray(picture.convert("RGBA"))


@pytest.mark.parametrize("quality", [None, 75, 40])
@pytest.mark.parametrize("name", LOGOS)
def test_the_coverage_is_that_of_the_logo(name: str, quality: int | None) -> None:
    cut = cut_out(on_backdrop(name, quality))
    error = np.abs(cut.pixels[..., 3] / 255 - logo(LOGOS[name][0])[1]).mean() * 1000
    assert error < LARGEST_ERROR
    assert (cut.method, cut.confidence > 0.9) == ("flat", True)


@pytest.mark.parametrize("backdrop", BACKDROPS)
@pytest.mark.parametrize("number", range(len(INKS)))
def test_no_line_is_left_where_two_colours_of_the_subject_meet(number: int, backdrop: str) -> None:
    """Mixed px of two colours of the subject are none of the backdrop, and a disc like a pale backdrop is no hole."""
    quality = (40, 50, 60, 75)[(number + len(backdrop)) % 4]
    alpha = cut_out(badge_on(number, backdrop, quality)).pixels[..., 3] / 255
    error = np.abs(alpha - badge(number)[1])
    assert error.mean() * 1000 < LARGEST_ERROR
    inside = cv2.erode(np.float32(badge(number)[1] == 1), np.ones((7, 7))) == 1
    assert error[inside].mean() * 1000 < 1, "hardly any of it is inside (three px of the outline may be blurred)"


@pytest.mark.parametrize("ground", [0, 255])
@pytest.mark.parametrize("name", ["white", "coloured", "dark"])
def test_no_fringe_is_left_on_dark_or_light_grounds(name: str, ground: int) -> None:
    """At most 10 of 255 on average along the edge (the JPEG itself costs 5 to 8); the old backdrop left in costs 24."""
    own, alpha = logo(LOGOS[name][0])
    cut = cut_out(on_backdrop(name, 90)).pixels.astype(float)
    got = cut[..., :3] * cut[..., 3:] / 255 + ground * (1 - cut[..., 3:] / 255)
    wanted = own * alpha[..., None] + ground * (1 - alpha[..., None])
    edge = (alpha > 0.02) & (alpha < 0.98)
    assert np.abs(got - wanted).mean(axis=2)[edge].mean() < 10


def test_what_is_inside_is_not_touched() -> None:
    before = on_backdrop("coloured", None)
    cut = cut_out(before).pixels
    whole = logo(LOGOS["coloured"][0])[1] == 1
    assert np.array_equal(cut[whole][..., :3], before[whole][..., :3])


@pytest.mark.parametrize(("holes", "clear"), [("auto", True), ("all", True), ("none", False)])
def test_holes_are_cut_or_kept_as_wished(holes: str, clear: bool) -> None:
    cut = cut_out(on_backdrop("white", None), wishes=Wishes(holes=holes))  # type: ignore[arg-type]
    assert (cut.pixels[360, 480, 3] == 0) == clear, "between the ring and the dot"


def test_a_subject_that_touches_the_border_is_cut_all_the_same() -> None:
    picture = Image.new("RGB", (300, 200), "#f2e6d0")
    ImageDraw.Draw(picture).rectangle((60, 90, 140, 200), fill="#17443c")
    cut = cut_out(pixels_of(picture)).pixels
    assert (cut[150, 100, 3], cut[20, 20, 3], cut[199, 100, 3], cut[199, 200, 3]) == (255, 0, 255, 0)


def test_softness_widens_the_edge() -> None:
    sharp, soft = (cut_out(on_backdrop("white", None), wishes=Wishes(softness_px=px)).pixels for px in (1.0, 8.0))
    partial = [int(((cut[..., 3] > 8) & (cut[..., 3] < 247)).sum()) for cut in (sharp, soft)]
    assert partial[1] > 3 * partial[0]


def test_a_photo_is_not_cut_unasked() -> None:
    with pytest.raises(ArtworkError, match="flat backdrop"):
        cut_out(pixels_of(photo()))
    assert cut_out(pixels_of(photo()), "flat").confidence < 0.5


def test_a_clear_picture_and_wild_wishes_are_refused() -> None:
    with pytest.raises(ArtworkError, match="transparent already"):
        cut_out(pixels_of(disc()))
    for wishes in (
        Wishes(tolerance=0),
        Wishes(tolerance=99),
        Wishes(softness_px=100),
        Wishes(softness_px=float("nan")),
    ):
        with pytest.raises(ValueOutOfRange):
            cut_out(pixels_of(disc(ground="#ffffff")), wishes=wishes)


@pytest.mark.parametrize("size", [(1, 1), (3, 2), (5, 400)])
def test_tiny_and_narrow_pictures_do_no_harm(size: tuple[int, int]) -> None:
    cut = cut_out(pixels_of(Image.new("RGB", size, "#445566")), "flat").pixels
    assert cut.shape == (size[1], size[0], 4)


def test_the_backdrop_is_known_at_every_px() -> None:
    """A corner-to-corner gradient is within 1/255 of a step everywhere it is not covered."""
    y, x = np.mgrid[0:200, 0:300]
    ground = np.dstack([200 + x / 20, 190 + y / 20, 180 + (x + y) / 40]).round().astype(np.uint8)
    border = border_of(ground)
    assert np.abs(backdrop_of(border, ground.shape).rgb - ground).max() < 2
    assert border.share == 1 and border.sigma < 0.002
