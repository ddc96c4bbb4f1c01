"""From artwork and piece to plan, picture, findings and file."""

from functools import cache

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fitzle.core.artwork.reading import Artwork, read_artwork
from fitzle.core.errors import DocumentError
from fitzle.core.fit.finished import judge_finished
from fitzle.core.fit.proofs import proof_bytes
from fitzle.core.piece.changes import SetField, apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.piece.editing import new_piece
from fitzle.core.plan.suiting import suits
from fitzle.core.preflight.registry import label_of_finding, repair_changes
from fitzle.core.render.painting import paint
from tests.fits import decided_fit, facts_and_sources, made_fit, plan_of, planned_fit
from tests.make import disc, opened, photo, saved, sheet, solid, svg


@cache
def artwork_of(name: str) -> Artwork:
    """The mark, the photo or the boxed mark; read when it is asked for, since each process of the tests reads this."""
    data = {
        "mark": svg,
        "photo": lambda: saved(photo(1200, 800), "JPEG", quality=92),
        "boxed": lambda: saved(disc(300, ground="#ffffff"), "PNG"),
    }[name]()
    return read_artwork(data, name)


HERE = "here"


def piece_of(artwork: Artwork, **fields: object) -> Piece:
    piece = new_piece("thing", "a", artwork.facts.kind)
    part = artwork.facts.kind
    changes = [
        SetField(part="ground" if name == "fill" else part, field=name, value=value) for name, value in fields.items()
    ]
    return apply_changes(piece, changes)


def made(artwork: Artwork, place: dict, **fields: object):  # type: ignore[no-untyped-def]
    return made_fit(piece_of(artwork, **fields), sheet(**place), {"a": artwork}, HERE)


def rules(artwork: Artwork, place: dict, **fields: object) -> dict[str, str]:
    fit = decided_fit(piece_of(artwork, **fields), sheet(**place), {"a": artwork}, HERE)
    return {finding.rule: finding.severity for finding in fit.findings}


@settings(max_examples=150, deadline=None)
@given(st.integers(1, 4096), st.integers(1, 4096), st.booleans(), st.booleans(), st.booleans())
def test_nothing_is_stretched_and_nothing_leaves_the_picture(
    width: int, height: int, fill: bool, vector: bool, circle: bool
) -> None:
    facts = (artwork_of("mark") if vector else artwork_of("boxed")).facts
    place = {"size": {"width": width, "height": height}, "cut": {"shape": "circle"} if circle else None}
    piece = piece_of(artwork_of("mark"), mode="fill" if fill else "whole")
    plan = plan_of(piece, sheet(**place), {"a": facts})
    box, window = plan.artworks[0].box, plan.artworks[0].window
    assert abs(box.width - box.height * window.ratio) <= 0.5 + 0.5 * window.ratio + 1e-6
    assert box.x >= -1e-6
    assert box.y >= -1e-6
    assert box.right <= width + 1e-6
    assert box.bottom <= height + 1e-6


@pytest.mark.parametrize("scale", [2, 3, 7])
def test_a_plan_for_twice_the_size_is_twice_the_plan(scale: int) -> None:
    piece = piece_of(artwork_of("mark"), padding={"value": 10, "unit": "%"})
    small = plan_of(piece, sheet(size={"width": 200, "height": 120}), {"a": artwork_of("mark").facts}).artworks[0].box
    large = plan_of(piece, sheet(size={"width": 200 * scale, "height": 120 * scale}), {"a": artwork_of("mark").facts})
    assert large.artworks[0].box == pytest.approx(tuple(small.scaled(scale)), rel=1e-9)


def test_padding_in_px_counts_at_the_final_size() -> None:
    plan = plan_of(
        piece_of(artwork_of("mark"), padding={"value": 2, "unit": "px"}),
        sheet(size={"width": 16, "height": 16}),
        {"a": artwork_of("mark").facts},
    )
    assert plan.artworks[0].box.x == pytest.approx(2)
    assert plan.artworks[0].box.width == pytest.approx(12)


def test_a_mark_is_squared_up_by_what_shows_of_it() -> None:
    """The margins in the file do not count: the disc is centred, whatever is around it in the file."""
    off_centre = read_artwork(svg('<circle cx="15" cy="12" r="10" fill="#000"/>'), "off.svg")
    made_here = made(off_centre, {"size": {"width": 64, "height": 64}})
    alpha = opened(made_here.encoded.data).convert("RGBA").getchannel("A")
    left, top, right, bottom = alpha.getbbox()
    assert abs(left - (64 - right)) <= 1
    assert abs(top - (64 - bottom)) <= 1


def test_the_focus_chooses_what_shows_of_a_picture() -> None:
    two = photo(400, 100)
    two.paste("#ff0000", (0, 0, 200, 100))
    two.paste("#0000ff", (200, 0, 400, 100))
    art = read_artwork(saved(two, "PNG"), "two.png")
    place = {"size": {"width": 100, "height": 100}}
    for x, channel in ((0.0, 0), (1.0, 2)):
        pixels = np.asarray(
            opened(made(art, place, mode="fill", focal_point={"x": x, "y": 0.5}).encoded.data).convert("RGB")
        )
        assert pixels[50, 50, channel] > 240


def test_where_no_transparency_is_taken_a_readable_ground_is_given_not_black() -> None:
    pale = read_artwork(svg('<circle cx="50" cy="25" r="20" fill="#fff6d8"/>'), "pale.svg")
    found = made(pale, {"transparency": "forbidden"})
    assert found.decided.plan.ground == "#111111"
    assert found.judgement.verdict == "fits"
    dark = made(artwork_of("mark"), {"transparency": "forbidden", "formats": ["jpeg"]})
    assert dark.decided.plan.ground == "#ffffff"
    assert opened(dark.encoded.data).getpixel((1, 1)) == pytest.approx((255, 255, 255), abs=2)


@pytest.mark.parametrize(("dark", "pale", "ground"), [(30, 5, "#ffffff"), (5, 30, "#111111")])
def test_where_no_ground_suits_all_of_a_mark_the_most_of_it_shows(dark: int, pale: int, ground: str) -> None:
    """Dark and pale bars: neither white nor near-black reaches 3:1 with four fifths of the outline."""
    bars = (
        f'<rect x="5" y="2" width="{dark}" height="46" fill="#17443c"/>'
        f'<rect x="60" y="2" width="{pale}" height="46" fill="#fff6d8"/>'
    )
    found = made(read_artwork(svg(bars), "two.svg"), {"transparency": "forbidden"})
    assert found.decided.plan.ground == ground


def test_a_tint_replaces_the_colour_and_keeps_the_shape() -> None:
    plain, tinted = made(artwork_of("mark"), {}), made(artwork_of("mark"), {}, tint="#ff8800")
    before, after = (np.asarray(opened(entry.encoded.data).convert("RGBA")) for entry in (plain, tinted))
    assert np.array_equal(before[..., 3], after[..., 3])
    assert (after[after[..., 3] == 255][:, :3] == (255, 136, 0)).all()


def test_a_ground_of_one_colour_fills_the_whole_picture() -> None:
    pixels = np.asarray(opened(made(artwork_of("mark"), {}, fill=solid("#102030")).encoded.data).convert("RGBA"))
    assert tuple(pixels[0, 0]) == (16, 32, 48, 255)
    assert pixels[..., 3].min() == 255


def test_enlarging_a_bitmap_is_told_with_its_figure_and_a_vector_is_free() -> None:
    small = read_artwork(saved(photo(100, 60), "JPEG"), "small.jpg")
    assert rules(small, {})["enlarging"] == "risky"
    assert "enlarging" not in rules(artwork_of("mark"), {"size": {"width": 3000, "height": 3000}})
    finding = planned_fit(piece_of(small), sheet(), {"a": small}, HERE).findings[0]
    assert finding.measured == pytest.approx(320 / 100, abs=0.01)
    assert label_of_finding(finding) == "enlarged 3.2 ×"


def test_a_picture_that_was_enlarged_before_it_came_is_judged_by_its_detail() -> None:
    artwork = read_artwork(saved(photo(400, 225), "JPEG"), "large.jpg")
    enlarged = artwork._replace(facts=artwork.facts.model_copy(update={"detail_px": 100.0}))
    assert "enlarging" not in rules(artwork, {})
    assert rules(enlarged, {})["enlarging"] == "risky"
    finding = planned_fit(piece_of(enlarged), sheet(), {"a": enlarged}, HERE).findings[0]
    assert finding.measured == pytest.approx(320 / 100, abs=0.02)
    assert "400 px long, carries only 100 px" in finding.message


@pytest.mark.parametrize(
    ("padding", "cut", "touches"),
    [
        ({"value": 0, "unit": "px"}, None, True), ({"value": 5, "unit": "px"}, None, False),
        ({"value": 5, "unit": "px"}, {"shape": "circle"}, True), (None, {"shape": "circle"}, False),
        (None, None, False),
    ],
)  # fmt: skip
def test_a_mark_too_near_to_the_edge_or_the_circle_is_told(
    padding: dict | None, cut: dict | None, touches: bool
) -> None:
    square = read_artwork(svg('<rect x="10" y="10" width="30" height="30"/>', "0 0 50 50"), "square.svg")
    place = {"size": {"width": 180, "height": 180}, "cut": cut}
    assert ("clearance" in rules(square, place, padding=padding)) is touches


@pytest.mark.parametrize(
    ("fill", "place", "colour", "faint"),
    [
        ("#ffffff", {"grounds": ["#ffffff"]}, None, True), ("#000000", {"grounds": ["#ffffff"]}, None, False),
        ("#000000", {"grounds": ["#ffffff", "#111111"]}, None, True),
        ("#ffffff", {"grounds": ["#ffffff"]}, "#000000", False),
        ("#8a8a8a", {"grounds": ["#ffffff"], "veil": {"colour": "#000000", "opacity": 0.5}}, None, True),
    ],
)  # fmt: skip
def test_a_faint_mark_is_told_on_every_ground_veil_included(
    fill: str, place: dict, colour: str | None, faint: bool
) -> None:
    mark = read_artwork(svg(f'<circle cx="50" cy="25" r="20" fill="{fill}"/>'), "m.svg")
    assert ("contrast" in rules(mark, place, fill=solid(colour) if colour else None)) is faint


def test_a_tile_on_its_own_colour_is_judged_by_what_is_inside() -> None:
    tile = '<rect width="50" height="50" rx="9" fill="#17443c"/><circle cx="25" cy="25" r="12" fill="#f4d06f"/>'
    badge = read_artwork(svg(tile, "0 0 50 50"), "badge.svg")
    assert "contrast" not in rules(badge, {}, fill=solid("#17443c"))
    plain = read_artwork(svg('<rect width="50" height="50" rx="9" fill="#17443c"/>', "0 0 50 50"), "tile.svg")
    assert "contrast" in rules(plain, {}, fill=solid("#17443c"))


def test_a_white_box_on_a_coloured_ground_is_told_and_mended() -> None:
    assert rules(artwork_of("boxed"), {}, fill=solid("#203040"))["box"] == "risky"
    assert rules(artwork_of("boxed"), {"grounds": ["#222222"]})["box"] == "risky"
    assert "box" not in rules(artwork_of("boxed"), {"grounds": ["#ffffff"]})
    assert "box" not in rules(artwork_of("boxed"), {"transparency": "forbidden", "grounds": ["#222222"]})


@pytest.mark.parametrize(
    ("name", "place", "fields", "rule"),
    [
        ("mark", {}, {"padding": {"value": 0, "unit": "px"}}, "clearance"),
        ("mark", {"grounds": ["#17181a"]}, {}, "contrast"),
        ("mark", {"grounds": ["#ffffff", "#000000"]}, {}, "contrast"),
        ("boxed", {}, {"fill": solid("#203040")}, "box"),
    ],
)
def test_a_repair_mends_its_finding_in_one_place_only(name: str, place: dict, fields: dict, rule: str) -> None:
    artwork = artwork_of(name)
    target, piece, house = sheet(**place), piece_of(artwork, **fields), ("#f4d06f",)
    fit = decided_fit(piece, target, {"a": artwork}, HERE, house=house)
    finding = next(entry for entry in fit.findings if entry.rule == rule)
    assert finding.repair is not None
    mended = apply_changes(piece, repair_changes(finding.repair.name, piece, HERE, fit.evidence))
    again = decided_fit(mended, target, {"a": artwork}, HERE, house=house)
    assert rule not in {entry.rule for entry in again.findings}
    assert mended.parts == piece.parts
    with pytest.raises(DocumentError, match="nothing to repair|no repair"):
        repair_changes("contrasting-tint" if rule != "contrast" else "nonsense", mended, HERE, again.evidence)


def test_a_made_file_is_accepted_by_its_own_sheet() -> None:
    for artwork, place in [
        (artwork_of("photo"), {"size": {"width": 640, "height": 360}, "formats": ["jpeg"], "max_bytes": 60_000}),
        (artwork_of("photo"), {"size": {"min_width": 100, "aspect": "4:3", "max_width": 400}, "formats": ["webp"]}),
        (artwork_of("mark"), {"transparency": "required", "size": {"width": 33, "height": 47}}),
        (artwork_of("mark"), {"formats": ["ico"], "size": {"width": 32, "height": 32}}),
        (artwork_of("mark"), {"formats": ["bmp"], "transparency": "forbidden"}),
    ]:
        found = made(artwork, place)
        assert found.judgement.verdict == "fits", found.judgement.findings
        _, judgement = judge_finished(found.encoded.data, "x", sheet(**place))
        assert all(demand.state == "fits" for demand in judgement.demands)


@pytest.mark.parametrize(
    ("data", "place", "rule"),
    [
        (saved(photo(321, 180), "PNG"), {}, "size"),
        (saved(photo(300, 180), "PNG"), {"size": {"min_width": 1, "aspect": "16:9"}}, "aspect"),
        (saved(photo(320, 180), "JPEG"), {}, "format"),
        (saved(photo(320, 180), "PNG"), {"max_bytes": 900}, "bytes"),
        (saved(disc(180).resize((320, 180)), "PNG"), {"transparency": "forbidden"}, "transparency"),
        (saved(photo(320, 180), "PNG"), {"transparency": "required"}, "transparency"),
        (saved(photo(320, 180), "GIF", save_all=True, append_images=[photo(320, 180, 8)], duration=100),
         {"formats": ["gif"]}, "motion"),
        (saved(photo(320, 180), "PNG"), {"motion": {"allowed": True, "required": True}}, "motion"),
        (saved(photo(320, 180), "GIF", save_all=True, append_images=[photo(320, 180, 8)], duration=4000),
         {"formats": ["gif"], "motion": {"allowed": True, "max_seconds": 6}}, "motion"),
        (saved(photo(320, 180), "GIF", save_all=True, append_images=[photo(320, 180, 8)], duration=20),
         {"formats": ["gif"], "motion": {"allowed": True, "max_fps": 30}}, "motion"),
        (saved(photo(320, 180), "PNG", save_all=True, append_images=[photo(320, 180, 8)], duration=100),
         {"max_bytes": None}, "format"),
    ],
)  # fmt: skip
def test_each_demand_refuses_what_breaks_it_and_nothing_else(data: bytes, place: dict, rule: str) -> None:
    _, judgement = judge_finished(data, "x.png", sheet(**place))
    refused = [demand.rule for demand in judgement.demands if demand.state == "refused"]
    assert rule in refused
    assert set(refused) <= {rule, "motion"} if rule == "format" else refused == [rule]


def test_a_proof_at_another_width_shows_the_same_plan() -> None:
    sources = facts_and_sources({"a": artwork_of("mark")})[1]
    plan = planned_fit(piece_of(artwork_of("mark")), sheet(), {"a": artwork_of("mark")}, HERE).plan
    data, media = proof_bytes(plan, sources, 160)
    assert media == "image/png"
    half = np.asarray(opened(data).convert("RGBA")).astype(int)
    full = np.asarray(opened(saved(_image(paint(plan, sources)), "PNG")).resize((160, 90), 4)).astype(int)
    assert half.shape == (90, 160, 4)
    assert np.abs(half[..., 3] - full[..., 3]).mean() < 2


def _image(pixels: np.ndarray):  # type: ignore[no-untyped-def]
    from PIL import Image

    return Image.fromarray(pixels)


def test_rendering_is_the_same_every_time() -> None:
    sources = facts_and_sources({"a": artwork_of("photo")})[1]
    plan = planned_fit(piece_of(artwork_of("photo")), sheet(), {"a": artwork_of("photo")}, HERE).plan
    assert np.array_equal(paint(plan, sources), paint(plan, sources))


@pytest.mark.parametrize(
    ("name", "place", "suited"),
    [
        ("mark", {"transparency": "required"}, True), ("mark", {"formats": ["jpeg"]}, False),
        ("photo", {"transparency": "required"}, False), ("photo", {"size": {"width": 32, "height": 32}}, False),
        ("photo", {}, True), ("photo", {"motion": {"allowed": True, "required": True}}, False),
    ],
)  # fmt: skip
def test_a_drop_on_the_wall_goes_only_where_it_suits(name: str, place: dict, suited: bool) -> None:
    assert suits(artwork_of(name).facts, sheet(**place)) is suited


def test_a_missing_artwork_is_said() -> None:
    with pytest.raises(DocumentError, match="artwork of part 'mark' is missing"):
        plan_of(piece_of(artwork_of("mark")), sheet(), {})
