"""Scenes: for every kind of place, worked out for any picture, drawn, seen by others, on a sheet for a client."""

import io

import numpy as np
import pypdf
import pytest
from PIL import Image

from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import DocumentError
from fitzle.core.findings import Finding
from fitzle.core.scenes.drawing import scene_pixels
from fitzle.core.scenes.items import BoxItem, DrawnScene, NeighbourItem, PictureItem, WordsItem
from fitzle.core.scenes.masks import outline_of
from fitzle.core.scenes.proof_sheet import PAGE_HEIGHT, PNG_SCALE, SheetOf, pdf_of, png_of
from fitzle.core.scenes.scene import PictureLayer, Scene, Variant, all_scenes
from fitzle.core.scenes.sight import SIGHTS, as_seen
from fitzle.core.scenes.working_out import scene_named, scenes_for, worked_out
from fitzle.core.spec.catalogue import catalogue
from fitzle.core.units import Size
from tests.make import photo, sheet

WIDE, TALL, SQUARE = Size(1280, 320), Size(320, 1280), Size(512, 512)
RED = np.zeros((90, 160, 4), np.uint8) + np.array([200, 30, 20, 255], np.uint8)


def alone(**layer: object) -> Scene:
    """A scene with nothing but the picture."""
    place = PictureLayer(**{"x": 100, "y": 50, "width": 200, "height": 100, **layer})
    return Scene(id="x", name="X", width=400, height=200, layers=(place,))


def all_red(scenes: list[DrawnScene]) -> tuple[list[DrawnScene], dict[str, Pixels]]:
    return scenes, {scene.id: RED for scene in scenes}


def test_every_kind_of_place_has_scenes_of_its_own_and_every_scene_a_kind() -> None:
    kinds = {place.kind for place in catalogue()}
    shown = {kind for scene in all_scenes() for kind in scene.kinds}
    assert shown == kinds
    ids = [f"{scene.id}:{variant.id}" for scene in all_scenes() for variant in scene.variants]
    assert len(ids) == len(set(ids)) >= 60


@pytest.mark.parametrize("size", [WIDE, TALL, SQUARE, Size(16, 16), Size(4096, 64)], ids=str)
def test_in_every_scene_the_picture_shows_whatever_its_shape(size: Size) -> None:
    for place in catalogue():
        for scene in scenes_for(place.sheet, size):
            picture = scene.picture
            assert picture.clip.width > 0 and picture.clip.height > 0, scene.id
            assert picture.width / picture.height == pytest.approx(size.ratio, rel=0.02), f"{scene.id} stretches it"
            assert picture.x < picture.clip.x + picture.clip.width and picture.clip.x < picture.x + picture.width
            if not scene.id.startswith("page"):
                assert picture.clip.x >= -1 and picture.clip.x + picture.clip.width <= scene.width + 1, scene.id


@pytest.mark.parametrize(
    ("layer", "size", "clip", "drawn"),
    [
        ({"fit": "fill"}, Size(400, 100), (100, 50, 200, 100), (0, 50, 400, 100)),
        ({"fit": "fill"}, Size(100, 200), (100, 50, 200, 100), (100, -100, 200, 400)),
        ({"fit": "whole"}, Size(400, 100), (100, 75, 200, 50), (100, 75, 200, 50)),
        ({"fit": "whole", "align": "left"}, Size(100, 100), (100, 50, 100, 100), (100, 50, 100, 100)),
        ({"fit": "whole", "align": "right"}, Size(100, 100), (200, 50, 100, 100), (200, 50, 100, 100)),
        ({"fit": "width"}, Size(400, 100), (100, 50, 200, 50), (100, 50, 200, 50)),
        ({"fit": "width"}, Size(100, 400), (100, 50, 200, 100), (100, -300, 200, 800)),
    ],
)
def test_the_picture_stands_as_the_destination_puts_it(
    layer: dict[str, str], size: Size, clip: tuple[float, ...], drawn: tuple[float, ...]
) -> None:
    picture = worked_out(alone(**layer), Variant(id="", name=""), sheet(), size).picture
    assert (picture.clip.x, picture.clip.y, picture.clip.width, picture.clip.height) == pytest.approx(clip)
    assert (picture.x, picture.y, picture.width, picture.height) == pytest.approx(drawn)


def test_a_window_shows_its_part_alone() -> None:
    window = {"name": "phone", "x": 0.25, "y": 0.5, "width": 0.5, "height": 0.25}
    place = sheet(windows=[window])
    picture = worked_out(alone(window=0), Variant(id="", name=""), place, Size(800, 800)).picture
    assert (picture.width, picture.height) == pytest.approx((400, 400)), "half of its width fills the place"
    assert picture.x == pytest.approx(100 - 100) and picture.y == pytest.approx(50 - 200)


def test_veil_cut_and_covered_zones_are_those_of_the_sheet() -> None:
    zone = {"x": 0.5, "y": 0.5, "width": 0.5, "height": 0.5, "label": "time"}
    place = sheet(covered=[zone], veil={"colour": "#000000", "opacity": 0.5}, mask={"shape": "circle"})
    scene = worked_out(alone(), Variant(id="", name=""), place, Size(200, 100))
    picture, box, words = scene.items
    assert isinstance(picture, PictureItem) and isinstance(box, BoxItem) and isinstance(words, WordsItem)
    assert (picture.veil, picture.veil_opacity, picture.clip.mask) == ("#000000", 0.5, "circle")
    assert (box.x, box.y, box.width, box.height) == pytest.approx((200, 100, 100, 50))
    assert words.text == "time"
    pixels = scene_pixels(scene, RED)
    assert tuple(pixels[75, 200, :3]) == pytest.approx((100, 15, 10), abs=2), "veiled"
    assert tuple(pixels[60, 110, :3]) == (255, 255, 255), "cut off by the circle"


def test_perspective_brings_the_corners_where_they_belong() -> None:
    corners = ((120, 60), (280, 60), (380, 180), (20, 180))
    scene = worked_out(alone(corners=corners), Variant(id="", name=""), sheet(), Size(200, 100))
    matrix = np.array(scene.picture.perspective).reshape(3, 3)
    for (x, y), wanted in zip([(100, 50), (300, 50), (300, 150), (100, 150)], corners, strict=True):
        mapped = matrix @ np.array([x, y, 1])
        assert mapped[:2] / mapped[2] == pytest.approx(wanted, abs=0.01)
    pixels = scene_pixels(scene, RED)
    assert tuple(pixels[170, 40, :3]) == (200, 30, 20) and tuple(pixels[70, 40, :3]) == (255, 255, 255)


@pytest.mark.parametrize("mask", ["circle", "rounded", "squircle"])
def test_masks_are_inside_of_their_box(mask: str) -> None:
    frame = worked_out(alone(mask=mask), Variant(id="", name=""), sheet(), SQUARE).picture.clip
    path = outline_of(frame)
    assert path and frame.outline.startswith("M")
    bounds = path.bounds()
    assert bounds.x >= -0.01 and bounds.right <= frame.width + 0.01 and bounds.bottom <= frame.height + 0.01


@pytest.mark.parametrize("keys", [{}, {"seen": [], "grounds": []}, {"kind": "tab"}])
def test_a_place_that_says_nothing_of_sizes_is_seen_on_a_page(keys: dict[str, object]) -> None:
    scenes = scenes_for(sheet(**keys), Size(3000, 2000))
    assert [scene.id for scene in scenes] == ["page-0-0"]
    assert scenes[0].picture.clip.width <= 640
    assert scene_pixels(scenes[0], RED, 1).shape[2] == 4
    with pytest.raises(DocumentError, match="no scene called"):
        scene_named("nonsense", sheet(**keys), SQUARE)


def test_pages_are_drawn_at_each_size_seen_on_each_ground() -> None:
    seen = [{"name": "list", "width": 168, "density": 2}, {"name": "page", "width": 320}]
    scenes = scenes_for(sheet(seen=seen, grounds=["#ffffff", "#111111"]), Size(1280, 720))
    assert [(scene.picture.clip.width, scene.density, scene.ground) for scene in scenes] == [
        (168, 2, "#ffffff"), (168, 2, "#111111"), (320, 1, "#ffffff"), (320, 1, "#111111"),
    ]  # fmt: skip
    assert scene_pixels(scenes[0], RED).shape[1] == round(scenes[0].width * 2), "at its own density"


def test_every_scene_draws_in_every_tone() -> None:
    picture = np.asarray(photo(320, 180).convert("RGBA"))
    for place in catalogue()[::4]:
        for scene in scenes_for(place.sheet, Size(320, 180)):
            pixels = scene_pixels(scene, picture, 0.5)
            assert pixels[..., 3].min() == 255 and pixels[..., :3].std() > 1, scene.id
            assert all(item.seed >= 0 for item in scene.items if isinstance(item, NeighbourItem))


def test_others_see_greys_alike_and_little_from_afar() -> None:
    grey = np.full((60, 90, 4), 140, np.uint8)
    grey[..., 3] = 255
    for sight in SIGHTS:
        assert as_seen(grey, sight)[..., :3].astype(int) == pytest.approx(140, abs=1)
    fine = grey.copy()
    fine[:, ::2, :3] = 30
    assert as_seen(fine, "far")[..., :3].std() < 0.3 * fine[..., :3].std()
    red, green = (np.full((4, 4, 4), 255, np.uint8) for _ in range(2))
    red[..., :3], green[..., :3] = (176, 58, 46), (107, 107, 0)
    apart = [np.abs(as_seen(red, one).astype(int) - as_seen(green, one)).max() for one in ("usual", "deutan")]
    assert apart[1] < 0.75 * apart[0]


ABOUT = SheetOf(
    title="Fitting finials ﬁnely",
    place="Lesson thumbnail, 1280 × 720 px",
    business="Ottermoor Cycle Works",
    date="29 November 2026",
    figures=[("1280 × 720 px", "1280 × 720 px"), ("at most 200 kB", "148 kB")],
    findings=[
        Finding(rule="busy", severity="risky", message="A letter runs into drawing of its own tone."),
        Finding(rule="clash", severity="note", message="Two colours vibrate.", muted="wanted so"),
    ],
)


def test_a_proof_sheet_has_its_words_as_text() -> None:
    place = next(entry.sheet for entry in catalogue() if entry.kind == "video-thumbnail")
    data = pdf_of(ABOUT, *all_red(scenes_for(place, Size(1280, 720))))
    reader = pypdf.PdfReader(io.BytesIO(data))
    text = "\n".join(page.extract_text() for page in reader.pages)
    for words in (
        "Ottermoor Cycle Works",
        "29 November 2026",
        "148 kB",
        "runs into drawing",
        "Left so: wanted so",
        "films",
    ):
        assert words in " ".join(text.split()), words
    assert len(reader.pages) >= 2 and reader.metadata and "Lesson thumbnail" in str(reader.metadata.title)


def test_the_same_sheet_as_a_picture() -> None:
    place = next(entry.sheet for entry in catalogue() if entry.kind == "sticker")
    picture = Image.open(io.BytesIO(png_of(ABOUT, *all_red(scenes_for(place, SQUARE)))))
    assert picture.height % round(PAGE_HEIGHT * PNG_SCALE) == 0
    assert np.asarray(picture).std() > 5


def test_a_sheet_with_more_findings_than_room_says_so() -> None:
    long = [Finding(rule="busy", severity="risky", message="word " * 60) for _ in range(12)]
    data = pdf_of(ABOUT._replace(findings=long), *all_red(scenes_for(sheet(), SQUARE)))
    assert "More was found" in pypdf.PdfReader(io.BytesIO(data)).pages[0].extract_text()
