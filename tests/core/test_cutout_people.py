"""Cut-outs of people and of subjects pointed at, on pictures whose coverage is known; which engine is picked."""

from functools import cache

import numpy as np
import pytest
from demo.people import GUEST, Looks, person, room, together
from PIL import Image, ImageDraw

from fitzle.core.artwork.cutout.cutting import CutOut, Wishes, cut_out
from fitzle.core.artwork.cutout.matting import matted
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect
from tests.make import disc, photo

SIZE = (960, 720)
LARGEST_ERROR_OF_A_PERSON = 20  # mean absolute error of coverage, times 1000; facts/cutout.md has 14 to 59


@cache
def subject(looks: Looks, scale: float) -> Pixels:
    return person(*SIZE, looks, 0.5, scale)


def shot(looks: Looks = GUEST, scale: float = 1.1) -> Pixels:
    return together(subject(looks, scale), room(*SIZE))


def error(cut: CutOut, alpha: np.ndarray) -> float:
    return float(np.abs(cut.pixels[..., 3].astype(float) - alpha).mean() / 255 * 1000)


@pytest.mark.parametrize("scale", [0.6, 1.1, 1.6])
@pytest.mark.parametrize("looks", [Looks(), GUEST])
def test_a_person_is_cut_out_unasked(looks: Looks, scale: float) -> None:
    cut = cut_out(shot(looks, scale))
    assert cut.method == "person"
    assert cut.confidence >= 0.5
    assert error(cut, subject(looks, scale)[..., 3]) < LARGEST_ERROR_OF_A_PERSON


def test_edges_of_a_person_keep_nothing_of_the_background() -> None:
    """On a magenta wall the colours along the outline are those of the person, not of the wall."""
    wall = np.zeros((SIZE[1], SIZE[0], 4), np.uint8)
    wall[:] = (255, 0, 255, 255)
    own = subject(Looks(), 1.1)
    cut = cut_out(together(own, wall), "person").pixels.astype(int)
    edge = (cut[..., 3] > 40) & (cut[..., 3] < 215) & (own[..., 3] > 0)
    magenta = (cut[..., 0] - cut[..., 1] > 120) & (cut[..., 2] - cut[..., 1] > 120)
    assert edge.sum() > 500
    assert (magenta & edge).sum() / edge.sum() < 0.05


def cans(ground: Image.Image) -> tuple[Pixels, np.ndarray]:
    """A rusty can on a grainy ground, and its coverage."""
    box = (300, 200, 520, 600)
    ImageDraw.Draw(ground).rounded_rectangle(box, 40, fill="#b4541a")
    coverage = Image.new("L", ground.size, 0)
    ImageDraw.Draw(coverage).rounded_rectangle(box, 40, fill=255)
    return np.asarray(ground.convert("RGBA")), np.asarray(coverage)


GREEN = Image.merge("RGB", [channel.point(lambda v, f=f: int(v * f)) for channel, f in zip(
    photo(*SIZE).split(), (0.35, 0.8, 0.5), strict=True)])  # fmt: skip


def test_a_subject_is_cut_out_of_its_box() -> None:
    pixels, coverage = cans(GREEN.copy())
    cut = cut_out(pixels, "object", Wishes(box=Rect(260, 160, 300, 480)))
    assert cut.method == "object"
    assert error(cut, coverage) < 3


def test_the_same_wishes_give_the_same_cut() -> None:
    pixels, _ = cans(GREEN.copy())
    wishes = Wishes(box=Rect(260, 160, 300, 480))
    assert np.array_equal(cut_out(pixels, "object", wishes).pixels, cut_out(pixels, "object", wishes).pixels)


def mask(x: int, y: int, width: int, height: int) -> np.ndarray:
    found = np.zeros((SIZE[1], SIZE[0]), bool)
    found[y : y + height, x : x + width] = True
    return found


def test_strokes_alone_are_enough_for_a_subject() -> None:
    pixels, coverage = cans(GREEN.copy())
    drop = mask(50, 50, 150, 600) | mask(600, 50, 200, 600) | mask(200, 20, 500, 100) | mask(250, 650, 400, 40)
    cut = cut_out(pixels, "object", Wishes(keep=mask(340, 240, 140, 320), drop=drop))
    assert error(cut, coverage) < 10


def test_a_kept_place_is_kept_and_a_dropped_one_is_not() -> None:
    box, place = Rect(260, 160, 300, 480), mask(380, 380, 60, 60)
    pixels, _ = cans(GREEN.copy())
    assert cut_out(pixels, "object", Wishes(box=box)).pixels[410, 410, 3] == 255
    assert cut_out(pixels, "object", Wishes(box=box, drop=place)).pixels[410, 410, 3] == 0


def test_without_a_box_or_stroke_nobody_knows_the_subject() -> None:
    with pytest.raises(ArtworkError, match="box around"):
        cut_out(np.asarray(GREEN.convert("RGBA")))
    with pytest.raises(ArtworkError, match="box around"):
        cut_out(np.asarray(GREEN.convert("RGBA")), "object")


def test_where_there_is_no_person_none_is_cut_out() -> None:
    with pytest.raises(ArtworkError, match="no person"):
        cut_out(np.full((300, 400, 4), (90, 120, 90, 255), np.uint8), "person")


def test_a_box_helps_the_automatic_choice() -> None:
    pixels, coverage = cans(GREEN.copy())
    cut = cut_out(pixels, "auto", Wishes(box=Rect(260, 160, 300, 480)))
    assert cut.method == "object"
    assert error(cut, coverage) < 3


def test_a_logo_is_cut_by_the_flat_engine_even_where_it_shows_a_face() -> None:
    white = np.full((SIZE[1], SIZE[0], 4), 255, np.uint8)
    assert cut_out(together(subject(GUEST, 1.0), white, grain=0)).method == "flat"


@pytest.mark.parametrize(("wish", "alpha"), [("none", 255), ("drop", 0), ("keep", 255)])
def test_strokes_on_a_flat_picture_choose_whole_places(wish: str, alpha: int) -> None:
    """A second island is dropped by touching it, and a hole that is like the backdrop kept."""
    picture = disc(400, "#17443c", 120, "#ffffff")
    ImageDraw.Draw(picture).rectangle((20, 20, 80, 80), fill="#b4541a")
    touched = np.zeros((400, 400), bool)
    touched[48:52, 48:52] = True
    wishes = Wishes(**{wish: touched}) if wish != "none" else Wishes()
    cut = cut_out(np.asarray(picture.convert("RGBA")), "flat", wishes)
    assert cut.pixels[30, 30, 3] == alpha
    assert cut.pixels[200, 200, 3] == 255


def test_a_box_on_a_flat_picture_leaves_only_what_is_in_it() -> None:
    picture = disc(400, "#17443c", 120, "#ffffff")
    ImageDraw.Draw(picture).rectangle((20, 20, 80, 80), fill="#b4541a")
    cut = cut_out(np.asarray(picture.convert("RGBA")), "flat", Wishes(box=Rect(100, 100, 200, 200)))
    assert cut.pixels[50, 50, 3] == 0
    assert cut.pixels[200, 200, 3] == 255


def test_matting_solves_a_linear_edge() -> None:
    """Between two colours with a ramp of coverage the solution is that ramp."""
    ramp = np.clip((np.arange(60) - 20) / 20, 0, 1)
    colours = np.rint(ramp[:, None] * (200, 80, 40) + (1 - ramp)[:, None] * (20, 60, 120)).astype(np.uint8)
    picture = np.broadcast_to(colours, (24, 60, 3)).copy()
    known = np.broadcast_to(ramp >= 1, (24, 60)).copy()
    unknown = np.zeros((24, 60), bool)
    unknown[:, 18:42] = True
    found = matted(picture, known, unknown)
    assert np.abs(found[12] - ramp).max() < 0.03


def test_nothing_unknown_is_nothing_to_solve() -> None:
    subject_only = np.zeros((8, 8), bool)
    subject_only[:, 4:] = True
    picture = np.zeros((8, 8, 3), np.uint8)
    assert np.array_equal(matted(picture, subject_only, np.zeros((8, 8), bool)), subject_only.astype(np.float32))
