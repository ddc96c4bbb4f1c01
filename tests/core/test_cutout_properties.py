"""What holds for any cut-out: mirrored or turned pictures, wider tolerance, strokes, colours under the edge."""

from functools import cache

import cv2
import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw

from fitzle.core.artwork.bands import with_alpha
from fitzle.core.artwork.cutout.cutting import SURE, Wishes, cut_out
from fitzle.core.artwork.cutout.flat import cut_flat, flat_confidence
from fitzle.core.artwork.cutout.refining import Hints, refined
from fitzle.core.artwork.cutout.subject import subject_mask
from fitzle.core.artwork.cutout.unmixing import nearest_colours
from fitzle.core.artwork.sources import Pixels
from fitzle.core.errors import ArtworkError
from fitzle.core.geometry.rect import Rect
from tests.make import opened, photo, saved

FEW = settings(max_examples=20, deadline=None)
FINER = 4
sides = st.integers(1, 40)


@cache
def badge(width: int = 300, height: int = 200, ground: str = "#f4f1ea", colour: str = "#17443c") -> Pixels:
    """A lopsided badge, no mirror image of itself, at a JPEG's 85."""
    drawn = Image.new("RGB", (width * FINER, height * FINER), ground)
    brush = ImageDraw.Draw(drawn)
    across, down = width * FINER, height * FINER
    brush.ellipse((0.15 * across, 0.2 * down, 0.7 * across, 0.85 * down), fill=colour)
    brush.rectangle((0.6 * across, 0.15 * down, 0.85 * across, 0.35 * down), fill="#b4541a")
    small = drawn.resize((width, height), Image.Resampling.LANCZOS)
    return np.asarray(opened(saved(small, "JPEG", quality=85)).convert("RGBA"))


def alpha_of(pixels: Pixels, **wishes: object) -> np.ndarray:
    return cut_out(pixels, "flat", Wishes(**wishes)).pixels[..., 3].astype(int)  # type: ignore[arg-type]


@pytest.mark.parametrize("moved", [np.fliplr, np.flipud, lambda pixels: np.rot90(pixels, 1), lambda p: np.rot90(p, 2)])
def test_a_picture_turned_over_is_cut_as_before(moved: object) -> None:
    """The nearest colour of two equally near may be the other one: a level or two at a few px."""
    there = alpha_of(np.ascontiguousarray(moved(badge())))  # type: ignore[operator]
    assert np.abs(there - moved(alpha_of(badge()))).mean() < 0.2  # type: ignore[operator]


@FEW
@given(tolerances=st.tuples(st.floats(0.5, 6), st.floats(0.5, 6)))
def test_a_wider_tolerance_never_keeps_more(tolerances: tuple[float, float]) -> None:
    less, more = (int((alpha_of(badge(), tolerance=one) > 127).sum()) for one in sorted(tolerances))
    assert more <= less + 20


@FEW
@given(x=st.integers(0, 299), y=st.integers(0, 199))
def test_what_is_kept_or_dropped_by_a_stroke_is_so_at_its_middle(x: int, y: int) -> None:
    stroke = np.zeros((200, 300), bool)
    cv2.circle(stroke.view(np.uint8), (x, y), 4, 1, -1)
    assert alpha_of(badge(), keep=stroke)[y, x] == 255
    if alpha_of(badge())[y, x] in (0, 255):
        assert alpha_of(badge(), drop=stroke)[y, x] == 0


@pytest.mark.parametrize(("ground", "colour"), [("#ffffff", "#f2d27a"), ("#101820", "#e8f0ea"), ("#7a8a99", "#101820")])
def test_inside_all_is_kept_and_far_outside_all_is_clear(ground: str, colour: str) -> None:
    cut = cut_out(badge(ground=ground, colour=colour))
    assert (cut.method, cut.confidence > 0.9) == ("flat", True)
    assert (cut.pixels[90:120, 90:160, 3] == 255).all()
    assert (cut.pixels[:20, :, 3] == 0).all()
    assert (cut.pixels[:, :30, 3] == 0).all()


def test_the_border_alone_says_how_sure_a_flat_cut_is() -> None:
    for picture in (badge(), badge(64, 40), np.asarray(photo().convert("RGBA"))):
        assert flat_confidence(picture) == pytest.approx(cut_flat(picture).confidence, abs=1e-6)


def test_a_backdrop_that_strokes_keep_whole_is_no_cut() -> None:
    """Everything is kept: nothing was cut out, and `auto` says so instead of handing the picture back."""
    everything = np.ones((200, 300), bool)
    assert flat_confidence(badge()) >= SURE
    assert cut_flat(badge(), keep=everything).confidence == 0
    with pytest.raises(ArtworkError):
        cut_out(badge(), "auto", Wishes(keep=everything))


@FEW
@given(width=sides, height=sides, seed=st.integers(0, 99))
def test_the_nearest_colour_is_that_of_a_nearest_px(width: int, height: int, seed: int) -> None:
    """Against every distance; OpenCV's mask of 5 x 5 is off by 2 % at most (Borgefors 1986)."""
    rng = np.random.default_rng(seed)
    own = rng.uniform(0, 255, (height, width, 3)).astype(np.float32)
    mask = rng.random((height, width)) < 0.2
    mask[rng.integers(height), rng.integers(width)] = True
    rows, columns = np.nonzero(mask)
    found = nearest_colours(own, mask)
    assert np.array_equal(found[mask], own[mask])
    y, x = np.mgrid[0:height, 0:width]
    away = np.hypot(y[..., None] - rows, x[..., None] - columns)
    taken = (found[:, :, None] == own[rows, columns]).all(axis=-1)
    assert taken.any(axis=-1).all()
    assert (np.where(taken, away, np.inf).min(axis=-1) <= away.min(axis=-1) * 1.05 + 1e-6).all()


@FEW
@given(width=sides, height=sides, seed=st.integers(0, 99))
def test_bands_are_put_together_as_numpy_does(width: int, height: int, seed: int) -> None:
    rng = np.random.default_rng(seed)
    pixels = rng.integers(0, 256, (height, width, 4), dtype=np.uint8)
    assert np.array_equal(with_alpha(pixels[..., :3], pixels[..., 3]), pixels)
    turned_round = np.ascontiguousarray(pixels)[:, ::-1]
    assert np.array_equal(with_alpha(turned_round[..., :3], turned_round[..., 3]), turned_round)


def scene(size: tuple[int, int] = (480, 360)) -> tuple[Pixels, np.ndarray]:
    """A disc of even colour on a grainy ground, and where it is."""
    picture = photo(*size, seed=11)
    where = Image.new("L", size, 0)
    box = (150, 90, 330, 270)
    ImageDraw.Draw(picture).ellipse(box, fill="#e8d21a")
    ImageDraw.Draw(where).ellipse(box, fill=255)
    return np.asarray(picture.convert("RGBA")), np.asarray(where) > 127


@pytest.mark.parametrize("shift", [-4, 0, 4])
def test_a_rough_mask_is_refined_to_the_outline(shift: int) -> None:
    """A mask up to four px beside the outline; its band is wide enough to find it."""
    pixels, where = scene()
    found = refined(pixels, np.roll(where, shift, axis=1), Hints()).alpha
    assert np.abs(found - where).mean() * 1000 < 8


def test_known_places_are_as_they_are_known() -> None:
    pixels, where = scene()
    keep, drop = np.zeros_like(where), np.zeros_like(where)
    keep[20:40, 20:40], drop[170:190, 230:250] = True, True
    found = refined(pixels, where, Hints(keep, drop)).alpha
    assert found[30, 30] == 1
    assert found[180, 240] == 0


def test_a_larger_picture_is_refined_in_its_own_px() -> None:
    """Matted at 640 px, carried over to 1440: the edge is a few px wide, not what enlarging would leave."""
    pixels, where = scene()
    large = np.ascontiguousarray(np.asarray(Image.fromarray(pixels).resize((1440, 1080), Image.Resampling.LANCZOS)))
    found = refined(large, where, Hints()).alpha
    wanted = np.asarray(Image.fromarray(where).resize((1440, 1080)))
    assert np.abs(found - wanted).mean() * 1000 < 8
    assert ((found[540] > 0.1) & (found[540] < 0.9)).sum() <= 12


@pytest.mark.parametrize("empty", [True, False])
def test_a_mask_of_all_or_nothing_has_no_edge(empty: bool) -> None:
    pixels, _ = scene()
    mask = np.zeros((90, 120), bool) if empty else np.ones((90, 120), bool)
    found = refined(pixels, mask, Hints())
    assert np.array_equal(np.unique(found.alpha), [0.0 if empty else 1.0])
    assert np.array_equal(found.colours, pixels[..., :3])


def test_a_softer_edge_is_wider_and_lies_where_it_lay() -> None:
    pixels, where = scene()
    sharp, soft = (refined(pixels, where, Hints(), softness).alpha for softness in (1.0, 10.0))
    assert ((soft > 0.02) & (soft < 0.98)).sum() > 2 * ((sharp > 0.02) & (sharp < 0.98)).sum()
    assert soft.sum() == pytest.approx(sharp.sum(), rel=0.02)


def test_a_box_tells_the_subject_from_all_else() -> None:
    pixels, where = scene()
    mask = subject_mask(pixels, Rect(130, 70, 220, 220), Hints())
    there = cv2.resize(mask.astype(np.uint8), where.shape[::-1], interpolation=cv2.INTER_NEAREST).astype(bool)
    assert (there & where).sum() / (there | where).sum() > 0.95


def test_a_subject_like_its_ground_is_said_to_be_so() -> None:
    even = np.full((90, 120, 4), 128, np.uint8)
    even[..., 3] = 255
    with pytest.raises(ArtworkError, match="looks like what is behind it|nothing says"):
        subject_mask(even, Rect(30, 30, 40, 30), Hints())
