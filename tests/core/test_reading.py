"""Every format that is taken, what it really is, and what bad files are told."""

import struct
import time
import zlib

import numpy as np
import pytest
from PIL import Image, ImageCms

from fitzle.core.artwork.completeness import is_complete
from fitzle.core.artwork.limits import Limits
from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.sniff import sniff_format
from fitzle.core.errors import ArtworkError, HostileFileError, LimitError
from fitzle.core.geometry.rect import Rect
from fitzle.core.units import Size
from tests.make import disc, photo, saved, svg

FILES = {
    "png": saved(photo(), "PNG"),
    "jpeg": saved(photo(), "JPEG", quality=90),
    "webp": saved(photo(), "WEBP", quality=90),
    "gif": saved(photo().quantize(64), "GIF"),
    "bmp": saved(photo(), "BMP"),
}


@pytest.mark.parametrize("fmt", FILES)
def test_a_photo_is_a_picture_in_every_format(fmt: str) -> None:
    facts = read_artwork(FILES[fmt], f"a.{fmt}").facts
    assert (facts.format, facts.kind, facts.width, facts.height) == (fmt, "picture", 640, 400)
    assert (facts.transparency, facts.vector, facts.bytes) == ("none", False, len(FILES[fmt]))
    assert facts.trimmed.rect == Rect(0, 0, 640, 400)


@pytest.mark.parametrize("fmt", FILES)
def test_pixels_are_those_of_another_reader(fmt: str) -> None:
    """Decoded at full size every format agrees with Pillow to 2/255 on average (chroma upsampling differs)."""
    found = open_source(FILES[fmt]).pixels(Rect(0, 0, 640, 400), Size(640, 400))
    with Image.open(__import__("io").BytesIO(FILES[fmt])) as picture:
        expected = np.asarray(picture.convert("RGB"))
    assert found.shape == (400, 640, 4)
    assert np.abs(found[..., :3].astype(int) - expected).mean() < 2


def test_a_clear_mark_is_trimmed_to_the_pixel() -> None:
    facts = read_artwork(saved(disc(200, margin=20), "PNG"), "disc.png").facts
    assert facts.kind == "mark"
    assert facts.transparency in ("edges", "soft")
    assert facts.trimmed.rect == Rect(20, 20, 160, 160)
    assert (facts.weight.x, facts.weight.y) == (pytest.approx(0.5, abs=0.01), pytest.approx(0.5, abs=0.01))
    assert facts.reach == pytest.approx(0.707, abs=0.02)
    assert facts.colours[0].hex == "#1d3b4f"


@pytest.mark.parametrize(("fmt", "slack"), [("PNG", 0), ("BMP", 0), ("JPEG", 3)])
def test_a_flat_backdrop_is_found_and_trimmed(fmt: str, slack: int) -> None:
    """JPEG's ringing around the disc may add up to 3 px on a side."""
    facts = read_artwork(saved(disc(200, margin=30, ground="#f2e6d0"), fmt), "disc").facts
    assert facts.kind == "mark"
    assert facts.backdrop_colour is not None
    assert facts.trimmed.x == pytest.approx(30, abs=slack)
    assert facts.trimmed.width == pytest.approx(140, abs=2 * slack)


@pytest.mark.parametrize(("fmt", "slack"), [("PNG", 0), ("GIF", 0), ("WEBP", 3)])
def test_what_moves_on_a_flat_backdrop_is_trimmed_as_what_stands_still(fmt: str, slack: int) -> None:
    """Readers give moving pictures a band of alpha, although they are opaque."""
    first, *others = (disc(200, colour, 30, "#f2e6d0") for colour in ("#1d3b4f", "#b4541a", "#17443c"))
    facts = read_artwork(saved(first, fmt, save_all=True, append_images=others), "disc").facts
    assert (facts.frames, facts.backdrop_colour is not None) == (3, True)
    assert facts.trimmed.x == pytest.approx(30, abs=slack)
    assert facts.trimmed.width == pytest.approx(140, abs=2 * slack)


def test_orientation_is_applied() -> None:
    """EXIF 6: the camera was turned, so width and height swap and the left side comes to the top."""
    picture = Image.new("RGB", (60, 40), "#ffffff")
    picture.paste("#d01010", (0, 0, 30, 40))
    exif = Image.Exif()
    exif[0x0112] = 6
    art = read_artwork(saved(picture, "JPEG", quality=95, subsampling=0, exif=exif), "turned.jpg")
    assert (art.facts.width, art.facts.height) == (40, 60)
    pixels = art.source.pixels(Rect(0, 0, 40, 60), Size(40, 60))
    assert pixels[10, 20, 0] > 190
    assert pixels[10, 20, 1] < 60
    assert pixels[50, 20].min() > 240


def test_an_embedded_profile_is_converted_to_srgb() -> None:
    """The same numbers mean another colour under another profile; LAB white point D50 of Pillow's own profile."""
    profile = ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB"))
    plain = Image.new("RGB", (64, 64), "#4080c0")
    tagged = saved(plain, "PNG", icc_profile=profile.tobytes())
    found = open_source(tagged).pixels(Rect(0, 0, 64, 64), Size(64, 64))
    assert np.abs(found[32, 32, :3].astype(int) - (0x40, 0x80, 0xC0)).max() <= 1
    swapped = _profile_with_swapped_red_and_blue(profile.tobytes())
    turned = open_source(saved(plain, "PNG", icc_profile=swapped)).pixels(Rect(0, 0, 64, 64), Size(64, 64))
    assert turned[32, 32, 0] > 150
    assert turned[32, 32, 2] < 110


def _profile_with_swapped_red_and_blue(profile: bytes) -> bytes:
    """An ICC profile whose red and blue primaries are exchanged (tags rXYZ and bXYZ)."""
    return profile.replace(b"rXYZ", b"tmp0").replace(b"bXYZ", b"rXYZ").replace(b"tmp0", b"bXYZ")


def test_a_grey_png_with_sixteen_bits_is_read() -> None:
    deep = Image.fromarray((np.linspace(0, 65535, 64 * 64).reshape(64, 64)).astype(np.uint16))
    assert read_artwork(saved(deep, "PNG"), "deep.png").facts.width == 64


def test_a_cmyk_jpeg_becomes_srgb() -> None:
    facts = read_artwork(saved(photo(64, 64).convert("CMYK"), "JPEG"), "print.jpg").facts
    assert facts.colours


def test_scaling_a_clear_mark_leaves_no_dark_fringe() -> None:
    """Premultiplied throughout: a white disc on clear stays white to its last pixel."""
    source = open_source(saved(disc(400, "#ffffff"), "PNG"))
    pixels = source.pixels(Rect(0, 0, 400, 400), Size(37, 37)).astype(float)
    shown = pixels[..., 3] > 0
    assert np.abs(pixels[..., :3] - pixels[..., 3:])[shown].max() <= 2


def test_an_svg_is_a_crisp_mark_of_its_own_size() -> None:
    facts = read_artwork(svg(more='width="20mm"'), "mark.svg").facts
    assert facts.vector
    assert facts.width == pytest.approx(20 * 96 / 25.4, abs=0.01)
    assert facts.height == pytest.approx(facts.width / 2, abs=0.01)
    assert facts.trimmed.width == pytest.approx(facts.height * 0.8, rel=0.02)


def test_a_window_of_an_svg_is_drawn_exactly() -> None:
    source = open_source(svg('<rect x="10" y="10" width="40" height="20" fill="#000"/>'))
    pixels = source.pixels(Rect(10, 10, 40, 20), Size(160, 80))
    assert pixels[..., 3].min() == 255


def test_the_first_frame_of_an_animation_is_used_and_said() -> None:
    frames = [Image.new("RGB", (32, 32), colour) for colour in ("#ff0000", "#00ff00")]
    data = saved(frames[0], "GIF", save_all=True, append_images=frames[1:])
    facts = read_artwork(data, "two.gif").facts
    assert facts.frames == 2
    assert "first one stands" in " ".join(facts.warnings)


def test_a_mislabelled_file_is_read_by_its_content_and_said() -> None:
    facts = read_artwork(FILES["jpeg"], "logo.png").facts
    assert facts.format == "jpeg"
    assert facts.warnings == ("It is called .png but is really a JPEG.",)


@pytest.mark.parametrize("fmt", FILES)
@pytest.mark.parametrize("share", [0.02, 0.5, 0.97])
def test_a_cut_off_file_is_told_so(fmt: str, share: float) -> None:
    data = FILES[fmt][: int(len(FILES[fmt]) * share)]
    with pytest.raises(ArtworkError, match="cut off|not a picture|damaged"):
        read_artwork(data, "cut.bin")
    assert is_complete(fmt, FILES[fmt])


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (b"", "empty"), (b"hello world", "not a picture"), (b"%PDF-1.7 ...", "the PDF is damaged"),
        (b"\x00" * 5000, "not a picture"), (b"PK\x03\x04....", "ZIP"), (b"\x00\x00\x00\x18ftypheic....", "cut off"),
        (b"\x89PNG\r\n\x1a\n" + b"\x00" * 100, "cut off"), (b"<html><body>svg</body></html>", "XML but not an SVG"),
    ],
)  # fmt: skip
def test_other_files_are_named_for_what_they_are(data: bytes, words: str) -> None:
    with pytest.raises(ArtworkError, match=words) as caught:
        read_artwork(data, "thing.png")
    assert caught.value.message.startswith("thing.png: ")


def png_claiming(width: int, height: int) -> bytes:
    """A tiny PNG whose header claims any size."""

    def chunk(kind: bytes, body: bytes) -> bytes:
        return struct.pack(">I", len(body)) + kind + body + struct.pack(">I", zlib.crc32(kind + body))

    header = chunk(b"IHDR", struct.pack(">IIBBBBB", width, height, 8, 2, 0, 0, 0))
    return b"\x89PNG\r\n\x1a\n" + header + chunk(b"IDAT", zlib.compress(b"\x00" * 100)) + chunk(b"IEND", b"")


@pytest.mark.parametrize(("width", "height"), [(60_000, 60_000), (65_535, 2_000), (20_000, 6_000)])
def test_too_many_pixels_are_refused_before_decoding(width: int, height: int) -> None:
    started = time.process_time()
    with pytest.raises(LimitError, match="megapixels|too large"):
        read_artwork(png_claiming(width, height), "bomb.png")
    assert time.process_time() - started < 2


def test_a_lying_header_is_told_as_damage() -> None:
    with pytest.raises(ArtworkError, match="ends too early"):
        read_artwork(png_claiming(4000, 4000), "liar.png")


def test_a_heavy_file_is_refused_by_its_bytes() -> None:
    with pytest.raises(LimitError, match="too heavy"):
        read_artwork(FILES["png"], "a.png", Limits(max_bytes=1000))


def test_formats_are_known_by_content() -> None:
    assert [sniff_format(data) for data in FILES.values()] == list(FILES)
    assert sniff_format("<svg/>".encode("utf-16")) == "svg"


LOL = '<!DOCTYPE svg [<!ENTITY a "lol"><!ENTITY b "&a;&a;&a;&a;">]>'
USE_BOMB = '<g id="a0"><rect width="1" height="1"/></g>' + "".join(
    f'<g id="a{n}">' + f'<use href="#a{n - 1}"/>' * 10 + "</g>" for n in range(1, 12)
)
HOSTILE = {
    "script": svg("<script>alert(1)</script>"),
    "handler": svg('<rect onload="x()" width="1" height="1"/>'),
    "foreign object": svg("<foreignObject/>"),
    "remote image": svg('<image href="http://203.0.113.9/x.png" width="9" height="9"/>'),
    "file image": svg('<image href="file:///etc/passwd" width="9" height="9"/>'),
    "old href": svg('<image xmlns:xlink="http://www.w3.org/1999/xlink" xlink:href="//x/y.png" width="9" height="9"/>'),
    "nested svg": svg('<image href="data:image/svg+xml;base64,PHN2Zy8+" width="9" height="9"/>'),
    "remote use": svg('<use href="http://203.0.113.9/a.svg#b"/>'),
    "remote fill": svg('<rect fill="url(http://203.0.113.9/#a)" width="9" height="9"/>'),
    "style import": svg("<style>@import url(//203.0.113.9/a.css);</style>"),
    "style url": svg('<rect style="fill:url( \'http://203.0.113.9/a\')" width="9" height="9"/>'),
    "escaped style": svg('<rect style="fill:u\\72l(//203.0.113.9)" width="9" height="9"/>'),
    "entities": LOL.encode() + svg("<title>&b;</title>"),
    "entities in UTF-16": (LOL + svg("<title>&b;</title>").decode()).encode("utf-16"),
    "external entity": b'<!DOCTYPE svg [<!ENTITY x SYSTEM "file:///etc/passwd">]>' + svg("<title>&x;</title>"),
    "use bomb": svg(USE_BOMB),
    "use circle": svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'),
    "pattern circle": svg('<pattern id="p"><rect fill="url(#p)"/></pattern><rect fill="url(#p)"/>'),
    "deep nesting": svg("<g>" * 5000 + "</g>" * 5000),
    "many elements": svg("<rect/>" * 60_000),
    "many filters": svg("<filter>" + "<feGaussianBlur/>" * 200 + "</filter>"),
    "absurd view": svg(view="0 0 1e99 1e99"),
    "no area": svg(view="0 0 0 10"),
    "not a number": svg(view="0 0 nan 5"),
    "endless strip": svg(view="0 0 100000 1"),
}


def in_utf16(data: bytes) -> bytes:
    """The same document in the other encoding that every XML reader must know (XML 1.0, 4.3.3)."""
    return data if data[:2] in (b"\xff\xfe", b"\xfe\xff") else data.decode().encode("utf-16")


@pytest.mark.parametrize("wide", [False, True])
@pytest.mark.parametrize("attack", HOSTILE)
def test_a_hostile_svg_is_refused_quickly_with_words(attack: str, wide: bool) -> None:
    data = in_utf16(HOSTILE[attack]) if wide else HOSTILE[attack]
    started = time.process_time()
    with pytest.raises((ArtworkError, HostileFileError, LimitError)) as caught:
        read_artwork(data, "attack.svg")
    assert time.process_time() - started < 5
    assert caught.value.message.startswith("attack.svg: ")
    assert len(caught.value.message) < 400


def test_a_plain_doctype_and_an_editor_s_own_notes_do_no_harm() -> None:
    doctype = b'<!DOCTYPE svg PUBLIC "-//W3C//DTD SVG 1.1//EN" "http://www.w3.org/Graphics/SVG/1.1/DTD/svg11.dtd">'
    noted = svg(more='xmlns:ed="http://ed.example/" ed:version="3"', body='<ed:grid/><rect width="50" height="50"/>')
    assert read_artwork(doctype + noted, "noted.svg").facts.trimmed.width == pytest.approx(50, abs=1)


def test_absurd_dimensions_are_brought_down() -> None:
    facts = read_artwork(svg(more='width="9999999"'), "wide.svg").facts
    assert facts.width <= 20_000


def test_an_embedded_picture_is_drawn() -> None:
    import base64

    inner = base64.b64encode(saved(Image.new("RGB", (8, 8), "#ff0000"), "PNG")).decode()
    data = svg(f'<image href="data:image/png;base64,{inner}" width="100" height="50"/>')
    assert read_artwork(data, "wrap.svg").facts.colours[0].hex == "#ff0000"
