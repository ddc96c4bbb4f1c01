"""A site's icon set: every file, what stands in it, and what is said where a mark does not suit."""

from __future__ import annotations

import io
import json
import re

import numpy as np
import pytest
from demo.marks import MARKS
from PIL import Image

from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import DocumentError, ValueOutOfRange
from fitzle.core.icons.making import SAFE_RADIUS, IconSet, make_icon_set
from fitzle.core.icons.manifest import LONGEST_SHORT_NAME, Manifest, manifest_file, short_name
from fitzle.core.icons.svg_icon import STYLE
from fitzle.core.libvips import libvips
from tests.core.judged import drawings
from tests.make import disc, saved

NAME = "Ottermoor Cycle Works"
PNGS = {
    "touch-icon-180.png": (180, 180), "icon-192.png": (192, 192), "icon-512.png": (512, 512),
    "icon-maskable-512.png": (512, 512), "link-preview.png": (1200, 630),
}  # fmt: skip


def mark(data: str | bytes, name: str = "mark.svg") -> Artwork:
    return read_artwork(data.encode() if isinstance(data, str) else data, name)


def pixels(data: bytes) -> Pixels:
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA"))


@pytest.fixture(scope="module")
def badge() -> IconSet:
    return make_icon_set(mark(MARKS["wheel-badge.svg"]), NAME, path="/icons")


def test_all_files_are_there_in_their_sizes(badge: IconSet) -> None:
    assert list(badge.files) == ["favicon.ico", "icon.svg", *PNGS, "site.webmanifest", "icons.html"]
    for name, size in PNGS.items():
        picture = Image.open(io.BytesIO(badge.files[name]))
        assert (picture.format, picture.size) == ("PNG", size) and not picture.info.get("icc_profile")
    icon = Image.open(io.BytesIO(badge.files["favicon.ico"]))
    assert sorted(icon.info["sizes"]) == [(16, 16), (32, 32), (48, 48)]


def test_each_entry_of_the_ico_was_drawn_at_its_own_size(badge: IconSet) -> None:
    icon = Image.open(io.BytesIO(badge.files["favicon.ico"]))
    for side in (16, 32, 48):
        shown = np.asarray(icon.ico.getimage((side, side)).convert("RGBA"))  # type: ignore[attr-defined]
        assert shown.shape == (side, side, 4)
        assert shown[..., 3].max() == 255 and shown[0, 0, 3] < 128, "a badge is round"
        filled = np.argwhere(shown[..., 3] > 60)
        assert (filled.max(0) - filled.min(0)).max() >= side - 2, "no room is given away where px are few"


def test_what_may_not_be_clear_has_a_ground(badge: IconSet) -> None:
    for name in ("touch-icon-180.png", "icon-maskable-512.png", "link-preview.png"):
        assert pixels(badge.files[name])[..., 3].min() == 255
    assert pixels(badge.files["icon-512.png"])[..., 3].min() == 0
    red = make_icon_set(mark(MARKS["wheel-glyph.svg"]), NAME, ground="#b4541a")
    corner = pixels(red.files["touch-icon-180.png"])[0, 0]
    assert tuple(corner[:3]) == (0xB4, 0x54, 0x1A) and red.ground == "#b4541a"


@pytest.mark.parametrize(
    "drawing",
    [MARKS["wheel-badge.svg"], MARKS["ottermoor-dark.svg"], drawings.star("#17443c"), drawings.two_bars("#7a3b14"),
     drawings.drop("#17443c"), drawings.gear("#17443c", 9)],
    ids=["badge", "words", "star", "bars", "drop", "gear"],
)  # fmt: skip
def test_the_maskable_icon_keeps_to_its_circle_and_fills_it(drawing: str) -> None:
    found = make_icon_set(mark(drawing), NAME, ground="#fffdf7")
    drawn = pixels(found.files["icon-maskable-512.png"])
    reach = _farthest(drawn, "#fffdf7")
    assert 0.37 <= reach <= SAFE_RADIUS and found.safe_reach == pytest.approx(reach, abs=0.005)


def _farthest(drawn: Pixels, ground: str) -> float:
    """By going around in circles: how far out anything is not the ground's colour."""
    behind = Image.new("RGB", (1, 1), ground).getpixel((0, 0))
    y, x = np.mgrid[: drawn.shape[0], : drawn.shape[1]] + 0.5
    radius = np.hypot(x - drawn.shape[1] / 2, y - drawn.shape[0] / 2)
    return float(radius[np.abs(drawn[..., :3].astype(int) - behind).max(-1) > 6].max() / drawn.shape[0])


def test_a_badge_goes_on_to_the_edge_of_what_is_cut(badge: IconSet) -> None:
    """Its own colour is the ground: no badge in a box of another colour."""
    assert badge.ground == "#17443c"
    touch = pixels(badge.files["touch-icon-180.png"])
    assert {tuple(touch[y, x, :3]) for y in (0, 179) for x in (0, 179)} == {(0x17, 0x44, 0x3C)}
    drawn = pixels(badge.files["icon-maskable-512.png"])
    assert 0.3 <= _farthest(drawn, "#17443c") <= SAFE_RADIUS


def _svg_on(data: bytes, dark: bool) -> Pixels:
    """The icon as a browser of one colour scheme shows it."""
    text = data.decode()
    if dark:  # librsvg, which draws here, knows no colour scheme
        text = text.replace(STYLE, ".icon-light{display:none}")
    image = libvips().Image.svgload_buffer(text.encode(), scale=4)
    return np.asarray(image.numpy())


def test_the_svg_follows_the_colour_scheme() -> None:
    found = make_icon_set(mark(drawings.star("#101820")), NAME)
    assert found.dark and b"prefers-color-scheme:dark" in found.files["icon.svg"]
    light, dark = (_svg_on(found.files["icon.svg"], dark) for dark in (False, True))
    middle = light.shape[0] // 2
    assert light[middle, middle, :3].mean() < 60 and dark[middle, middle, :3].mean() > 120
    told = make_icon_set(mark(drawings.star("#101820")), NAME, dark=mark(drawings.star("#f4d06f")))
    assert tuple(_svg_on(told.files["icon.svg"], True)[middle, middle, :3]) == (0xF4, 0xD0, 0x6F)


def test_a_mark_that_shows_on_both_needs_no_dark_version() -> None:
    found = make_icon_set(mark(drawings.star("#d9622b")), NAME)
    assert not found.dark and b"prefers-color-scheme" not in found.files["icon.svg"]


def test_a_crest_is_simpler_where_it_is_tiny() -> None:
    found = make_icon_set(mark(drawings.crest(2, "#17443c", "#f4d06f")), NAME)
    assert 16 in found.simpler_at and "smudge" not in {one.rule for one in found.findings}


def test_what_no_version_helps_is_said() -> None:
    words = make_icon_set(mark(MARKS["ottermoor-dark.svg"]), NAME)
    assert [one for one in words.findings if one.rule == "smudge" and "16 px" in one.message]
    opaque = make_icon_set(mark(drawings.boxed("#ffffff", "#b4541a"), "box.png"), NAME)
    assert [one.severity for one in opaque.findings if one.rule == "box"] == ["note"] and opaque.ground == "#ffffff"


def test_a_bitmap_becomes_a_set_too() -> None:
    found = make_icon_set(mark(saved(disc(300), "PNG"), "disc.png"), NAME)
    assert b"data:image/png;base64," in found.files["icon.svg"]
    assert _svg_on(found.files["icon.svg"], False).shape[0] == 256


def test_the_manifest_says_what_is_there(badge: IconSet) -> None:
    told = json.loads(badge.files["site.webmanifest"])
    Manifest.model_validate(told)
    assert told["name"] == NAME and len(told["short_name"]) <= LONGEST_SHORT_NAME
    names = {one["src"].removeprefix("/icons/") for one in told["icons"]}
    assert names <= badge.files.keys() and {one.get("purpose") for one in told["icons"]} == {"any", "maskable"}
    for one in told["icons"]:
        if one["sizes"] != "any":
            size = Image.open(io.BytesIO(badge.files[one["src"].removeprefix("/icons/")])).size
            assert one["sizes"] == f"{size[0]}x{size[1]}"
    lines = badge.files["icons.html"].decode()
    assert {
        name.removeprefix("/icons/") for name in re.findall(r'(?:href|content)="(/[^"]+)"', lines)
    } <= badge.files.keys()


@pytest.mark.parametrize(
    ("name", "short"),
    [(NAME, "Ottermoor"), ("Bells", "Bells"), ("True a wheel", "True a wheel"), ("Fahrradwerkstatt", "Fahrradwerks")],
)
def test_short_names_are_whole_words_where_they_can_be(name: str, short: str) -> None:
    assert short_name(name) == short


def test_names_cannot_break_out_of_the_page() -> None:
    found = make_icon_set(mark(drawings.disc("#17443c")), '"><script>alert(1)</script>')
    assert b"<script>" not in found.files["icons.html"]
    assert json.loads(found.files["site.webmanifest"])["name"] == '"><script>alert(1)</script>'


@pytest.mark.parametrize("path", ["/../x", "a b", "/x?y", "/ü", "<x>"])
def test_a_path_that_is_none_is_refused(path: str) -> None:
    with pytest.raises(ValueOutOfRange, match="no path"):
        make_icon_set(mark(drawings.disc("#17443c")), NAME, path=path)


def test_a_manifest_that_would_be_none_is_refused() -> None:
    with pytest.raises(DocumentError):
        manifest_file("", "#ffffff", "/")
    with pytest.raises(DocumentError):
        manifest_file(NAME, "red", "/")


def test_the_same_mark_gives_the_same_bytes() -> None:
    sets = [make_icon_set(mark(MARKS["wheel-badge.svg"]), NAME).files for _ in range(2)]
    assert sets[0] == sets[1]
