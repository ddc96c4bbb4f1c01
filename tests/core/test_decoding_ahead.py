"""Shortcuts that change nothing but the time: decoding ahead, and a picture alone that nothing is drawn for."""

import numpy as np
import pytest
from PIL import Image

from fitzle.core.artwork.decoding import decoded_ahead
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.errors import FitzleError
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.changes import SetField, apply_changes
from fitzle.core.piece.editing import new_piece
from fitzle.core.render.painting import Painter, paint
from fitzle.core.units import Size
from tests.fits import plan_of
from tests.make import disc, photo, saved, sheet

SIDEWAYS = Image.Exif()
SIDEWAYS[0x0112] = 6  # EXIF 2.32: to be turned by 90 degrees
JPEGS = {
    "large": lambda: saved(photo(3000, 2000), "JPEG", quality=80),
    "small": lambda: saved(photo(300, 200), "JPEG", quality=80),
    "grey": lambda: saved(photo(900, 700).convert("L"), "JPEG"),
    "turned": lambda: saved(photo(2700, 1200), "JPEG", quality=70, exif=SIDEWAYS),
}


@pytest.mark.parametrize("name", JPEGS)
def test_a_picture_decoded_ahead_is_the_same_picture(name: str) -> None:
    data = JPEGS[name]()
    ahead = decoded_ahead(data)
    assert ahead is not None
    early, usual = read_artwork(data, "a.jpg", ahead=ahead), read_artwork(data, "a.jpg")
    assert early.facts == usual.facts
    whole = Rect(0, 0, usual.source.width, usual.source.height)
    for size in (Size(64, 48), Size(1280, 720)):
        assert np.array_equal(early.source.pixels(whole, size), usual.source.pixels(whole, size))


@pytest.mark.parametrize(
    ("data", "limits"),
    [
        (b"", Limits()),
        (b"no picture at all", Limits()),
        (saved(photo(300, 200), "PNG"), Limits()),
        (JPEGS["small"](), Limits(max_bytes=1_000)),
        (JPEGS["small"](), Limits(max_pixels=1_000)),
        (JPEGS["small"]()[:20], Limits()),
    ],
    ids=["nothing", "no picture", "no JPEG", "too heavy", "too large", "its head alone"],
)
def test_what_cannot_be_decoded_ahead_is_left_to_reading(data: bytes, limits: Limits) -> None:
    assert decoded_ahead(data, limits) is None


def test_a_damaged_picture_is_told_in_the_usual_words() -> None:
    data = JPEGS["large"]()
    table = data.index(b"\xff\xc4") + 5  # the first Huffman table: how many codes there are of each length
    damaged = data[:table] + b"\xff" * 16 + data[table + 16 :]
    messages = []
    for ahead in (decoded_ahead(damaged), None):
        with pytest.raises(FitzleError) as told:
            read_artwork(damaged, "a.jpg", ahead=ahead)
        messages.append(told.value.message)
    assert messages[0] == messages[1]


@pytest.mark.parametrize("size", [(320, 180), (97, 301), (1, 1), (640, 400)])
@pytest.mark.parametrize("width", [None, 50, 333])
@pytest.mark.parametrize("focal_point", [(0.5, 0.5), (0.0, 1.0)])
def test_a_picture_alone_comes_out_as_if_it_were_drawn(
    size: tuple[int, int], width: int | None, focal_point: tuple[float, float]
) -> None:
    artwork = read_artwork(JPEGS["small"](), "a.jpg")
    place = sheet(size={"width": size[0], "height": size[1]})
    x, y = focal_point
    focus = SetField(part="picture", field="focal_point", value={"x": x, "y": y})
    plan = plan_of(apply_changes(new_piece("thing", "a", "picture"), [focus]), place, {"a": artwork.facts})
    sources = {"a": artwork.source}
    painter = Painter(plan, sources, width)
    for placed in plan.parts:
        painter.draw(placed)
    assert np.array_equal(paint(plan, sources, width), painter.finished())


def test_a_picture_with_clear_parts_is_drawn_over_its_ground() -> None:
    artwork = read_artwork(saved(disc(300), "PNG"), "a.png")
    place = sheet(size={"width": 100, "height": 100}, transparency="forbidden")
    plan = plan_of(new_piece("thing", "a", "picture"), place, {"a": artwork.facts})
    assert paint(plan, {"a": artwork.source})[..., 3].min() == 255
