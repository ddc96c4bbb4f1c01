"""Rendering part by part: gradients, dies, edges, recolouring, the pixel grid, effects at any size."""

import math

import numpy as np
import pytest
from PIL import Image, ImageDraw

from fitzle.core.artwork.reading import read_artwork
from fitzle.core.artwork.recolour import recoloured
from fitzle.core.artwork.svg_recolour import recoloured_svg
from fitzle.core.colour.mixing import mixed_stops
from fitzle.core.colour.oklab import from_lch, from_oklab, oklab, to_lch
from fitzle.core.fit.proofs import parts_alone, without_parts
from fitzle.core.geometry.rect import Rect
from fitzle.core.render.edges import edge_coverage
from fitzle.core.render.painting import paint
from fitzle.core.render.pixel_grid import on_pixel_grid
from fitzle.core.units import Size
from tests.core.composed import PIECES, artworks, decided, gradient, mark, picture, piece, shape, words
from tests.make import disc, saved, solid, svg


def drawn(data: dict, width: int | None = None, **place: object) -> np.ndarray:
    return paint(decided(data, **place).plan, artworks()[1], width)


def test_oklab_and_oklch_go_there_and_back() -> None:
    colours = np.array([[0, 0, 0], [255, 255, 255], [23, 68, 60], [244, 208, 111], [1, 254, 3]], dtype=np.uint8)
    lab = oklab(colours)
    assert np.abs(from_oklab(lab) - colours).max() < 0.02
    assert np.abs(from_lch(to_lch(lab)) - lab).max() < 1e-9


def test_the_middle_of_a_gradient_is_not_muddy() -> None:
    """Blue to yellow: a mix in sRGB is the grey #808080; in OKLab it is lighter, in OKLCH it keeps its chroma."""
    stops = [(0.0, "#0000ff", 1.0), (1.0, "#ffff00", 1.0)]
    middle = mixed_stops(stops)[8].colour
    assert np.mean(middle) > 128
    vivid = mixed_stops(stops, "oklch")[8].colour
    chroma = [math.hypot(*oklab(np.array([colour], np.uint8))[0, 1:]) for colour in (middle, vivid)]
    assert chroma[1] > 1.5 * chroma[0]


def test_a_gradient_starts_and_ends_with_its_own_colours_in_the_corners() -> None:
    pixels = drawn(piece(ground=gradient("linear", angle=45)))
    assert np.abs(pixels[0, 0, :3].astype(int) - (0x17, 0x44, 0x3C)).max() <= 2
    assert np.abs(pixels[-1, -1, :3].astype(int) - (0xB4, 0x54, 0x1A)).max() <= 2


def test_a_gentle_gradient_is_dithered_so_that_it_does_not_band() -> None:
    """Over 12 levels on 1280 px a band would be about 100 px wide; dithering mixes neighbouring levels instead."""
    fill = {"kind": "gradient", "stops": [{"at": 0, "colour": "#404040"}, {"at": 1, "colour": "#4c4c4c"}]}
    row = drawn(piece(ground=fill), size={"width": 1280, "height": 40})[..., 0].astype(int)
    changes = (np.diff(row, axis=1) != 0).mean()
    assert changes > 0.1
    assert np.abs(row.mean(axis=0) - np.linspace(0x40, 0x4C, 1280)).max() < 1.0


@pytest.mark.parametrize("form", ["linear", "radial", "angled"])
def test_opacity_of_stops_reaches_the_picture(form: str) -> None:
    stops = [{"at": 0, "colour": "#ff0000", "opacity": 0}, {"at": 1, "colour": "#ff0000", "opacity": 1}]
    alpha = drawn(piece(ground={"kind": "gradient", "form": form, "stops": stops}))[..., 3]
    assert alpha.min() <= 6 and alpha.max() >= 249


def test_a_picture_in_a_die_fills_it_and_leaves_the_outside_clear() -> None:
    pixels = drawn(piece(picture(stands={"width": 1, "height": 1}, die={"shape": "circle"})))
    rows, columns = np.mgrid[0:180, 0:320]
    away = np.hypot(rows + 0.5 - 90, columns + 0.5 - 160)
    assert (pixels[away < 88, 3] == 255).all()
    assert (pixels[away > 91.5, 3] == 0).all()


def test_a_cut_out_subject_has_a_colour_behind_it_inside_the_die_only() -> None:
    subject = disc(200, "#1d3b4f", 0).resize((200, 80))
    art = read_artwork(saved(subject, "PNG"), "cut.png")
    from tests.fits import planned_fit
    from tests.make import sheet

    part = {"id": "p", "role": "picture", "artwork": "a", "die": {"shape": "circle", "fill": "#f4d06f"}, "zoom": 1}
    fit = planned_fit(piece(part), sheet(size={"width": 100, "height": 100}), {"a": art})
    pixels = paint(fit.plan, {"a": art.source})
    assert tuple(pixels[50, 50]) == (0x1D, 0x3B, 0x4F, 255)
    assert tuple(pixels[15, 50]) == (0xF4, 0xD0, 0x6F, 255)
    assert pixels[2, 2, 3] == 0


def test_zoom_shows_a_smaller_window_about_the_focus() -> None:
    near = decided(piece(picture(zoom=2, focal_point={"x": 0.25, "y": 0.5}))).plan.artworks[0]
    far = decided(piece(picture())).plan.artworks[0]
    assert near.window.width == pytest.approx(far.window.width / 2)
    assert near.window.centre.x == pytest.approx(0.25 * 360)


def test_an_edge_has_the_same_width_all_around() -> None:
    alpha = np.zeros((120, 120), np.uint8)
    picture_ = Image.new("L", (120, 120))
    ImageDraw.Draw(picture_).rectangle((40, 40, 79, 79), fill=255)
    alpha[:] = np.asarray(picture_)
    coverage = edge_coverage(alpha, 10.0)
    assert coverage[60, 34] == 255 and coverage[60, 27] == 0
    # Round corners: along the diagonal the border is as wide as along the sides.
    corner = [coverage[40 - step, 40 - step] for step in range(1, 12)]
    reach = sum(value / 255 for value in corner) * math.sqrt(2)
    assert reach == pytest.approx(10, abs=1.6)
    assert edge_coverage(np.zeros((5, 5), np.uint8), 3).max() == 0


def test_an_edge_follows_the_outline_of_everything_and_of_one_part() -> None:
    sticker = drawn(PIECES["sticker"])
    assert ((sticker[..., :3] == (0xF4, 0xD0, 0x6F)).all(axis=-1) & (sticker[..., 3] == 255)).sum() > 300
    assert sticker[0, 0, 3] == 0
    alone = drawn(piece(shape("star", solid("#17443c"), stands={"width": 0.6, "height": 0.6},
                              edge={"width": 0.05, "colour": "#ffffff"})))  # fmt: skip
    assert (alone[..., :3][alone[..., 3] == 255] == 255).all(axis=-1).sum() > 200


def test_flat_colours_are_replaced_and_antialiasing_is_mixed_anew() -> None:
    flat = np.zeros((1, 3, 4), np.uint8)
    flat[0] = [(255, 0, 0, 255), (128, 128, 0, 255), (0, 255, 0, 255)]  # red, half way, green
    found = recoloured(flat, ["#ff0000", "#00ff00"], [("#ff0000", "#0000ff")])
    assert tuple(found[0, 0]) == (0, 0, 255, 255)
    assert tuple(found[0, 2]) == (0, 255, 0, 255)
    assert np.abs(found[0, 1].astype(int) - (0, 128, 128, 255)).max() <= 2


def test_recolouring_keeps_alpha_and_premultiplication() -> None:
    pixels = np.array([[[60, 0, 0, 60], [0, 0, 0, 0]]], np.uint8)
    found = recoloured(pixels, ["#ff0000"], [("#ff0000", "#ffffff")])
    assert found.tolist() == [[[60, 60, 60, 60], [0, 0, 0, 0]]]


def test_an_svg_is_recoloured_in_its_attributes_however_they_are_written() -> None:
    body = '<path d="M0 0h9v9z" fill="red"/><path d="M0 0h9v9z" style="fill: #F00; stroke:rgb(0, 0, 255)"/>'
    art = read_artwork(svg(body), "two.svg")
    from lxml import etree

    text = etree.tostring(recoloured_svg(art.source.root, {"#ff0000": "#17443c"})).decode()  # type: ignore[attr-defined]
    assert text.count("#17443c") == 2 and "rgb(0, 0, 255)" in text


BARS = svg('<path d="M8 8H42V92H8zM55 8H92V20H55zM55 44H92V56H55zM55 80H92V92H55z" fill="#17443c"/>', "0 0 100 100")


@pytest.mark.parametrize("side", [16, 24, 32, 48, 64])
def test_edges_of_small_marks_come_to_lie_on_the_pixel_grid(side: int) -> None:
    source = read_artwork(BARS, "bars.svg").source
    window, size = Rect(8, 8, 84, 84), Size(side - 2, side - 2)

    def partial(pixels: np.ndarray) -> int:
        return int(((pixels[..., 3] > 12) & (pixels[..., 3] < 243)).sum())

    assert partial(on_pixel_grid(source, window, size)) == 0
    assert partial(source.pixels(window, size)) > 0 or side == 64


def test_the_pixel_grid_can_be_switched_off_and_ends_at_64_px() -> None:
    tiny = {"size": {"width": 32, "height": 32}}
    assert decided(piece(mark("ding.svg")), **tiny).plan.artworks[0].grid
    assert not decided(piece(mark("ding.svg", grid=False)), **tiny).plan.artworks[0].grid
    assert not decided(piece(mark("ding.svg")), size={"width": 96, "height": 96}).plan.artworks[0].grid


def test_effects_look_the_same_at_any_size() -> None:
    dressed = piece(
        words(colour="#ffffff", outline={"width": 0.1, "colour": "#111111"}, glow={"radius": 0.5, "colour": "#f4d06f"}),
        ground=solid("#17443c"),
    )
    small = drawn(dressed).astype(float)
    large = drawn(dressed, size={"width": 960, "height": 540})
    shrunk = np.asarray(Image.fromarray(large).resize((320, 180), Image.Resampling.BOX)).astype(float)
    assert np.abs(small - shrunk).mean() < 1.0


def test_letters_of_an_outline_only_are_seen_through() -> None:
    stands = {"width": 1.2, "height": 0.9}
    outline_only = drawn(
        piece(words("O", outline_only=True, colour="#ffffff", family="Anton", stands=stands, align="centre"))
    )
    full = drawn(piece(words("O", colour="#ffffff", family="Anton", stands=stands, align="centre")))
    assert (full[..., 3] == 255).sum() > (outline_only[..., 3] == 255).sum() > 0
    inside = (full[..., 3] == 255) & (outline_only[..., 3] == 0)
    assert inside.sum() > 200


def test_a_part_can_be_drawn_alone_and_left_out() -> None:
    plan, sources = decided(PIECES["mark-on-photo"]).plan, artworks()[1]
    alone = paint(parts_alone(plan, ["m"]), sources)
    assert alone[..., 3].min() == 0 and alone[..., 3].max() > 200
    rest = paint(without_parts(plan, ["m"]), sources)
    assert rest[..., 3].min() == 255
    assert (rest[alone[..., 3] == 0] == paint(plan, sources)[alone[..., 3] == 0]).all()


@pytest.mark.parametrize("blend", ["normal", "multiply", "screen", "overlay", "soft light"])
def test_blend_modes_follow_the_compositing_standard(blend: str) -> None:
    """W3C Compositing and Blending Level 1, separable blend modes, on grey 0.6 over grey 0.4."""
    top, under = 153 / 255, 102 / 255
    expected = {
        "normal": top,
        "multiply": top * under,
        "screen": top + under - top * under,
        "overlay": 2 * top * under,
        "soft light": under + (2 * top - 1) * (math.sqrt(under) - under),
    }[blend]
    data = piece(
        shape("rectangle", solid("#999999"), stands={"width": 3, "height": 1}, blend=blend), ground=solid("#666666")
    )
    assert drawn(data)[90, 160, 0] / 255 == pytest.approx(expected, abs=0.006)
