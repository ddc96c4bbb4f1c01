"""Formats beyond the usual ones, written by other libraries than the ones that read them."""

import base64
import gzip
import io
import struct

import cv2
import numpy as np
import pytest
from PIL import Image, ImageCms

from fitzle.core.artwork.opening import open_source
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.straight import whole_picture
from fitzle.core.colour.oklab import difference
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.errors import ArtworkError, LimitError
from tests.hostile import heic
from tests.make import disc, photo, saved, svg

ICON_SIZES = [(16, 16), (48, 48), (128, 128)]


def cmyk(picture: Image.Image) -> bytes:
    return saved(picture.convert("CMYK"), "JPEG", quality=95)


PHOTO = photo()
FILES = {
    "tiff": saved(PHOTO, "TIFF", compression="tiff_lzw"),
    "avif": saved(PHOTO, "AVIF", quality=90),
    "heic": heic(PHOTO, quality=90),
}
MARKS = {
    "tiff": saved(disc(), "TIFF"),
    "avif": saved(disc(), "AVIF", quality=95),
    "heic": heic(disc(), quality=-1),
    "ico": saved(disc(128, margin=10), "ICO", sizes=ICON_SIZES),
    "png": saved(disc(), "PNG", save_all=True, append_images=[disc(colour="#b4541a")], duration=100),
    "webp": saved(disc(), "WEBP", save_all=True, append_images=[disc(colour="#b4541a")], duration=100),
}


@pytest.mark.parametrize("fmt", FILES)
def test_a_photo_is_read_as_another_reader_sees_it(fmt: str) -> None:
    """To 3 of 255 on average: the codecs that lose something were told to lose little."""
    artwork = read_artwork(FILES[fmt], f"a.{fmt}")
    assert (artwork.facts.format, artwork.facts.kind) == (fmt, "picture")
    assert (artwork.facts.width, artwork.facts.height) == (640, 400)
    assert np.abs(whole_picture(artwork.source)[..., :3].astype(int) - np.asarray(PHOTO)).mean() < 3


@pytest.mark.parametrize(
    ("ending", "fmt", "slack"),
    [("png", "png", 0), ("bmp", "bmp", 0), ("tiff", "tiff", 0), ("jpg", "jpeg", 4), ("webp", "webp", 4),
     ("avif", "avif", 4), ("gif", "gif", 18)],
)  # fmt: skip
def test_what_opencv_writes_is_read(ending: str, fmt: str, slack: int) -> None:
    """A second writer beside Pillow, to what the codec costs; its GIF has 216 colours."""
    pixels = np.asarray(PHOTO)
    done, data = cv2.imencode(f".{ending}", np.ascontiguousarray(pixels[..., ::-1]))
    assert done
    artwork = read_artwork(data.tobytes(), f"a.{ending}")
    assert (artwork.facts.format, artwork.facts.width, artwork.facts.height) == (fmt, 640, 400)
    assert np.abs(whole_picture(artwork.source)[..., :3].astype(int) - pixels).mean() <= slack


def old_icon() -> bytes:
    """An icon as they were before PNG: two entries of bottom-up BGRA with a mask (no writer of ours makes these)."""
    entries, bodies = [], []
    for side, colour in ((16, (20, 30, 200, 255)), (32, (60, 68, 23, 255))):
        rows = bytes(colour) * side * side
        mask = bytes((side + 31) // 32 * 4 * side)
        bodies.append(struct.pack("<IiiHHIIiiII", 40, side, 2 * side, 1, 32, 0, 0, 0, 0, 0, 0) + rows + mask)
    at = 6 + 16 * len(bodies)
    for side, body in zip((16, 32), bodies, strict=True):
        entries.append(struct.pack("<BBBBHHII", side, side, 0, 0, 1, 32, len(body), at))
        at += len(body)
    return struct.pack("<HHH", 0, 1, len(bodies)) + b"".join(entries) + b"".join(bodies)


def test_an_icon_of_the_old_kind_is_read() -> None:
    facts = read_artwork(old_icon(), "favicon.ico").facts
    assert (facts.format, facts.width, facts.height) == ("ico", 32, 32)
    assert facts.colours[0].hex == "#17443c"


@pytest.mark.parametrize("fmt", MARKS)
def test_a_clear_mark_keeps_its_transparency(fmt: str) -> None:
    facts = read_artwork(MARKS[fmt], f"a.{fmt}").facts
    assert (facts.format, facts.kind, facts.has_alpha) == (fmt, "mark", True)
    assert difference(parse_hex(facts.colours[0].hex), parse_hex("#1d3b4f")) < 0.01


def test_of_an_icon_the_largest_entry_is_taken() -> None:
    facts = read_artwork(MARKS["ico"], "favicon.ico").facts
    assert (facts.width, facts.height) == (128, 128)


@pytest.mark.parametrize("fmt", ["png", "webp"])
def test_of_something_that_moves_the_first_frame_is_taken_and_said_so(fmt: str) -> None:
    facts = read_artwork(MARKS[fmt], f"a.{fmt}").facts
    assert any("frame" in warning for warning in facts.warnings) == (facts.frames > 1)
    assert difference(parse_hex(facts.colours[0].hex), parse_hex("#1d3b4f")) < 0.01


def test_a_cmyk_jpeg_comes_out_in_its_colours() -> None:
    """Without a profile the conversion is by convention: a plain red stays a red, to 40 of 255 in each channel."""
    red = Image.new("RGB", (64, 64), (200, 30, 40))
    pixels = whole_picture(open_source(cmyk(red)))[32, 32, :3].astype(int)
    assert np.abs(pixels - (200, 30, 40)).max() < 40


@pytest.mark.parametrize("fmt", ["TIFF", "PNG", "AVIF", "HEIC"])
def test_a_colour_profile_is_applied(fmt: str) -> None:
    """A profile with another gamma: the same numbers are other colours. Expected is what littlecms makes of them."""
    profile = ImageCms.ImageCmsProfile(io.BytesIO(gamma_profile()))
    picture = Image.new("RGB", (64, 64), (180, 90, 60))
    expected = ImageCms.profileToProfile(picture, profile, ImageCms.createProfile("sRGB")).getpixel((0, 0))
    if fmt == "HEIC":
        picture.info["icc_profile"] = gamma_profile()
        data = heic(picture, quality=-1)
    else:
        data = saved(picture, fmt, icc_profile=gamma_profile(), **({"quality": 100} if fmt == "AVIF" else {}))
    pixels = whole_picture(open_source(data))[32, 32, :3].astype(int)
    assert np.abs(pixels - expected).max() <= 4
    assert np.abs(pixels - (180, 90, 60)).max() > 10


def gamma_profile() -> bytes:
    """sRGB's own profile with its tone curves replaced by a plain gamma of 1.4 (ICC.1:2010, 10.5, curveType)."""
    data = bytearray(ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB")).tobytes())
    count = int.from_bytes(data[128:132], "big")
    tags = [data[132 + 12 * entry : 144 + 12 * entry] for entry in range(count)]
    for tag in tags:
        if tag[:4] in (b"rTRC", b"gTRC", b"bTRC"):
            at = int.from_bytes(tag[4:8], "big")
            data[at : at + 14] = b"curv" + bytes(4) + (1).to_bytes(4, "big") + round(1.4 * 256).to_bytes(2, "big")
    return bytes(data)


@pytest.mark.parametrize("orientation", [3, 6, 8])
def test_a_turned_tiff_is_upright(orientation: int) -> None:
    exif = Image.Exif()
    exif[0x0112] = orientation
    picture = Image.new("RGB", (60, 40), "#1d3b4f")
    facts = read_artwork(saved(picture, "TIFF", exif=exif), "scan.tif").facts
    assert (facts.width, facts.height) == ((60, 40) if orientation == 3 else (40, 60))


def test_a_packed_svg_is_an_svg() -> None:
    facts = read_artwork(gzip.compress(svg(), mtime=0), "mark.svgz").facts
    assert (facts.format, facts.vector, facts.kind) == ("svg", True, "mark")
    assert not facts.warnings


def test_a_packed_bomb_is_stopped_before_it_fills_the_memory() -> None:
    bomb = gzip.compress(b"<svg>" + b" " * 60_000_000)
    with pytest.raises(LimitError, match="too large"):
        read_artwork(bomb, "bomb.svgz")


@pytest.mark.parametrize(
    ("data", "words"),
    [
        (gzip.compress(svg(), mtime=0)[:-12], "cut off"),
        (b"\x1f\x8b\x08" + b"\xff" * 200, "damaged"),
        (gzip.compress(b"hello", mtime=0), "not a picture"),
        (MARKS["ico"][:40], "cut off"),
        (FILES["avif"][:-50], "cut off"),
        (FILES["heic"][:-50], "cut off"),
        (FILES["tiff"][:3000], "damaged|cut off"),
        (b"II*\x00" + b"\x00" * 40, "damaged"),
        (b"\x00\x00\x01\x00\x00\x00", "cut off|damaged"),
    ],
)
def test_broken_files_are_told_what_is_wrong(data: bytes, words: str) -> None:
    with pytest.raises(ArtworkError, match=words):
        read_artwork(data, "thing.bin")


def test_a_wrong_ending_is_named() -> None:
    assert read_artwork(FILES["tiff"], "scan.png").facts.warnings == ("It is called .png but is really a TIFF.",)
    assert not read_artwork(FILES["tiff"], "scan.tif").facts.warnings
    assert not read_artwork(FILES["heic"], "IMG.HEIF").facts.warnings


def wrapping(more: str = "") -> bytes:
    picture = base64.b64encode(saved(photo(120, 80), "PNG")).decode()
    image = f'<image width="600" height="400" href="data:image/png;base64,{picture}"/>'
    return svg(image + more, "0 0 600 400", 'width="600" height="400"')


def test_an_svg_that_only_wraps_a_bitmap_is_found_out() -> None:
    facts = read_artwork(wrapping(), "logo.svg").facts
    assert (facts.format, facts.vector, facts.detail_px, facts.crisp_dense_px) == ("svg", False, 120, 60)
    assert any("only wraps a bitmap that is 120 px long" in warning for warning in facts.warnings)


@pytest.mark.parametrize(
    ("more", "vector"),
    [
        ('<rect width="50" height="50"/>', True),
        ('<clipPath id="a"><rect width="50" height="50"/></clipPath>', False),
    ],
)
def test_a_drawing_with_a_bitmap_in_it_stays_a_drawing(more: str, vector: bool) -> None:
    assert read_artwork(wrapping(more), "logo.svg").facts.vector is vector
