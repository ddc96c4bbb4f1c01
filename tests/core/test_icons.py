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
from fitzle.core.encode.wish import NO_WISH, Wish
from fitzle.core.errors import DocumentError, ValueOutOfRange
from fitzle.core.fit.deciding import decide, plan_fit
from fitzle.core.fit.icon_files import WORDS, icon_files
from fitzle.core.fit.keys import file_key
from fitzle.core.fit.making import Made, make_fit
from fitzle.core.fit.record import RenditionRecord, choice_of, record_of
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.fit.resolving import resolve
from fitzle.core.icons.kind import ICON_SET
from fitzle.core.icons.making import SAFE_RADIUS, IconSet, make_icon_set
from fitzle.core.icons.manifest import LONGEST_SHORT_NAME, Manifest, manifest_file, short_name
from fitzle.core.icons.svg_icon import STYLE
from fitzle.core.libvips import libvips
from fitzle.core.piece.document import Piece
from tests.core.judged import drawings
from tests.make import disc, saved, sheet

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


def composed(*marks: dict[str, object], ground: str | None = None, wish: Wish = NO_WISH, **keys: object) -> Made:
    """A piece of these parts as an icon set; marks name entries of the sample's."""
    parts: list[dict[str, object]] = [{"id": "ground", "role": "ground"}]
    if ground:
        parts[0]["fill"] = {"kind": "solid", "colour": ground}
    piece = Piece.model_validate({"fitzle_piece": 2, "subject": "Bells", "parts": [*parts, *marks]})
    names = {str(one["artwork"]) for one in marks if "artwork" in one}
    read = {name: mark(MARKS[name], name) for name in names}
    place = sheet(kind=ICON_SET, size={"width": 512, "height": 512}, formats=["png"], **keys)
    artworks = {name: FitArtwork(one.facts, name) for name, one in read.items()}
    sources = {name: one.source for name, one in read.items()}
    request = FitRequest(piece, place, place.placement, artworks, wish=wish)
    return make_fit(decide(plan_fit(request), sources), sources)


BADGE: dict[str, object] = {"id": "mark", "role": "mark", "artwork": "wheel-badge.svg"}


def files_of(made: Made) -> dict[str, bytes]:
    assert made.encoded
    return {"icon-512.png": made.encoded.data, **{one.name: one.data for one in made.choice.beside}}


def test_a_fit_of_this_kind_is_the_set_and_the_large_icon_is_the_fit() -> None:
    plain = composed({**BADGE, "padding": {"value": 30, "unit": "%"}})
    files = files_of(plain)
    assert {"favicon.ico", "icon.svg", "icon-192.png", "tab-16.png", "tab-32-dark.png"} <= files.keys()
    large, tiny = pixels(files["icon-512.png"]), pixels(files["tab-32.png"])
    across = [int(np.ptp(np.nonzero(one[..., 3].max(0) > 60)[0])) + 1 for one in (large, tiny)]
    assert across[0] < 512 * 0.5 and across[1] >= 31, "margins of the bench count where there is room, not in a tab"
    assert pixels(files["icon-192.png"]).shape[0] == 192


def test_its_ground_is_the_one_of_the_piece() -> None:
    files = files_of(composed(BADGE, ground="#b4541a"))
    assert tuple(pixels(files["touch-icon-180.png"])[0, 0, :3]) == (0xB4, 0x54, 0x1A)
    assert pixels(files["tab-16.png"])[0, 0, 3] < 9, "in a tab the mark stands alone"


def test_a_tint_reaches_every_icon() -> None:
    files = files_of(composed({**BADGE, "tint": "#0a7d32"}))
    assert b"#0a7d32" in files["icon.svg"].lower()
    for name in ("tab-32.png", "icon-512.png"):
        drawn = pixels(files[name])
        inside = drawn[drawn[..., 3] == 255][:, :3].astype(int)
        assert np.abs(inside - (0x0A, 0x7D, 0x32)).max() <= 2


def test_what_was_composed_of_several_parts_is_drawn_as_a_whole() -> None:
    second = {
        "id": "bell",
        "role": "mark",
        "artwork": "ding.svg",
        "stands": {"anchor": "bottom-right", "width": 0.3, "height": 0.3},
    }
    files = files_of(composed(BADGE, second))
    alone = files_of(composed(BADGE))
    assert files["tab-32.png"] != alone["tab-32.png"] and b"<svg" in files["icon.svg"]


def test_the_key_goes_by_name_and_folder_and_only_here() -> None:
    usual = composed(BADGE).decided.resolved
    moved = composed(BADGE, wish=Wish(path="/icons/")).decided.resolved
    assert file_key(usual) != file_key(moved)
    renamed = usual.request._replace(piece=usual.request.piece.model_copy(update={"subject": "Lamps"}))
    assert file_key(resolve(renamed)) != file_key(usual)
    other = renamed._replace(sheet=renamed.sheet.model_copy(update={"kind": None}))
    same = usual.request._replace(sheet=other.sheet)
    assert file_key(resolve(other)) == file_key(resolve(same)), "a picture has no name in it"


def test_records_carry_the_set_back_and_forth() -> None:
    made = composed(BADGE)
    record = record_of(made.choice, made.decided.plan.size)
    again = RenditionRecord.model_validate_json(record.model_dump_json())
    assert again == record and [one.name for one in icon_files(again)] == list(WORDS)
    assert choice_of(again).found == made.choice.found
