"""Colours of a drawing changed, however they are written; pictures inside an SVG; steps kept as files."""

import base64
import io

import numpy as np
import pytest
from lxml import etree
from PIL import Image

from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.steps.material import Bitmap, Drawing, material_of
from fitzle.core.artwork.steps.written import file_of, png_of
from fitzle.core.artwork.straight import whole_picture
from fitzle.core.artwork.svg_recolour import painted_svg, recoloured_svg
from fitzle.core.errors import ArtworkError, HostileFileError
from tests.core.test_step_properties import noise
from tests.make import opened, photo, saved, svg

GREEN, RUST = "#17443c", "#b4541a"
WAYS = {
    "attribute": '<rect width="100" height="50" fill="{}"/>',
    "style": '<rect width="100" height="50" style="opacity:1;fill:{};stroke:none"/>',
    "sheet": "<style>.own {{ fill : {} ; }}</style><rect class='own' width='100' height='50'/>",
    "group": '<g fill="{}"><rect width="100" height="50"/></g>',
    "stroke": '<path d="M0 25H100" stroke="{}" stroke-width="50" fill="none"/>',
    "current": '<g color="{}"><rect width="100" height="50" fill="currentColor"/></g>',
    "gradient": '<linearGradient id="g"><stop stop-color="{0}"/><stop offset="1" stop-color="{0}"/></linearGradient>'
    '<rect width="100" height="50" fill="url(#g)"/>',
    "gradient's style": '<linearGradient id="g"><stop style="stop-color:{}"/></linearGradient>'
    '<rect width="100" height="50" fill="url(#g)"/>',
}
SPELLINGS = [GREEN, GREEN.upper(), "rgb(23, 68, 60)", "rgb(23,68,60)"]


def root_of(body: str) -> etree._Element:
    source = open_source(svg(body))
    return source.root  # type: ignore[attr-defined,no-any-return]


def middle(root: etree._Element) -> list[int]:
    """The px in the middle of the drawing."""
    pixels = whole_picture(open_source(etree.tostring(root)))
    return list(map(int, pixels[pixels.shape[0] // 2, pixels.shape[1] // 2]))


@pytest.mark.parametrize("spelling", SPELLINGS)
@pytest.mark.parametrize("way", WAYS)
def test_a_colour_is_changed_wherever_it_is_painted_with(way: str, spelling: str) -> None:
    root = root_of(WAYS[way].format(spelling))
    assert middle(root) == [0x17, 0x44, 0x3C, 255]
    assert middle(recoloured_svg(root, {GREEN: RUST})) == [0xB4, 0x54, 0x1A, 255]
    assert middle(recoloured_svg(root, {"#123456": RUST})) == [0x17, 0x44, 0x3C, 255]
    assert middle(root) == [0x17, 0x44, 0x3C, 255], "the drawing itself is not touched"


@pytest.mark.parametrize("way", WAYS)
def test_everything_is_painted_in_one_colour(way: str) -> None:
    assert middle(painted_svg(root_of(WAYS[way].format("navy")), RUST)) == [0xB4, 0x54, 0x1A, 255]


def test_names_of_colours_are_colours() -> None:
    root = root_of('<rect width="100" height="50" fill="Navy"/>')
    assert middle(recoloured_svg(root, {"#000080": RUST})) == [0xB4, 0x54, 0x1A, 255]


@pytest.mark.parametrize("hole", ['fill="none"', 'style="fill:none"', 'fill="transparent"'])
def test_what_is_not_painted_stays_unpainted(hole: str) -> None:
    root = root_of(f'<rect width="10" height="10" fill="{GREEN}"/><rect width="100" height="50" {hole}/>')
    assert middle(painted_svg(root, RUST))[3] == 0
    assert middle(recoloured_svg(root, {GREEN: RUST, "#000000": RUST}))[3] == 0


def test_what_states_no_colour_is_black_and_changes_with_black() -> None:
    root = root_of('<rect width="100" height="50"/>')
    assert middle(root) == [0, 0, 0, 255]
    assert middle(recoloured_svg(root, {"#000000": RUST})) == [0xB4, 0x54, 0x1A, 255]


def test_a_stop_that_states_no_colour_is_painted_too() -> None:
    root = root_of(
        '<linearGradient id="g"><stop/><stop offset="1"/></linearGradient>'
        '<rect width="100" height="50" fill="url(#g)"/>'
    )
    assert middle(painted_svg(root, RUST)) == [0xB4, 0x54, 0x1A, 255]


def embedded(data: bytes, kind: str = "png") -> str:
    coded = base64.b64encode(data).decode()
    return f'<image href="data:image/{kind};base64,{coded}" width="100" height="50" preserveAspectRatio="none"/>'


@pytest.mark.parametrize(("fmt", "kind"), [("PNG", "png"), ("JPEG", "jpeg"), ("WEBP", "webp"), ("GIF", "gif")])
def test_a_picture_in_a_drawing_is_drawn(fmt: str, kind: str) -> None:
    """WebP and GIF as well, which the renderer would leave out without a word."""
    root = root_of(embedded(saved(Image.new("RGB", (40, 20), GREEN), fmt), kind))
    assert np.abs(np.array(middle(root)) - [0x17, 0x44, 0x3C, 255]).max() <= 3


def test_a_clear_picture_in_a_drawing_stays_clear() -> None:
    picture = Image.new("RGBA", (40, 20), (180, 84, 26, 128))
    assert middle(root_of(embedded(saved(picture, "WEBP", lossless=True), "webp")))[3] == 128


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"no picture at all", "cannot be read"), (saved(Image.new("RGB", (8, 8)), "TIFF"), "kept as TIFF"),
        (saved(Image.new("RGB", (8, 8)), "PNG")[:20], "cannot be read"),
        (saved(photo(80, 60), "WEBP")[:99], "cannot be read"),
        (b"<svg xmlns='http://www.w3.org/2000/svg'><script/></svg>", "kept as SVG"),
        (saved(Image.new("L", (6000, 6000)), "PNG"), "too large: 6000 x 6000"),
    ],
    ids=["no picture", "TIFF", "head of a PNG", "half a WebP", "another drawing", "36 megapixels"],
)  # fmt: skip
def test_any_other_picture_in_a_drawing_is_refused_in_words(data: bytes, words: str) -> None:
    with pytest.raises(ArtworkError, match=f"picture in this SVG.*{words}"):
        root_of(embedded(data))


@pytest.mark.parametrize("coded", ["!!!!", "QUJD*", "AAA"])
def test_a_data_address_that_cannot_be_decoded_is_refused(coded: str) -> None:
    with pytest.raises(ArtworkError, match="cannot be read"):
        root_of(f'<image href="data:image/png;base64,{coded}" width="9" height="9"/>')


@pytest.mark.parametrize(
    "body",
    ['<image href="data:text/html;base64,QUJD"/>', '<use href="data:image/png;base64,QUJD"/>', '<image href="a.png"/>'],
)
def test_other_addresses_lead_outside(body: str) -> None:
    with pytest.raises(HostileFileError, match="outside"):
        root_of(body)


@pytest.mark.parametrize("clear", [True, False])
def test_pixels_kept_as_a_file_come_back_bit_by_bit(clear: bool) -> None:
    pixels = noise(61, 23, clear=clear)
    picture = opened(png_of(pixels))
    assert picture.mode == ("RGBA" if clear else "RGB")
    assert np.array_equal(np.asarray(picture.convert("RGBA")), pixels)


def test_a_drawing_is_kept_as_a_drawing_and_a_photo_as_pixels() -> None:
    drawing = material_of(read_artwork(svg(), "a.svg").source)
    photograph = material_of(read_artwork(saved(photo(90, 60), "JPEG"), "a.jpg").source)
    assert isinstance(drawing, Drawing) and isinstance(photograph, Bitmap)
    assert etree.fromstring(file_of(drawing)).tag.endswith("svg")
    assert opened(file_of(photograph)).size == (90, 60)
    again = read_artwork(file_of(drawing), "again.svg")
    assert again.facts.vector and (again.facts.width, again.facts.height) == (100, 50)


def test_a_kept_file_carries_nothing_of_the_camera() -> None:
    """No place, no profile, no preview: what leaves Fitzle says nothing about where it was taken."""
    exif = Image.Exif()
    exif[0x010F] = "A made-up camera"
    material = material_of(read_artwork(saved(photo(90, 60), "JPEG", exif=exif), "a.jpg").source)
    assert b"made-up camera" not in file_of(material)
    assert not Image.open(io.BytesIO(file_of(material))).getexif()
