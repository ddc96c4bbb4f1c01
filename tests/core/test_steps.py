"""Preparation: each step on pixels and on drawings, their order, what cannot be made, and what is kept."""

import base64
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image, ImageDraw
from pydantic import ValidationError

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.sources import Pixels
from fitzle.core.artwork.steps.adjusting import adjusted, contrasted, warm_gains
from fitzle.core.artwork.steps.costly import KeptCut, KeptInMemory, costly_key, packed_cut, unpacked_cut
from fitzle.core.artwork.steps.document import Adjust, CutOut, Preparation, Window
from fitzle.core.artwork.steps.improving import MOST_CLIPPED, improvement, newly_clipped
from fitzle.core.artwork.steps.material import Bitmap, Drawing, as_bitmap, material_of, natural_size
from fitzle.core.artwork.steps.preparing import Prepared, prepared
from fitzle.core.artwork.steps.turning import inner_size, straightened
from fitzle.core.artwork.steps.written import file_of
from fitzle.core.artwork.straight import whole_picture
from tests.make import disc, photo, saved, svg

HASH = "a" * 64


def pixels_of(picture: Image.Image) -> Pixels:
    return np.asarray(picture.convert("RGBA"))


def corners(width: int = 60, height: int = 40) -> Pixels:
    """A red left top, a green right top, a blue left bottom and a white right bottom quarter."""
    out = np.full((height, width, 4), 255, np.uint8)
    out[: height // 2, : width // 2, :3] = (255, 0, 0)
    out[: height // 2, width // 2 :, :3] = (0, 255, 0)
    out[height // 2 :, : width // 2, :3] = (0, 0, 255)
    return out


def steps_of(*steps: dict[str, Any]) -> Preparation:
    return Preparation.model_validate({"steps": [{"id": f"s{number}", **step} for number, step in enumerate(steps)]})


def made(pixels: Pixels, *steps: dict[str, Any]) -> Prepared:
    material = Bitmap(pixels, (float(pixels.shape[1]), float(pixels.shape[0])))
    return prepared(material, steps_of(*steps).made, HASH, KeptInMemory(), make=True)


def result(pixels: Pixels, *steps: dict[str, Any]) -> Pixels:
    found = made(pixels, *steps)
    assert not found.problems
    return as_bitmap(found.material).pixels


def drawing(
    body: str = '<rect x="10" y="5" width="20" height="10" fill="#ff0000"/>', view: str = "0 0 60 40"
) -> Drawing:
    found = material_of(read_artwork(svg(body, view), "mark.svg").source)
    assert isinstance(found, Drawing)
    return found


NAMES = {(255, 0, 0): "red", (0, 255, 0): "green", (0, 0, 255): "blue", (255, 255, 255): "white"}


def quarters_of(pixels: Pixels) -> list[str]:
    """The colours of the quarters: left top, right top, left bottom, right bottom."""
    height, width = pixels.shape[:2]
    places = [(height // 4, width // 4), (height // 4, width * 3 // 4)]
    places += [(height * 3 // 4, x) for _, x in places]
    return [NAMES[tuple(int(value) for value in pixels[place][:3])] for place in places]


@pytest.mark.parametrize(
    ("step", "size", "colours"),
    [
        ({"kind": "turn", "quarters": 1}, (40, 60), ["blue", "red", "white", "green"]),
        ({"kind": "turn", "quarters": 2}, (60, 40), ["white", "blue", "green", "red"]),
        ({"kind": "turn", "quarters": 3}, (40, 60), ["green", "white", "red", "blue"]),
        ({"kind": "mirror", "across": "left and right"}, (60, 40), ["green", "red", "white", "blue"]),
        ({"kind": "mirror", "across": "top and bottom"}, (60, 40), ["blue", "white", "red", "green"]),
    ],
)
def test_turning_and_mirroring(step: dict[str, Any], size: tuple[int, int], colours: list[str]) -> None:
    turned = result(corners(), step)
    assert (turned.shape[1], turned.shape[0]) == size
    assert quarters_of(turned) == colours


FOUR = (
    '<rect width="30" height="20" fill="#ff0000"/><rect x="30" width="30" height="20" fill="#00ff00"/>'
    '<rect y="20" width="30" height="20" fill="#0000ff"/><rect x="30" y="20" width="30" height="20" fill="#ffffff"/>'
)


@pytest.mark.parametrize(
    "step",
    [{"kind": "turn", "quarters": n} for n in (1, 2, 3)]
    + [{"kind": "mirror", "across": across} for across in ("left and right", "top and bottom")]
    + [{"kind": "crop", "window": {"x": 0.25, "y": 0.25, "width": 0.5, "height": 0.5}}],
)
def test_a_drawing_stays_one_and_looks_as_its_pixels_do(step: dict[str, Any]) -> None:
    found = prepared(drawing(FOUR), steps_of(step).made, HASH, KeptInMemory(), make=True).material
    assert isinstance(found, Drawing)
    own = whole_picture(found.source)
    assert quarters_of(own) == quarters_of(result(corners(), step))
    assert own.shape == result(corners(), step).shape


def test_steps_on_a_drawing_can_be_read_again_as_a_file() -> None:
    from fitzle.core.artwork.steps.drawing import markup_of

    steps = steps_of(
        {"kind": "trim"},
        {"kind": "turn"},
        {"kind": "straighten", "degrees": 12},
        {"kind": "recolour", "one": "#17443c"},
    )
    found = prepared(drawing(), steps.made, HASH, KeptInMemory(), make=True).material
    assert isinstance(found, Drawing)
    again = read_artwork(markup_of(found), "again.svg")
    assert again.facts.vector
    assert [entry.hex for entry in again.facts.colours] == ["#17443c"]
    assert np.abs(whole_picture(again.source).astype(int) - whole_picture(found.source)).max() <= 1


def test_trimming_a_drawing_leaves_its_contents() -> None:
    found = prepared(drawing(), steps_of({"kind": "trim"}).made, HASH, KeptInMemory(), make=True).material
    assert natural_size(found) == pytest.approx((20, 10), abs=0.1)


@given(st.floats(-45, 45), st.integers(20, 300), st.integers(20, 300))
@settings(max_examples=40, deadline=None)
def test_a_straightened_window_fits_into_the_turned_picture(degrees: float, width: int, height: int) -> None:
    inner = inner_size(width, height, degrees)
    assert inner[0] / inner[1] == pytest.approx(width / height)
    sine, cosine = abs(np.sin(np.radians(degrees))), abs(np.cos(np.radians(degrees)))
    assert inner[0] * cosine + inner[1] * sine <= width + 1e-6
    assert inner[0] * sine + inner[1] * cosine <= height + 1e-6


def test_straightening_makes_a_slanting_horizon_level() -> None:
    """A horizon that falls to the right by 5 degrees is level after turning back by as many."""
    picture = Image.new("RGB", (400, 300), "#88aadd")
    drop = 400 * np.tan(np.radians(5)) / 2
    ImageDraw.Draw(picture).polygon([(0, 150 - drop), (400, 150 + drop), (400, 300), (0, 300)], fill="#335522")
    level = straightened(pixels_of(picture), -5)
    edge = [int(np.argmax(level[:, x, 2] < 100)) for x in (10, level.shape[1] // 2, level.shape[1] - 10)]
    assert max(edge) - min(edge) <= 1
    assert level[..., 3].min() == 255


def test_a_clear_picture_loses_nothing_when_straightened() -> None:
    mark = pixels_of(disc(100, margin=2))
    turned = straightened(mark, 30)
    assert turned[..., 3].astype(float).sum() == pytest.approx(mark[..., 3].astype(float).sum(), rel=0.01)
    assert turned[0, 0, 3] == 0


@pytest.mark.parametrize("ground", [None, "#ffffff", "#334455"])
def test_trimming_takes_clear_and_flat_margins(ground: str | None) -> None:
    assert result(pixels_of(disc(200, "#b4541a", 20, ground)), {"kind": "trim"}).shape[:2] == (160, 160)


def test_trimming_by_its_tolerance() -> None:
    picture = Image.new("RGB", (100, 60), "#ffffff")
    draw = ImageDraw.Draw(picture)
    draw.rectangle((20, 20, 79, 39), fill="#f0f0f0")  # 15 from the margin
    draw.rectangle((40, 25, 59, 34), fill="#000000")
    assert result(pixels_of(picture), {"kind": "trim", "tolerance": 0.02}).shape[:2] == (20, 60)
    assert result(pixels_of(picture), {"kind": "trim", "tolerance": 0.1}).shape[:2] == (10, 20)


def test_a_photo_without_margins_is_not_trimmed() -> None:
    assert result(pixels_of(photo(80, 60)), {"kind": "trim"}).shape[:2] == (60, 80)


def test_cropping_by_fractions_on_whole_pixels() -> None:
    window = {"x": 0.5, "y": 0, "width": 0.5, "height": 0.5}
    cut = result(corners(), {"kind": "crop", "window": window})
    assert cut.shape[:2] == (20, 30)
    assert set(quarters_of(cut)) == {"green"}


@given(st.floats(0, 0.999), st.floats(0, 0.999), st.integers(1, 9), st.integers(1, 9))
@settings(max_examples=60, deadline=None)
def test_a_crop_leaves_at_least_a_pixel(x: float, y: float, width: int, height: int) -> None:
    window = {"x": x, "y": y, "width": 1 - x, "height": 1 - y}
    cut = result(np.full((height, width, 4), 255, np.uint8), {"kind": "crop", "window": window})
    assert min(cut.shape[:2]) >= 1


NOTHING = Adjust(id="a")


def test_an_adjustment_of_nothing_changes_nothing() -> None:
    grain = pixels_of(photo(64, 48))
    assert np.array_equal(adjusted(grain, NOTHING), grain)


@pytest.mark.parametrize(
    ("figures", "grows"),
    [
        ({"brightness": 0.5}, lambda p: p[..., :3].mean()),
        ({"brightness": -0.5}, lambda p: -p[..., :3].mean()),
        ({"contrast": 0.6}, lambda p: p[..., :3].std()),
        ({"contrast": -0.6}, lambda p: -p[..., :3].std()),
        ({"saturation": 0.5}, lambda p: np.ptp(p[..., :3], axis=-1).mean()),
        ({"saturation": -0.5}, lambda p: -np.ptp(p[..., :3], axis=-1).mean()),
        ({"warmth": 0.6}, lambda p: p[..., 0].mean() - p[..., 2].mean()),
        ({"warmth": -0.6}, lambda p: p[..., 2].mean() - p[..., 0].mean()),
        ({"sharpen": 0.8}, lambda p: np.abs(np.diff(p[..., 1].astype(int))).mean()),
        ({"shadows": 0.8}, lambda p: p[p[..., :3].mean(-1) < 90][:, :3].mean()),
        ({"highlights": -0.8}, lambda p: -np.percentile(p[..., :3], 95)),
    ],
)
def test_each_figure_does_what_it_says(figures: dict[str, float], grows: Any) -> None:
    grain = pixels_of(photo(200, 150, seed=3))
    changed = adjusted(grain, Adjust(id="a", **figures))
    assert grows(changed) > grows(grain)
    assert np.array_equal(changed[..., 3], grain[..., 3])


def test_lifted_shadows_leave_the_light_parts_alone() -> None:
    half = np.full((100, 200, 4), 255, np.uint8)
    half[:, :100, :3] = 40
    half[:, 100:, :3] = 210
    lifted = adjusted(half, Adjust(id="a", shadows=0.8))
    assert lifted[50, 20, 0] > 60
    assert lifted[50, 180, 0] == 210


@given(st.floats(-1, 1))
@settings(max_examples=40, deadline=None)
def test_contrast_keeps_order_and_range(amount: float) -> None:
    curve = contrasted(np.linspace(0, 1, 64), amount)
    assert (np.diff(curve) >= -1e-9).all()
    assert curve.min() >= -1e-9
    assert curve.max() <= 1 + 1e-9


@given(st.floats(-1, 1))
def test_warmth_never_multiplies_beyond_what_there_is(warmth: float) -> None:
    assert max(warm_gains(warmth)) == pytest.approx(1)


@pytest.mark.parametrize("seed", range(6))
@pytest.mark.parametrize("light", [0.35, 1.0, 1.6])
def test_the_improvement_never_clips_more_than_a_thousandth(seed: int, light: float) -> None:
    dim = np.clip(np.asarray(photo(320, 240, seed)) * light, 0, 255).astype(np.uint8)
    pixels = pixels_of(Image.fromarray(dim))
    assert newly_clipped(pixels, adjusted(pixels, improvement(pixels, "a"))) <= MOST_CLIPPED


def test_the_improvement_brightens_what_is_dark_and_says_by_how_much() -> None:
    dim = Image.fromarray((np.asarray(photo(320, 240)) * 0.4).astype(np.uint8))
    figures = improvement(pixels_of(dim), "a")
    assert figures.brightness > 0.1
    assert figures.contrast > 0.05


def test_the_improvement_takes_a_cast_back_and_leaves_a_grey_picture_grey() -> None:
    blue = (np.asarray(photo(320, 240)) * np.array([0.7, 0.85, 1.0])).astype(np.uint8)
    assert improvement(pixels_of(Image.fromarray(blue)), "a").warmth > 0.02
    grey = pixels_of(photo(320, 240).convert("L").convert("RGB"))
    assert improvement(grey, "a").saturation == 0
    assert improvement(grey, "a").warmth == 0


def eye_picture() -> Image.Image:
    picture = Image.new("RGB", (120, 80), "#c9a088")
    draw = ImageDraw.Draw(picture)
    draw.ellipse((40, 25, 80, 55), fill="#f4efe9")
    draw.ellipse((50, 30, 70, 50), fill="#c81e28")
    draw.ellipse((56, 34, 60, 38), fill="#ffffff")
    return picture


def test_red_pupils_become_dark_and_the_glint_stays() -> None:
    eye = {"x": 0.5, "y": 0.5, "radius": 0.2}
    fixed = result(pixels_of(eye_picture()), {"kind": "red eyes", "eyes": [eye]})
    red, green, _ = fixed[44, 62, :3].astype(int)
    assert red <= green + 12
    assert fixed[36, 58, :3].min() >= 250
    assert tuple(fixed[5, 5, :3]) == tuple(pixels_of(eye_picture())[5, 5, :3])


def test_red_outside_the_circle_stays() -> None:
    eye = {"x": 0.1, "y": 0.1, "radius": 0.05}
    assert tuple(result(pixels_of(eye_picture()), {"kind": "red eyes", "eyes": [eye]})[44, 62, :3]) == (200, 30, 40)


def flat_logo() -> Pixels:
    return pixels_of(disc(200, "#17443c", 40, "#ffffff"))


def test_a_cut_out_is_clear_outside_and_whole_inside() -> None:
    cut = result(flat_logo(), {"kind": "cut out"})
    assert cut[2, 2, 3] == 0
    assert cut[100, 100].tolist() == [0x17, 0x44, 0x3C, 255]


def test_a_fill_lies_behind_the_subject() -> None:
    filled = result(flat_logo(), {"kind": "cut out", "fill": "#f4d06f"})
    assert filled[2, 2].tolist() == [0xF4, 0xD0, 0x6F, 255]
    assert filled[100, 100].tolist() == [0x17, 0x44, 0x3C, 255]


def stroke(act: str, *points: tuple[float, float], size: float = 0.1, softness: float = 0.0) -> dict[str, Any]:
    return {"act": act, "points": points, "size": size, "softness": softness}


def test_brush_strokes_erase_and_restore_in_their_order() -> None:
    erase, restore = stroke("erase", (0.5, 0.4), (0.5, 0.6)), stroke("restore", (0.5, 0.5))
    erased = result(flat_logo(), {"kind": "cut out", "strokes": [erase]})
    assert erased[90, 100, 3] == 0
    assert erased[100, 130, 3] == 255
    both = result(flat_logo(), {"kind": "cut out", "strokes": [erase, restore]})
    assert both[100, 100].tolist() == [0x17, 0x44, 0x3C, 255]
    assert both[82, 100, 3] == 0
    assert result(flat_logo(), {"kind": "cut out", "strokes": [restore, erase]})[100, 100, 3] == 0


def test_restoring_brings_back_the_background_itself() -> None:
    back = result(flat_logo(), {"kind": "cut out", "strokes": [stroke("restore", (0.05, 0.05))]})
    assert back[10, 10].tolist() == [255, 255, 255, 255]


def test_a_soft_stroke_fades() -> None:
    soft = result(flat_logo(), {"kind": "cut out", "strokes": [stroke("erase", (0.5, 0.5), size=0.3, softness=1)]})
    along = soft[100, 100:135, 3].astype(int)
    assert along[0] < 40
    assert (np.diff(along) >= -2).all()
    assert 40 < along[12] < 240


@given(st.lists(st.tuples(st.floats(-1, 2), st.floats(-1, 2)), min_size=1, max_size=5), st.floats(0.001, 1))
@settings(max_examples=50, deadline=None)
def test_strokes_anywhere_are_harmless(points: list[tuple[float, float]], size: float) -> None:
    picture = np.full((30, 40, 4), 255, np.uint8)
    from fitzle.core.artwork.steps.brush import stroke_mask
    from fitzle.core.artwork.steps.document import Stroke

    box, mask = stroke_mask(Stroke(act="erase", points=tuple(points), size=size), 40, 30)
    assert mask.shape == (int(box.height), int(box.width))
    assert box.right <= picture.shape[1]
    assert box.bottom <= picture.shape[0]


@pytest.mark.parametrize("px", [1, 1.5, 2, 3, 5.5, 12, 40])
def test_a_hard_brush_is_as_wide_as_asked_and_where_it_was_drawn(px: float) -> None:
    from fitzle.core.artwork.steps.brush import slices, stroke_mask
    from fitzle.core.artwork.steps.document import Stroke

    def painted(*points: tuple[float, float]) -> np.ndarray:
        box, mask = stroke_mask(Stroke(act="erase", points=points, size=px / 200, softness=0), 200, 200)
        whole = np.zeros((200, 200))
        whole[slices(box)] = mask
        return whole

    dot, line = painted((0.3, 0.6)), painted((-0.2, 0.503), (1.2, 0.503))
    assert 2 * np.sqrt(dot.sum() / np.pi) == pytest.approx(px, abs=0.25)
    assert line[:, 100].sum() == pytest.approx(px, abs=0.25)
    rows, columns = np.mgrid[0:200, 0:200] + 0.5
    middle = [(dot * columns).sum() / dot.sum(), (dot * rows).sum() / dot.sum()]
    assert middle == pytest.approx([60, 120], abs=0.1)


def test_the_thinnest_hint_is_seen_wherever_it_lies() -> None:
    from fitzle.core.artwork.steps.brush import union_mask
    from fitzle.core.artwork.steps.document import Stroke

    for y in np.linspace(0.5, 0.51, 9):
        hint = Stroke(act="keep", points=((0.1, y), (0.9, y)), size=0.001, softness=0)
        assert union_mask((hint,), "keep", 200, 200)[:, 100].any()


def test_what_is_costly_is_made_once_and_brushed_for_nothing() -> None:
    shelf, material = KeptInMemory(), Bitmap(flat_logo(), (200.0, 200.0))
    plain, brushed = steps_of({"kind": "cut out"}), steps_of({"kind": "cut out", "strokes": [stroke("erase", (0, 0))]})
    assert prepared(material, plain.made, HASH, shelf, make=False).waiting == ("s0",)
    prepared(material, plain.made, HASH, shelf, make=True)
    assert len(shelf) == 1
    assert prepared(material, brushed.made, HASH, shelf, make=False).waiting == ()


@pytest.mark.parametrize(
    ("other", "same"),
    [
        ({"fill": "#ffffff"}, True),
        ({"strokes": [stroke("erase", (0, 0))]}, True),
        ({"on": False}, True),
        ({"tolerance": 2}, False),
        ({"strokes": [stroke("drop", (0, 0))]}, False),
        ({"method": "flat"}, False),
    ],
)
def test_the_key_of_a_cut_is_that_of_what_it_depends_on(other: dict[str, Any], same: bool) -> None:
    keys = {costly_key(HASH, (), CutOut.model_validate({"id": "a", **more})) for more in ({}, other)}
    assert (len(keys) == 1) is same
    turn = steps_of({"kind": "turn"}).made
    assert costly_key(HASH, turn, CutOut(id="a")) != costly_key(HASH, (), CutOut(id="a"))
    assert costly_key("b" * 64, (), CutOut(id="a")) != costly_key(HASH, (), CutOut(id="a"))


def test_a_cut_made_small_is_scaled_to_the_picture() -> None:
    """The shelf's cut may be smaller than the picture: coverage is scaled, whole px keep their own colour."""
    shelf = KeptInMemory()
    small = pixels_of(disc(100, "#17443c", 20))
    step = steps_of({"kind": "cut out"}).made
    shelf.put(costly_key(HASH, (), step[0]), packed_cut(KeptCut(small, "flat", 1.0)))
    large = as_bitmap(prepared(Bitmap(flat_logo(), (200.0, 200.0)), step, HASH, shelf, make=False).material).pixels
    assert large.shape[:2] == (200, 200)
    assert large[100, 100].tolist() == [0x17, 0x44, 0x3C, 255]
    assert large[10, 10, 3] == 0


def test_a_cut_survives_being_packed() -> None:
    cut = KeptCut(pixels_of(disc(60)), "person", 0.75)
    again = unpacked_cut(packed_cut(cut))
    assert np.array_equal(again.pixels, cut.pixels)
    assert (again.method, again.confidence) == ("person", 0.75)


def test_a_step_that_cannot_be_made_is_named_and_the_others_are_made() -> None:
    found = made(pixels_of(photo(60, 40)), {"kind": "recolour", "one": "#ffffff"}, {"kind": "turn"})
    assert [problem.step for problem in found.problems] == ["s0"]
    assert "opaque" in found.problems[0].message
    assert as_bitmap(found.material).pixels.shape[:2] == (60, 40)


def test_recolouring_flat_artwork() -> None:
    logo = pixels_of(disc(60, "#17443c", 10))
    assert result(logo, {"kind": "recolour", "one": "#ffffff"})[30, 30].tolist() == [255, 255, 255, 255]
    traded = result(logo, {"kind": "recolour", "colours": [["#17443c", "#b4541a"]]})
    assert np.abs(traded[30, 30, :3].astype(int) - (0xB4, 0x54, 0x1A)).max() <= 1
    assert np.array_equal(traded[..., 3], logo[..., 3])


def test_recolouring_a_drawing_paints_what_states_no_colour_too() -> None:
    body = (
        '<rect width="20" height="20"/><rect x="30" width="20" height="20" fill="none" stroke="navy" stroke-width="4"/>'
    )
    step = steps_of({"kind": "recolour", "one": "#b4541a"})
    found = prepared(drawing(body), step.made, HASH, KeptInMemory(), make=True).material
    shown = whole_picture(found.source if isinstance(found, Drawing) else None)  # type: ignore[arg-type]
    assert shown[10, 10].tolist() == [0xB4, 0x54, 0x1A, 255]
    assert shown[10, 40, 3] == 0
    assert {tuple(px[:3]) for px in shown[shown[..., 3] == 255]} == {(0xB4, 0x54, 0x1A)}


def test_a_traced_bitmap_becomes_a_drawing_of_the_same_size() -> None:
    found = made(flat_logo(), {"kind": "trace"}).material
    assert isinstance(found, Drawing)
    assert natural_size(found) == (200, 200)
    shown = whole_picture(found.source)
    assert np.abs(shown[..., :3].astype(int) - flat_logo()[..., :3]).mean() < 2


def test_a_drawing_is_not_traced_but_one_that_wraps_a_bitmap_is() -> None:
    step = steps_of({"kind": "trace"})
    refused = prepared(drawing('<rect width="20" height="20"/>'), step.made, HASH, KeptInMemory(), make=True)
    assert "drawing already" in refused.problems[0].message
    inner = base64.b64encode(saved(disc(80, "#17443c", 10, "#ffffff"), "PNG")).decode()
    wrapped = drawing(f'<image href="data:image/png;base64,{inner}" width="80" height="40"/>')
    found = prepared(wrapped, step.made, HASH, KeptInMemory(), make=True)
    assert found.problems == ()
    assert b"<image" not in file_of(found.material)


def test_natural_size_follows_the_steps() -> None:
    """A preview of half the px stands for the whole picture."""
    half = Bitmap(corners(30, 20), (60.0, 40.0))
    found = prepared(half, steps_of({"kind": "turn"}).made, HASH, KeptInMemory(), make=True).material
    assert natural_size(found) == pytest.approx((40, 60))


@pytest.mark.parametrize(
    "step",
    [
        {"kind": "wobble"},
        {"kind": "turn", "quarters": 4},
        {"kind": "crop", "window": {"x": 0.5, "y": 0, "width": 0.6, "height": 1}},
        {"kind": "crop", "window": {"x": 0, "y": 0, "width": 0, "height": 1}},
        {"kind": "straighten", "degrees": 60},
        {"kind": "adjust", "brightness": 2},
        {"kind": "cut out", "tolerance": 0},
        {"kind": "cut out", "strokes": [{"act": "keep", "points": [], "size": 0.1}]},
        {"kind": "cut out", "method": "magic"},
        {"kind": "recolour", "one": "greenish"},
        {"kind": "adjust", "brightness": float("nan")},
    ],
)
def test_steps_that_make_no_sense_are_refused(step: dict[str, Any]) -> None:
    with pytest.raises(ValidationError):
        steps_of(step)


def test_two_steps_with_one_id_are_refused() -> None:
    with pytest.raises(ValidationError, match="two steps"):
        Preparation.model_validate({"steps": [{"id": "a", "kind": "turn"}, {"id": "a", "kind": "trim"}]})


def test_a_step_that_is_off_is_kept_and_not_made() -> None:
    both = steps_of({"kind": "turn", "on": False}, {"kind": "mirror"})
    assert [step.kind for step in both.made] == ["mirror"]
    assert Preparation.model_validate_json(both.model_dump_json()) == both


def test_a_photo_is_prepared_at_the_size_that_is_asked_for() -> None:
    data = saved(photo(400, 300), "JPEG", quality=95)
    material = material_of(read_artwork(data, "photo.jpg").source, 200)
    assert isinstance(material, Bitmap)
    assert material.size == (200, 150)
    assert natural_size(material) == (400, 300)


def test_a_window_says_what_is_wrong_with_it() -> None:
    with pytest.raises(ValidationError, match="beyond the picture"):
        Window(x=0.9, y=0, width=0.5, height=1)
