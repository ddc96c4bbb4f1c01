"""What a part, an effect or a fill is like when it comes in, and what is known of a file before it is made."""

from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.encode.settings import Lossless
from fitzle.core.errors import DocumentError
from fitzle.core.findings import Finding
from fitzle.core.fit.making import make_fit
from fitzle.core.geometry.rect import Point
from fitzle.core.piece.changes import AnyChange, apply_changes
from fitzle.core.piece.document import Piece
from fitzle.core.plan.first_looks import DARK, LIGHT, first_looks
from fitzle.core.plan.new_parts import artwork_part, replacing, shape_part, words_part
from fitzle.core.preflight.expected import UNKNOWN, expected_demands
from fitzle.core.preflight.registry import label_of_finding
from fitzle.core.render.painting import paint
from fitzle.core.units import Size
from tests.core.composed import HOUSE, artworks, decided, mark, piece, shape, words
from tests.fits import pixels as pixels_of
from tests.fits import searched
from tests.make import opened, photo, sheet, solid

ROLES = ("headline", "second line", "byline", "badge")
SIZES = [Size(1280, 720), Size(512, 512), Size(2560, 423), Size(300, 900)]
EMPTY = Piece.model_validate(piece(ground=solid("#ffffff")))


def added(change: AnyChange, size: Size) -> Any:
    """The part as it stands in a placement of this size."""
    document = apply_changes(EMPTY, [change]).model_dump(mode="json")
    return decided(document, size={"width": size.width, "height": size.height}).plan.parts[0]


@pytest.mark.parametrize("size", SIZES, ids=lambda size: f"{size.width}x{size.height}")
@pytest.mark.parametrize("role", ROLES)
def test_new_words_stand_inside_and_free_of_the_edges(role: str, size: Size) -> None:
    part = added(words_part(role, *("Oswald", "Work Sans"), HOUSE[0]), size)
    ink = part.box
    assert ink.x > 0 and ink.y > 0
    assert ink.right < size.width and ink.bottom < size.height


def test_a_headline_takes_the_heading_typeface_and_the_others_the_text_typeface() -> None:
    families = {role: words_part(role, "Oswald", "Work Sans").value["family"] for role in ROLES}
    assert families == {"headline": "Oswald", "second line": "Work Sans", "byline": "Work Sans", "badge": "Oswald"}


def test_a_badge_comes_with_a_plate_in_the_strong_colour() -> None:
    assert words_part("badge", strong="#b4541a").value["plate"]["colour"] == "#b4541a"


@pytest.mark.parametrize("role", ["ground", "picture", "title", ""])
def test_other_roles_are_no_words(role: str) -> None:
    with pytest.raises(DocumentError, match="no part with the role"):
        words_part(role)


@given(x=st.floats(0, 1), y=st.floats(0, 1), size=st.sampled_from(SIZES), name=st.sampled_from(["photo", "badge"]))
def test_artwork_dropped_anywhere_lies_inside_in_its_own_shape(x: float, y: float, size: Size, name: str) -> None:
    facts = artworks()[0]
    name = name if name in facts else next(iter(facts))
    change = artwork_part(name, facts[name], size, Point(x * size.width, y * size.height))
    part = added(change, size)
    assert part.stands.x >= -0.01 and part.stands.y >= -0.01
    assert part.stands.right <= size.width + 0.01 and part.stands.bottom <= size.height + 0.01
    own = facts[name].trimmed if facts[name].kind == "mark" else facts[name]
    assert part.stands.width / part.stands.height == pytest.approx(own.width / own.height, rel=0.01)


def test_artwork_without_a_point_stands_in_the_middle() -> None:
    facts, size = artworks()[0], Size(1280, 720)
    part = added(artwork_part("photo", facts["photo"], size), size)
    assert (part.stands.centre.x, part.stands.centre.y) == pytest.approx((640, 360), abs=1)


def test_a_new_shape_stands_in_the_middle_in_the_colour_asked() -> None:
    part = added(shape_part("star", "#b4541a"), Size(640, 640))
    assert (part.stands.centre.x, part.stands.centre.y) == pytest.approx((320, 320), abs=0.5)
    assert part.fill.colour == "#b4541a"


def test_a_replaced_picture_forgets_what_was_only_true_of_the_old_one() -> None:
    before = Piece.model_validate(piece(mark("badge", zoom=3, recolour={"#111111": "#222222"}), ground=None))
    after = apply_changes(before, replacing("m", "other")).parts[1]
    assert (after.artwork, after.zoom, after.recolour, after.focal_point) == ("other", 1, {}, None)  # type: ignore[union-attr]


@pytest.mark.parametrize("effect", ["outline", "glow", "shadow", "plate"])
def test_an_effect_shows_as_soon_as_it_is_turned_on(effect: str) -> None:
    looks = first_looks(HOUSE).model_dump(mode="json")
    plain = decided(piece(words(colour="#17443c"), ground=solid("#b4541a")))
    effected = decided(piece(words(colour="#17443c", **{effect: looks[effect]}), ground=solid("#b4541a")))
    before, after = (paint(fit.plan, {}).astype(int) for fit in (plain, effected))
    assert np.count_nonzero(np.abs(before - after).max(axis=2) > 24) > 100


@pytest.mark.parametrize("field", ["border", "edge"])
def test_a_stroke_shows_as_soon_as_it_is_turned_on(field: str) -> None:
    looks = first_looks(HOUSE).model_dump(mode="json")
    stands = {"anchor": "centre", "width": 0.6, "height": 0.6}
    own = shape("star", solid("#17443c"), stands=stands)
    pictures = [
        paint(decided(piece(part, ground=solid("#b4541a"))).plan, {}).astype(int)
        for part in (own, {**own, field: looks[field]})
    ]
    assert np.count_nonzero(np.abs(pictures[0] - pictures[1]).max(axis=2) > 24) > 100


@pytest.mark.parametrize(
    ("house", "ends"),
    [
        ((), (DARK, LIGHT)),
        (("#17443c",), ("#17443c", LIGHT)),
        (("#17443c", "#f4d06f"), ("#17443c", "#f4d06f")),
        (HOUSE, (HOUSE[0], HOUSE[2])),
    ],
)
def test_a_new_gradient_leads_through_the_house_colours(house: tuple[str, ...], ends: tuple[str, str]) -> None:
    stops = first_looks(house).gradient.stops
    assert (stops[0].colour, stops[-1].colour) == ends


def test_before_the_file_is_made_only_what_the_plan_knows_is_said() -> None:
    asked = {"formats": ["jpeg"], "transparency": "forbidden"}
    there = sheet(**asked)
    fit = decided(piece(words(), ground=solid("#ffffff")), **asked)
    expected = {demand.rule: demand for demand in expected_demands(fit.plan, there)}
    assert expected["size"].measured == "320 × 180"
    assert expected["bytes"].measured == UNKNOWN
    made = {demand.rule: demand for demand in make_fit(fit, {}).judgement.demands}
    assert made.keys() == expected.keys(), "no line comes or goes when the file is there"
    assert made["size"] == expected["size"]
    assert made["bytes"].measured != UNKNOWN


@pytest.mark.parametrize(
    ("rule", "severity", "measured", "limit", "said"),
    [
        ("bytes", "refused", 309_000, 300_000, "9.0 KB too heavy"),
        ("quality", "refused", 12.0, None, "too much for its limit"),
        ("quality", "risky", 47.6, 60, "looks 48 of 100"),
        ("contrast", "risky", 1.32, 3.0, "reads 1.3 : 1"),
        ("enlarging", "risky", 2.34, 1.0, "enlarged 2.3 ×"),
        ("clearance", "risky", 0.0, 8.0, "touches the edge"),
        ("clearance", "risky", 3.26, 8.0, "3.3 px from the edge"),
        ("letters", "risky", 3.4, 5.0, "letters 3.4 px tall"),
        ("size", "refused", "300 × 300 px", "320 × 180 px", "wrong size"),
        ("box", "risky", None, None, "its box shows"),
        ("something-new", "note", 4, None, "something-new"),
    ],
)
def test_a_finding_in_a_few_words(rule: str, severity: Any, measured: Any, limit: Any, said: str) -> None:
    assert label_of_finding(Finding(rule=rule, severity=severity, message="m", measured=measured, limit=limit)) == said


def test_a_drawn_picture_becomes_a_lossless_webp_where_it_fits() -> None:
    pixels = paint(decided(piece(words(), ground=solid("#ffffff"))).plan, {})
    found = searched("webp", pixels_of(pixels), None).best
    assert found is not None and (found.settings, found.score) == (Lossless(), 100.0)
    assert np.array_equal(np.asarray(opened(found.data).convert("RGB")), pixels[..., :3])


def test_a_photo_becomes_the_best_webp_under_the_limit() -> None:
    pixels = np.dstack([np.asarray(photo()), np.full((400, 640), 255, np.uint8)])
    free, tight = (
        searched("webp", pixels_of(pixels), None).best,
        searched("webp", pixels_of(pixels), 12_000).best,
    )
    assert free is not None and tight is not None
    assert len(tight.data) <= 12_000 < len(free.data)
    assert tight.score is not None and free.score is not None and tight.score < free.score


def test_a_limit_that_no_webp_reaches_says_what_was_tried() -> None:
    pixels = np.dstack([np.asarray(photo()), np.full((400, 640), 255, np.uint8)])
    search = searched("webp", pixels_of(pixels), 200)
    assert search.best is None
    assert search.candidates and min(candidate.bytes for candidate in search.candidates) > 200
