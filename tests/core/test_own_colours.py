"""Colours of flat artwork: small ones too, mixtures not."""

import numpy as np
import pytest
from PIL import Image, ImageDraw, ImageFilter

from fitzle.core.artwork.own_colours import MOST_OWN, own_colours
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.colour.main_colours import ColourShare
from fitzle.core.colour.oklab import difference
from fitzle.core.colour.srgb import parse_hex
from tests.make import opened, photo, saved

GREEN, RUST, SAND = "#17443c", "#b4541a", "#f2e6d0"


def badge(size: int = 400, ground: str | None = SAND) -> Image.Image:
    """A green square with a thin rusty ring and a rusty dot, a hundredth of the picture."""
    finer = 4 * size
    picture = Image.new("RGBA", (finer, finer), ground or (0, 0, 0, 0))
    brush = ImageDraw.Draw(picture)
    brush.rectangle([share * finer for share in (0.55, 0.55, 0.8, 0.8)], fill=GREEN)
    ring = [share * finer for share in (0.1, 0.1, 0.35, 0.35)]
    brush.ellipse(ring, outline=RUST, width=finer // 100)
    return picture.resize((size, size), Image.Resampling.LANCZOS)


def pixels_of(picture: Image.Image) -> np.ndarray:
    return np.asarray(picture.convert("RGBA"))


def alike(found: tuple[ColourShare, ...], wanted: list[str]) -> bool:
    """Whether these are the colours, in this order; of a thin ring hardly a px is wholly its own."""
    pairs = zip(found, wanted, strict=True)
    return all(difference(parse_hex(entry.hex), parse_hex(colour)) < 0.02 for entry, colour in pairs)


def test_a_thin_ring_is_a_colour_of_its_own() -> None:
    found = own_colours(pixels_of(badge()))
    assert alike(found, [SAND, GREEN, RUST])
    assert found[2].share < 0.01
    assert sum(entry.share for entry in found) <= 1


@pytest.mark.parametrize("quality", [90, 75, 50])
def test_what_a_jpeg_leaves_between_colours_is_none(quality: int) -> None:
    picture = opened(saved(badge().convert("RGB"), "JPEG", quality=quality))
    found = own_colours(pixels_of(picture))
    for entry in found:
        assert min(difference(parse_hex(entry.hex), parse_hex(known)) for known in (SAND, GREEN, RUST)) < 0.08


@pytest.mark.parametrize("blur", [1.0, 3.0, 6.0])
def test_what_a_blur_leaves_between_colours_is_none(blur: float) -> None:
    found = own_colours(pixels_of(badge().filter(ImageFilter.GaussianBlur(blur))))
    assert {SAND, GREEN} <= {entry.hex for entry in found}
    assert len(found) <= 3


def test_what_is_clear_has_no_colour() -> None:
    found = own_colours(pixels_of(badge(ground=None)))
    assert alike(found, [GREEN, RUST])
    assert own_colours(np.zeros((40, 40, 4), np.uint8)) == ()


@pytest.mark.parametrize("size", [(1, 1), (2, 2), (1, 90), (300, 1)])
def test_tiny_and_narrow_pictures_have_their_colour(size: tuple[int, int]) -> None:
    assert [entry.hex for entry in own_colours(pixels_of(Image.new("RGB", size, RUST)))] == [RUST]


def test_a_photo_has_a_handful() -> None:
    assert 1 <= len(own_colours(pixels_of(photo()))) <= MOST_OWN


def test_the_card_of_a_mark_names_its_small_colours() -> None:
    """Whoever wants to change the ring's colour must find it there."""
    facts = read_artwork(saved(badge(800), "PNG"), "badge.png").facts
    assert facts.kind == "mark"
    assert alike(facts.colours, [SAND, GREEN, RUST])
