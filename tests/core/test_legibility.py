"""What is really behind words and marks, and the colour that is chosen for them."""

from typing import Any

import pytest

from fitzle.core.colour.contrast import contrast_ratio
from fitzle.core.colour.srgb import Rgb, parse_hex
from fitzle.core.errors import DocumentError
from fitzle.core.fit.deciding import decide_again
from fitzle.core.fit.keys import file_key
from fitzle.core.fit.resolving import resolve
from fitzle.core.piece.changes import SetField, apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.preflight.legibility import contrasts_behind
from fitzle.core.preflight.registry import repair_changes
from fitzle.core.preflight.typefaces import typefaces_for
from fitzle.core.units import Size
from tests.core.composed import HOUSE, artworks, decided, gradient, mark, picture, piece, read_artworks, shape, words
from tests.fits import decided_fit, planned_fit, request_for
from tests.make import sheet, solid


def rules(data: dict[str, Any], **place: Any) -> dict[str, Any]:
    return {finding.rule: finding for finding in decided(data, **place).findings}


@pytest.mark.parametrize(
    ("ground", "best"),
    [("#ffffff", "#111111"), ("#17443c", "#ffffff"), ("#b4541a", "#ffffff"), ("#f4d06f", "#111111")],
)
def test_the_automatic_colour_is_the_one_with_the_best_contrast(ground: str, best: str) -> None:
    fit = decided(piece(words(), ground=solid(ground)))
    assert fit.plan.words[0].colour == best
    assert fit.readings[0].ratio == pytest.approx(contrast_ratio(parse_hex(best), parse_hex(ground)), abs=0.02)


def test_what_is_behind_is_looked_at_where_the_words_stand() -> None:
    """The left half is white, the right half near-black: words on the right are light, those on the left dark."""
    half = shape("rectangle", solid("#101010"), stands={"anchor": "right", "width": 0.89, "height": 1})
    for anchor, colour in (("left", "#111111"), ("right", "#ffffff")):
        stands = {"anchor": anchor, "width": 0.7, "height": 0.4}
        assert decided(piece(half, words(stands=stands), ground=solid("#ffffff"))).plan.words[0].colour == colour


def test_a_tenth_of_the_area_may_be_fainter() -> None:
    """Behind black words a white ground with a dark stripe: 8 % of the area do not count, 20 % do."""

    def ratio(share: float) -> float:
        stripe = shape("rectangle", solid("#222222"), stands={"width": 1.78 * share, "height": 1})
        text = words("MMMM", colour="#111111", stands={"width": 1.7, "height": 0.3}, align="centre")
        fit = decided(piece(stripe, text, ground=solid("#ffffff")))
        return fit.readings[0].ratio

    assert ratio(0.05) > 15
    assert ratio(0.3) < 2


def test_the_veil_and_the_weakest_page_count() -> None:
    clear = piece(words(colour="#777777"))
    assert "contrast" not in rules(clear, grounds=["#ffffff"], seen=[{"name": "a", "width": 320}])
    assert rules(clear, grounds=["#ffffff", "#888888"])["contrast"].measured < 1.4
    white = piece(words(colour="#ffffff"), ground=solid("#999999"))
    plain = rules(white)["contrast"].measured
    assert plain == pytest.approx(2.85, abs=0.05)
    under = rules(white, veil={"colour": "#000000", "opacity": 0.6})["contrast"].measured
    assert under == pytest.approx(contrast_ratio(Rgb(102, 102, 102), Rgb(61, 61, 61)), abs=0.05), (
        "the words are veiled too"
    )


def test_a_plate_and_an_outline_carry_the_words() -> None:
    grey = solid("#888888")
    assert "contrast" in rules(piece(words(colour="#999999"), ground=grey))
    assert "contrast" not in rules(piece(words(colour="#999999", plate={"colour": "#111111"}), ground=grey))
    assert "contrast" not in rules(
        piece(words(colour="#999999", outline={"width": 0.1, "colour": "#111111"}), ground=grey)
    )


def test_a_mark_on_a_picture_is_measured_on_its_pixels() -> None:
    stands = {"anchor": "centre", "width": 0.8, "height": 0.3}
    on_gradient = piece(mark("ottermoor-light.svg", stands=stands), ground=gradient("linear"))
    assert rules(on_gradient)["contrast"].message.startswith("The mark reads only")
    on_dark = piece(picture(), shape("rectangle", solid("#17443c"), stands={"width": 1.2, "height": 0.6}),
                    mark("ottermoor-light.svg", stands=stands))  # fmt: skip
    assert "contrast" not in rules(on_dark)


def test_small_letters_are_told_with_the_size_they_need_and_can_be_enlarged() -> None:
    data = piece(words(stands={"width": 1.2, "height": 0.06}), ground=solid("#ffffff"))
    place = {"seen": [{"name": "list", "width": 100}, {"name": "page", "width": 300}]}
    finding = rules(data, **place)["letters"]
    assert "list, 100 px wide" in finding.message and finding.part == "w"
    document, there = Piece.model_validate(data), sheet(size={"width": 320, "height": 180}, **place)
    evidence = planned_fit(document, there, read_artworks()).evidence
    mended = apply_changes(document, repair_changes("enlarge-words", document, "here", evidence))
    assert "letters" not in {entry.rule for entry in planned_fit(mended, there, read_artworks()).findings}


def test_a_plate_mends_faint_words_here_only() -> None:
    data = piece(words(colour="#999999"), ground=solid("#888888"))
    document = Piece.model_validate(data)
    evidence = decided_fit(document, sheet(), read_artworks(), house=HOUSE).evidence
    changes = repair_changes("plate-behind", document, "here", evidence, "w")
    assert all(isinstance(change, SetField) for change in changes)
    assert [(change.part, change.field, change.placement) for change in changes] == [("w", "plate", "here")]
    assert "contrast" not in rules(
        {**data, "parts": [data["parts"][0], {**data["parts"][1], "plate": changes[0].value}]}
    )
    with pytest.raises(DocumentError, match="nothing to repair"):
        repair_changes("plate-behind", document, "here", evidence, "nobody")


def test_missing_letters_are_told() -> None:
    finding = rules(piece(words("wheel 𒀀")))["missing-letters"]
    assert "𒀀" in finding.message and finding.severity == "risky"


def test_contrasts_of_any_colours_are_those_that_the_words_would_have() -> None:
    data = piece(words(), ground=solid("#17443c"))
    fit, there = decided(data), sheet(size={"width": 320, "height": 180})
    found = contrasts_behind(fit.plan, "w", ["#ffffff", "#17443c"], there, artworks()[1])
    assert found["#17443c"] == 1.0
    assert found["#ffffff"] == pytest.approx(contrast_ratio(Rgb(255, 255, 255), parse_hex("#17443c")), abs=0.02)
    with pytest.raises(DocumentError, match="no part 'x'"):
        contrasts_behind(fit.plan, "x", ["#ffffff"], there, artworks()[1])


def test_what_was_seen_once_need_not_be_looked_at_again() -> None:
    data = piece(words(), ground=gradient("radial"))
    fit = decided(data)
    again = decide_again(fit.planned, fit.readings)
    assert again.plan == fit.plan
    assert again.findings == fit.findings


def test_house_colours_belong_to_the_key_only_where_they_are_chosen_from() -> None:
    def key(document: dict[str, Any], house: tuple[str, ...]) -> str:
        return file_key(resolve(request_for(document, sheet(), {}, house=house)))

    auto, fixed = piece(words()), piece(words(colour="#ffffff"))
    assert key(auto, HOUSE) != key(auto, ())
    assert key(fixed, HOUSE) == key(fixed, ())


def test_every_typeface_is_judged_for_these_words_where_they_are_seen_smallest() -> None:
    part = Piece.model_validate(piece(words("How to true a wheel", stands={"width": 1.2, "height": 0.12}))).parts[1]
    faces = typefaces_for(part, Size(1280, 720), sheet(seen=[{"name": "list", "width": 168}]))  # type: ignore[arg-type]
    assert len(faces) >= 30
    assert {face.reads for face in faces} == {True, False}
    by_name = {face.family: face for face in faces}
    assert by_name["Anton"].seen_x_height_px > by_name["Caveat"].seen_x_height_px
    assert by_name["Work Sans"].weights == (400, 600, 800)


@pytest.mark.parametrize(
    ("disc", "page", "reads"), [("#111111", "#f4f1ea", "#111111"), ("#ffffff", "#1c2324", "#ffffff")]
)
def test_automatic_words_take_the_colour_that_loses_least_even_where_a_tenth_of_them_is_lost(
    disc: str, page: str, reads: str
) -> None:
    """A disc of the words' own tone under some of them must not turn all the others into the colour of the page."""
    stands = {"anchor": "centre", "dx": -0.35, "width": 0.3, "height": 0.3}
    document = piece(shape("circle", solid(disc), stands=stands), words(colour="auto"), ground=solid(page))
    fit = decided_fit(document, sheet(size={"width": 320, "height": 180}, formats=["png"]), {})
    assert fit.plan.words[0].colour == reads
