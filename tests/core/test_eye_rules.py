"""Rules of the eye on whole fits: what they must find, what they must leave alone, and repairs that mend it."""

from typing import Any

import numpy as np
import pytest
from demo.marks import MARKS
from PIL import Image
from scipy.ndimage import distance_transform_edt

from fitzle.cli import main
from fitzle.core.artwork.reading import read_artwork
from fitzle.core.colour.srgb import parse_hex
from fitzle.core.fit.finished import judge_finished
from fitzle.core.geometry.rect import Rect
from fitzle.core.piece.changes import apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.free_area import hidden_share, nearest_free
from fitzle.core.preflight.registry import repair_changes
from fitzle.core.units import Size
from tests.core.composed import mark, picture, piece, shape, words
from tests.fits import made_fit
from tests.make import photo, saved, sheet, solid

EYE = {"smudge", "strokes", "halo", "busy", "covered", "off-centre", "clash", "merging"}
SQUARE = {"width": 256, "height": 256}


def crest() -> str:
    """A shield full of small things."""
    bar = '<rect x="{x}" y="{y}" width="2" height="62" fill="#f4d06f"/>'
    dot = '<circle cx="{x}" cy="{y}" r="1.6" fill="#b4541a"/>'
    bars = "".join(bar.format(x=8 + 5 * n, y=12 + (n % 3) * 4) for n in range(17))
    dots = "".join(dot.format(x=10 + 6 * (n % 14), y=20 + 8 * (n // 14)) for n in range(84))
    shield = '<path d="M5 5H95V60Q95 95 50 105Q5 95 5 60Z" fill="#17443c"/>'
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 100 110">{shield}{bars}{dots}</svg>'


def _cut_out(rim: str) -> bytes:
    """A disc whose outermost 2 px are half clear, in a colour of their own."""
    inside = distance_transform_edt(np.hypot(*(np.mgrid[0:400, 0:400] - 199.5)) < 190)
    colours = np.where((inside <= 2)[..., None], parse_hex(rim), parse_hex("#3c1e0a"))
    alpha = np.where(inside <= 0, 0, np.where(inside <= 2, 150, 255))
    return saved(Image.fromarray(np.dstack([colours, alpha]).astype(np.uint8)), "PNG")


def fringed() -> bytes:
    """Cut out of a white page, of which its rim still has some."""
    return _cut_out("#ffffff")


def clean() -> bytes:
    """The same disc with its own colour in its rim."""
    return _cut_out("#3c1e0a")


def stripes() -> bytes:
    """A calm picture with foliage-like streaks of black and white over its middle."""
    rng = np.random.default_rng(3)
    streaks = (rng.random((90, 160)) > 0.5).astype(np.uint8) * 255
    return saved(Image.fromarray(streaks).resize((640, 360), Image.Resampling.NEAREST).convert("RGB"), "PNG")


def artworks(**files: bytes | str) -> dict[str, Any]:
    """Artworks by name, of the bytes of bitmaps and the text of SVGs."""
    return {
        name: read_artwork(data.encode(), f"{name}.svg") if isinstance(data, str) else read_artwork(data, f"{name}.png")
        for name, data in files.items()
    }


def found(document: dict[str, Any], place: dict[str, Any], known: dict[str, Any]) -> dict[str, str]:
    made = made_fit(document, sheet(**place), known)
    return {one.rule: one.severity for one in made.judgement.findings}


def seen(*widths: int, density: float = 1) -> list[dict[str, Any]]:
    return [{"name": f"at {width}", "width": width, "density": density} for width in widths]


@pytest.mark.parametrize(
    ("name", "data", "width", "rule", "severity"),
    [
        ("crest", crest(), 16, "smudge", "risky"),
        ("crest", crest(), 240, "smudge", None),
        ("badge", MARKS["wheel-badge.svg"], 32, "smudge", None),
        ("words", MARKS["ottermoor-dark.svg"], 60, "strokes", "risky"),
        ("words", MARKS["ottermoor-dark.svg"], 60, "smudge", "risky"),
        ("words", MARKS["ottermoor-dark.svg"], 256, "strokes", None),
        ("ding", MARKS["ding.svg"], 48, "strokes", None),
        ("fringed", fringed(), 128, "halo", "risky"),
        ("clean", clean(), 128, "halo", None),
        ("badge", MARKS["wheel-badge.svg"], 128, "off-centre", None),
    ],
)
def test_a_mark_in_a_square(name: str, data: bytes | str, width: int, rule: str, severity: str | None) -> None:
    ground = "#17181a" if name in ("fringed", "clean") else "#ffffff"
    place = {"size": SQUARE, "formats": ["png"], "max_bytes": None, "seen": seen(width), "grounds": [ground]}
    assert found(piece(mark(name)), place, artworks(**{name: data})).get(rule) == severity


def test_a_denser_screen_shows_more() -> None:
    known = artworks(crest=crest())
    at = {"size": SQUARE, "formats": ["png"], "grounds": ["#ffffff"]}
    once = made_fit(piece(mark("crest")), sheet(**at, seen=seen(24)), known).judgement.findings
    twice = made_fit(piece(mark("crest")), sheet(**at, seen=seen(24, density=2)), known).judgement.findings
    lost = [next((one.measured for one in all_ if one.rule == "smudge"), 0) for all_ in (once, twice)]
    assert lost[0] > lost[1]


def test_words_over_clutter_are_told_and_a_plate_mends_it() -> None:
    document = Piece.model_validate(piece(picture(artwork="stripes"), words(colour="#f4d06f")))
    place = sheet(size={"width": 640, "height": 360}, formats=["png"], max_bytes=None)
    known = artworks(stripes=stripes())
    fit = made_fit(document, place, known)
    busy = next(one for one in fit.judgement.findings if one.rule == "busy")
    assert busy.repair and busy.part == "w"
    mended = apply_changes(document, repair_changes(busy.repair.name, document, "here", fit.decided.evidence, "w"))
    assert "busy" not in {one.rule for one in made_fit(mended, place, known).judgement.findings}


@pytest.mark.parametrize(
    ("background", "colour"),
    [
        (photo(640, 360, 3).point(lambda value: value // 4), "#ffffff"),  # grain, dark
        (Image.linear_gradient("L").resize((640, 360)).point(lambda value: value // 5).convert("RGB"), "#ffffff"),
        (Image.new("RGB", (640, 360), "#f6e7b8"), "#17443c"),
    ],
)
def test_words_over_calm_pictures_are_left_alone(background: Image.Image, colour: str) -> None:
    known = artworks(calm=saved(background, "PNG"))
    document = piece(picture(artwork="calm"), words(colour=colour))
    assert "busy" not in found(document, {"size": {"width": 640, "height": 360}, "max_bytes": None}, known)


def test_what_the_place_covers_is_told_and_moved_by_the_smallest_shift() -> None:
    zone = {"x": 0.6, "y": 0.0, "width": 0.4, "height": 1.0, "label": "portrait"}
    place = sheet(size={"width": 640, "height": 360}, covered=[zone], formats=["png"])
    at = {"anchor": "centre", "dx": 0.2, "dy": 0.1, "width": 0.6, "height": 0.3}
    document = Piece.model_validate(piece(words("Ride", colour="#17443c", stands=at), ground=solid("#ffffff")))
    fit = made_fit(document, place, {})
    covered = next((one for one in fit.judgement.findings if one.rule == "covered"), None)
    assert covered and covered.repair and "portrait" in covered.message
    mended = apply_changes(document, repair_changes("move-free", document, "here", fit.decided.evidence, "w"))
    after = made_fit(mended, place, {})
    assert "covered" not in {one.rule for one in after.judgement.findings}
    before_box, box = fit.decided.plan.words[0].box, after.decided.plan.words[0].box
    assert box.right <= 0.6 * 640 + 1
    assert box.y == pytest.approx(before_box.y, abs=1), "straight to the side"


def test_what_a_window_cuts_off_is_told() -> None:
    window = {"name": "phone", "x": 0.25, "y": 0.25, "width": 0.5, "height": 0.5}
    place = {"size": {"width": 640, "height": 360}, "windows": [window], "formats": ["png"]}
    corner = {"anchor": "top-left", "width": 0.3, "height": 0.3}
    middle = {"anchor": "centre", "width": 0.3, "height": 0.3}
    for stands, severity in ((corner, "risky"), (middle, None)):
        document = piece(words("Ride", colour="#17443c", stands=stands), ground=solid("#ffffff"))
        assert found(document, place, {}).get("covered") == severity


def test_shares_and_shifts_are_exact() -> None:
    half = {"y": 0, "width": 0.5, "height": 0.5}
    place = sheet(covered=[{**half, "x": 0, "label": "a"}, {**half, "x": 0.25, "label": "b"}])
    size = Size(100, 100)
    assert hidden_share(Rect(0, 0, 100, 50), place, size) == pytest.approx(0.75), "what two zones cover counts once"
    assert hidden_share(Rect(80, 60, 10, 10), place, size) == 0
    free = nearest_free(Rect(60, 10, 10, 10), place, size)
    assert free and free.x >= 75 and free.y == 10
    assert nearest_free(Rect(0, 0, 101, 10), place, size) is None


@pytest.mark.parametrize(
    ("front", "back", "rule"),
    [("#ff2200", "#8a4dff", "clash"), ("#b03a2e", "#6b6b00", "merging"), ("#f4d06f", "#17443c", None)],
)
def test_colours_that_do_not_go_together_are_noted(front: str, back: str, rule: str | None) -> None:
    document = piece(shape("circle", solid(front), stands={"width": 0.8, "height": 0.8}), ground=solid(back))
    told = found(document, {"size": SQUARE, "formats": ["png"]}, {})
    assert {one for one in told if one in ("clash", "merging")} == ({rule} if rule else set())


@pytest.mark.parametrize("side", [16, 4096])
@pytest.mark.parametrize("what", ["flat", "noise"])
def test_odd_artwork_is_judged_without_a_crash_or_a_false_alarm(side: int, what: str) -> None:
    noise = np.random.default_rng(1).integers(0, 255, (side, side, 4), dtype=np.uint8)
    pixels = noise if what == "noise" else np.full((side, side, 4), (23, 68, 60, 255), np.uint8)
    known = artworks(odd=saved(Image.fromarray(pixels), "PNG", compress_level=1))
    place = {"size": {"width": 64, "height": 64}, "formats": ["png"]}
    told = found(piece(picture(artwork="odd")), place, known)
    assert not set(told) & EYE


@pytest.mark.parametrize(("moved", "severity"), [(0.0, None), (0.02, None), (0.07, "risky"), (-0.07, "risky")])
def test_a_mark_that_was_put_aside_is_off_and_centred_by_a_click(moved: float, severity: str | None) -> None:
    stands = {"anchor": "centre", "dx": moved, "width": 0.6, "height": 0.6}
    document = Piece.model_validate(piece(mark("badge", stands=stands)))
    place = sheet(size=SQUARE, formats=["png"])
    known = artworks(badge=MARKS["wheel-badge.svg"])
    fit = made_fit(document, place, known)
    told = next((one for one in fit.judgement.findings if one.rule == "off-centre"), None)
    assert (told.severity if told else None) == severity
    if told:
        changes = repair_changes("centre-by-weight", document, "here", fit.decided.evidence, "m")
        again = made_fit(apply_changes(document, changes), place, known)
        assert "off-centre" not in {one.rule for one in again.judgement.findings}


def test_a_piece_of_nothing_has_nothing_to_say() -> None:
    told = found(piece(ground=solid("#ffffff")), {"size": SQUARE, "formats": ["png"]}, {})
    assert not set(told) & EYE


def test_a_finished_file_is_judged_by_what_needs_no_plan() -> None:
    clashing = Image.new("RGB", (400, 400), "#8a4dff")
    clashing.paste("#ff2200", (100, 0, 300, 400))
    place = sheet(size={"width": 400, "height": 400}, formats=["png", "svg"], max_bytes=None)
    _, judgement = judge_finished(saved(clashing, "PNG"), "x.png", place)
    assert [one.rule for one in judgement.findings] == ["clash"]
    _, other = judge_finished(saved(clashing.convert("L").convert("RGB"), "PNG"), "x.png", place)
    assert other.findings == []
    drawing = b'<svg xmlns="http://www.w3.org/2000/svg" width="400" height="400"><rect width="9" height="9"/></svg>'
    assert [one.rule for one in judge_finished(drawing, "x.svg", place)[1].findings] == ["off-centre"]


def test_the_command_line_explains_a_rule(capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SystemExit) as ended:
        main(["--explain", "smudge"])
    assert ended.value.code == 0
    assert "coarea formula" in capsys.readouterr().out
    with pytest.raises(SystemExit) as ended:
        main(["--explain", "nonsense"])
    assert ended.value.code == 2
    assert "there is no such rule" in capsys.readouterr().err
