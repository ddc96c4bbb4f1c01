"""More of the eye: letters, contrast of APCA, twins, stretched circles, gaps, finished files, odd pieces."""

import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from demo import people
from demo.photos import all_photos
from PIL import Image, ImageDraw

from fitzle.cli import main
from fitzle.core.artwork.reading import read_and_judge
from fitzle.core.colour.apca import lightness_contrast
from fitzle.core.colour.srgb import Rgb, parse_hex
from fitzle.core.eye.ellipse import stretched_by
from fitzle.core.eye.neighbours import pair_is_calm, pair_is_told
from fitzle.core.eye.strokes import strokes_of, working_px
from fitzle.core.eye.twins import cells_of, share_that_differs
from fitzle.core.fit.finished import NOT_KNOWN, judge_finished
from fitzle.core.piece.changes import apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.recolouring import moved_apart
from fitzle.core.preflight.registry import repair_changes
from fitzle.core.preflight.viewing import seen_letters
from fitzle.core.render.painting import paint
from fitzle.core.spec.sheet import Viewing
from fitzle.core.type.library import family_named, offered_families
from fitzle.core.type.small import least_for, small_figures
from tests.core.composed import mark, picture, piece, shape, words
from tests.core.judged import drawings
from tests.fits import made_fit, planned_fit
from tests.make import disc, opened, photo, saved, sheet, solid

WHITE = Rgb(255, 255, 255)


@pytest.mark.parametrize(
    ("letters", "ground", "expected"),
    [  # published with APCA-W3 0.1.9
        ("#888888", "#ffffff", 63.056469930209424),
        ("#ffffff", "#888888", -68.54146436644962),
        ("#000000", "#aaaaaa", 58.146262578561334),
        ("#aaaaaa", "#000000", -56.24113336839742),
        ("#112233", "#ddeeff", 91.66830811481631),
        ("#ddeeff", "#112233", -93.06770049484275),
        ("#222222", "#222222", 0.0),
    ],
)
def test_lightness_contrast_is_that_of_apca(letters: str, ground: str, expected: float) -> None:
    assert lightness_contrast(parse_hex(letters), parse_hex(ground)) == pytest.approx(expected, abs=0.01)


@pytest.mark.parametrize("family", ["Work Sans", "Lora", "Barlow Condensed", "Nunito", "Rubik", "Playfair Display"])
@pytest.mark.parametrize("text", ["xxx", "HHH"])
def test_heights_are_those_of_the_drawn_letters(family: str, text: str) -> None:
    """To half a px of what is drawn, at the size at which it is seen; px that are half covered count."""
    stands = {"anchor": "centre", "width": 1.5, "height": 0.5}
    document = piece(words(text, family=family, colour="#000000", stands=stands), ground=solid("#ffffff"))
    plan = planned_fit(document, sheet(size={"width": 640, "height": 360}), {}).plan
    found = seen_letters(plan.words[0], plan, Viewing(name="a", width=128))
    rows = np.flatnonzero((paint(plan, {}, 2560)[..., 0] < 128).any(axis=1))
    assert found.height_px == pytest.approx((rows[-1] - rows[0] + 1) / 20, abs=0.5)


def test_the_rhythm_of_every_typeface_is_plausible() -> None:
    for family in offered_families():
        small = small_figures(family.face(700).files[0])
        assert 0.1 < small.rhythm < 1 and 0.1 < small.cap_rhythm < 1, family.name
        assert small.stroke < small.cap_rhythm, f"{family.name}: a stroke is narrower than a stroke and its gap"
    narrow, usual = (small_figures(family_named(name).face(700).files[0]) for name in ("Barlow Condensed", "Work Sans"))
    assert narrow.rhythm < usual.rhythm


@pytest.mark.parametrize(("density", "height", "rhythm"), [(1, 5, 3), (1.5, 4.5, 2.7), (2, 4, 2.4), (3, 4, 2.4)])
def test_finer_screens_ask_for_less(density: float, height: float, rhythm: float) -> None:
    assert least_for(density) == pytest.approx((height, rhythm))


def _two(gap: float, seen: int) -> np.ndarray:
    """Two thick bars with a gap in seen px between them."""
    side = round(working_px(seen))
    scale, middle = side / seen, side / 2
    picture = Image.new("L", (side, side))
    pen = ImageDraw.Draw(picture)
    pen.rectangle((0, 0, middle - gap * scale / 2, side), fill=255)
    pen.rectangle((middle + gap * scale / 2, 0, side, side), fill=255)
    return np.asarray(picture) > 127


@pytest.mark.parametrize("seen", [24, 48])
@pytest.mark.parametrize(("gap", "closes"), [(0.4, True), (0.6, True), (1.1, False), (4.0, False)])
def test_gaps_close_below_three_quarters_of_a_seen_px(gap: float, closes: bool, seen: int) -> None:
    assert (strokes_of(_two(gap, seen), seen).closing > 0.25) is closes


@pytest.mark.parametrize("seen", [24, 64])
@pytest.mark.parametrize("width", [0.6, 1.0, 2.5])
def test_the_thinnest_stroke_is_measured_to_a_third_of_a_px(width: float, seen: int) -> None:
    side = round(working_px(seen))
    scale = side / seen
    picture = Image.new("L", (side, side))
    pen = ImageDraw.Draw(picture)
    for number, wide in enumerate((width, 3 * width, 3 * width)):
        middle = (number + 0.5) * side / 3
        pen.rectangle((middle - wide * scale / 2, side * 0.1, middle + wide * scale / 2 - 1, side * 0.9), fill=255)
    assert strokes_of(np.asarray(picture) > 127, seen).thinnest_px == pytest.approx(width, abs=0.3)


def _oval(ratio: float, turned: float = 0, width: int = 0) -> np.ndarray:
    picture = Image.new("RGBA", (800, 800))
    pen = ImageDraw.Draw(picture)
    box = (100, 400 - 300 / ratio, 700, 400 + 300 / ratio)
    pen.ellipse(box, fill=None if width else "#17443c", outline="#17443c", width=width or 1)
    return np.asarray(picture.rotate(turned, Image.Resampling.BICUBIC).resize((400, 400), Image.Resampling.BOX))


@pytest.mark.parametrize(
    ("ratio", "turned", "width", "told"),
    [(1.0, 0, 0, False), (1.08, 0, 0, True), (1.2, 0, 60, True), (1.2, 90, 0, True), (1.2, 30, 0, False),
     (1.7, 0, 0, False)],
)  # fmt: skip
def test_a_circle_that_is_an_ellipse(ratio: float, turned: float, width: int, told: bool) -> None:
    found = stretched_by(_oval(ratio, turned, width))
    assert (found >= 1.02) is told
    if told:
        assert found == pytest.approx(ratio, abs=0.02)


def test_other_outlines_are_no_ellipses() -> None:
    for drawing in (drawings.star("#17443c"), drawings.drop("#17443c"), drawings.gear("#17443c", 9)):
        known = {"m": _artwork(drawing)}
        told = made_fit(piece(mark("m")), sheet(size={"width": 128, "height": 128}), known).judgement.findings
        assert "stretched" not in {one.rule for one in told}


def _artwork(drawing: str) -> Any:
    from fitzle.core.artwork.reading import read_artwork

    return read_artwork(drawing.encode(), "m.svg")


def _pixels(picture: Image.Image) -> np.ndarray:
    return np.asarray(picture.convert("RGBA"))


@pytest.mark.parametrize(
    ("other", "twins"),
    [
        (photo(640, 360, 3), True),  # the same
        (photo(640, 360, 3).point(lambda value: min(255, value + 4)), True),  # hardly lighter
        (photo(640, 360, 4), False),
        (Image.blend(photo(640, 360, 3), Image.new("RGB", (640, 360), "#b4541a"), 0.5), False),  # another colour
        (photo(640, 640, 3), False),  # another shape
    ],
)
def test_twins_are_told_at_the_size_seen(other: Image.Image, twins: bool) -> None:
    one, two = (cells_of(_pixels(picture), WHITE, 320) for picture in (photo(640, 360, 3), other))
    assert (share_that_differs(one, two) <= 0.02) is twins


def test_twins_need_more_than_a_small_number_to_be_told_apart() -> None:
    plain = photo(640, 360, 3)
    small, large = plain.copy(), plain.copy()
    ImageDraw.Draw(small).ellipse((600, 320, 620, 340), fill="#ffffff")
    ImageDraw.Draw(large).rectangle((400, 60, 620, 340), fill="#ffffff")
    cells = [cells_of(_pixels(one), WHITE, 168) for one in (plain, small, large)]
    assert share_that_differs(cells[0], cells[1]) <= 0.02 < share_that_differs(cells[0], cells[2])


def test_files_of_a_series_are_compared(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    spec = tmp_path / "place.json"
    spec.write_text(sheet(size={"width": 320, "height": 180}, seen=[{"name": "list", "width": 168}]).model_dump_json())
    for name, seed in (("one", 1), ("two", 1), ("three", 5)):
        (tmp_path / f"{name}.png").write_bytes(saved(photo(320, 180, seed), "PNG"))
    files = [str(tmp_path / f"{name}.png") for name in ("one", "two", "three")]
    assert main(["check", *files, "--spec", str(spec), "--json"]) == 0
    answers = json.loads(capsys.readouterr().out)["files"]
    twins = [[one["rule"] for one in answer["findings"] if one["rule"] == "twins"] for answer in answers]
    assert twins == [["twins"], ["twins"], []]
    assert "two.png" in answers[0]["findings"][0]["message"]


def shifted(picture: Image.Image) -> Image.Image:
    """The picture 40 px further right."""
    return picture.transform(picture.size, Image.Transform.AFFINE, (1, 0, -40, 0, 1, 0))


@pytest.mark.parametrize(
    ("drawing", "place", "rule"),
    [
        (disc(200, "#ffffff"), {"grounds": ["#ffffff"]}, "contrast"),
        (disc(200, "#17443c"), {"grounds": ["#ffffff"]}, None),
        (disc(400, "#17443c", 60, "#ffffff"), {"grounds": ["#17443c"]}, "box"),
        (disc(400, "#17443c", 60, "#ffffff"), {"grounds": ["#ffffff"]}, None),
        (opened(drawings.cut_out("#ffffff", "#3c1e0a", 2)), {"grounds": ["#17181a"]}, "halo"),
        (shifted(disc(400, "#17443c", 60)), {}, "off-centre"),
    ],
)  # fmt: skip
def test_a_finished_mark_is_judged_where_it_will_stand(drawing: Image.Image, place: Any, rule: str | None) -> None:
    size = {"width": drawing.width, "height": drawing.height}
    where = sheet(size=size, max_bytes=None, seen=[{"name": "a", "width": 200}], **{"grounds": ["#ffffff"], **place})
    _, judgement = judge_finished(saved(drawing, "PNG"), "mark.png", where)
    assert {one.rule for one in judgement.findings} == ({rule} if rule else set())
    assert all(one.repair is None and one.part is None for one in judgement.findings)
    assert {"letters", "busy"} <= set(NOT_KNOWN)


@pytest.mark.parametrize(("times", "told"), [(1, False), (3, True)])
def test_a_finished_picture_that_was_enlarged_is_found_out(times: int, told: bool) -> None:
    whole = opened(all_photos()["workbench.jpg"]).convert("RGB").resize((960, 640), Image.Resampling.LANCZOS)
    picture = whole.resize((960 // times, 640 // times), Image.Resampling.LANCZOS).resize((960, 640))
    where = sheet(size={"width": 960, "height": 640}, max_bytes=None)
    _, judgement = judge_finished(saved(picture, "PNG"), "photo.png", where)
    assert ("enlarging" in {one.rule for one in judgement.findings}) is told


@pytest.mark.parametrize(("one", "other"), [("#ff2200", "#8a4dff"), ("#d2007a", "#1f7a00"), ("#2244ff", "#cc2200")])
def test_a_colour_moved_apart_keeps_its_hue(one: str, other: str) -> None:
    for holds in (pair_is_calm, pair_is_told):
        moved = moved_apart(one, other, holds)
        assert moved and holds(parse_hex(moved), parse_hex(other))


@pytest.mark.parametrize("count", [1, 99])
def test_many_parts_and_only_words(count: int) -> None:
    places = [{"width": 0.05, "height": 0.05, "dx": -0.8 + 0.016 * n} for n in range(count)]
    parts = [{**shape("circle", solid("#b4541a"), stands=at), "id": f"s{n}"} for n, at in enumerate(places)]
    place = sheet(size={"width": 640, "height": 360}, max_bytes=None, seen=[{"name": "a", "width": 320}])
    told = {one.rule for one in made_fit(piece(*parts, ground=solid("#ffffff")), place, {}).judgement.findings}
    assert ("crowded" in told) is (count == 99)
    alone = made_fit(piece(words("Ride", colour="#17443c")), place, {}).judgement.findings
    assert [one for one in alone if one.severity == "risky"] == []


@pytest.mark.parametrize("side", [16, 4096])
def test_nothing_visible_says_nothing_of_the_eye(side: int) -> None:
    clear = saved(Image.new("RGBA", (side, side)), "PNG", compress_level=1)
    place = sheet(size={"width": side, "height": side}, max_bytes=None, seen=[{"name": "a", "width": 32}])
    _, judgement = judge_finished(clear, "clear.png", place)
    assert [one.rule for one in judgement.findings if one.severity != "note"] == []


def _guest(x: float) -> bytes:
    """A photo of a made person who stands at a share of its width."""
    scene = people.together(people.person(960, 540, x=x), people.room(960, 540))
    return saved(Image.fromarray(np.asarray(scene)[..., :3]), "PNG", compress_level=1)


ZONE = {"x": 0.5, "y": 0.0, "width": 0.5, "height": 1.0, "label": "card"}


def test_a_face_under_what_the_place_covers_is_told_and_the_crop_moved() -> None:
    known = {"g": read_and_judge(_guest(0.6), "guest.png")}
    assert len(known["g"].facts.faces) == 1
    document = Piece.model_validate(piece(picture(artwork="g")))
    where = sheet(size={"width": 300, "height": 300}, covered=[ZONE], max_bytes=None)
    fit = made_fit(document, where, known)
    finding = next(one for one in fit.judgement.findings if one.rule == "covered")
    assert "face" in finding.message and finding.repair and finding.repair.name == "show-face"
    changes = repair_changes("show-face", document, "here", fit.decided.evidence, "p")
    after = made_fit(apply_changes(document, changes), where, known).judgement.findings
    assert "covered" not in {one.rule for one in after}


@pytest.mark.parametrize(("x", "told"), [(0.8, True), (0.2, False)])
def test_a_face_in_a_finished_picture_is_found(x: float, told: bool) -> None:
    where = sheet(size={"width": 960, "height": 540}, covered=[ZONE], max_bytes=None)
    _, judgement = judge_finished(_guest(x), "guest.png", where)
    assert ("covered" in {one.rule for one in judgement.findings}) is told
