"""Keys: which of the three changes with each field of a sheet and of a piece, and that equal keys mean equal files."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from fitzle.core.fit.keys import file_key, judgement_key, proof_key
from fitzle.core.fit.request import FitArtwork, FitRequest
from fitzle.core.fit.resolving import resolve
from fitzle.core.piece.document import Piece, Row
from fitzle.core.piece.migrations import MIGRATIONS
from fitzle.core.spec.sheet import SpecSheet
from tests.core.composed import HOUSE, mark, picture, piece, read_artworks, words
from tests.fits import plan_of, request_for
from tests.make import sheet, solid

BASE = piece(mark("ottermoor-dark.svg"), ground=None)
NOTHING, JUDGED, MADE, DRAWN = "nothing", "judgement", "judgement, file", "judgement, file, proof"


def keys(request: FitRequest) -> tuple[str, str, str]:
    resolved = resolve(request)
    return judgement_key(resolved), file_key(resolved), proof_key(resolved)


def changed(before: FitRequest, after: FitRequest) -> str:
    pairs = zip(("judgement", "file", "proof"), keys(before), keys(after), strict=True)
    return ", ".join(name for name, one, other in pairs if one != other) or NOTHING


def request(document: dict[str, Any] = BASE, place: dict[str, Any] | None = None, **more: Any) -> FitRequest:
    return request_for(document, sheet(**(place or {})), read_artworks(), **more)


SHEET_KEYS: list[tuple[str, Any, str]] = [
    ("name", "Another name", NOTHING),
    ("destination", "Another site", NOTHING),
    ("slug", "another-slug", NOTHING),
    ("naming", "{subject}", NOTHING),
    ("fields", [{"name": "label", "label": "Label"}], NOTHING),
    ("capacity", 3, NOTHING),
    ("kind", "sticker", NOTHING),
    ("seen", [{"name": "list", "width": 90}], JUDGED),
    ("grounds", ["#ffffff", "#17181a"], JUDGED),
    ("covered", [{"x": 0, "y": 0, "width": 0.2, "height": 0.2, "label": "badge"}], JUDGED),
    ("veil", {"colour": "#000000", "opacity": 0.4}, JUDGED),
    ("windows", [{"name": "phone", "x": 0, "y": 0, "width": 0.5, "height": 1}], JUDGED),
    ("transparency", "required", JUDGED),
    ("motion", {"allowed": True}, JUDGED),
    ("cut", {"shape": "circle"}, DRAWN),  # a mark that stands alone is padded into the circle
    ("max_bytes", 9_000, MADE),
    ("formats", ["webp", "png"], MADE),
    ("size", {"width": 321, "height": 180}, DRAWN),
]


@pytest.mark.parametrize(("key", "value", "expected"), SHEET_KEYS, ids=[entry[0] for entry in SHEET_KEYS])
def test_each_key_of_a_sheet_changes_what_depends_on_it(key: str, value: Any, expected: str) -> None:
    assert changed(request(), request(place={key: value})) == expected


def test_the_table_names_every_key_of_a_sheet() -> None:
    known = {field.alias or name for name, field in SpecSheet.model_fields.items()}
    assert {entry[0] for entry in SHEET_KEYS} | {"fitzle_spec"} == known


@pytest.mark.parametrize(
    ("document", "key", "value", "expected"),
    [
        (piece(picture()), "cut", {"shape": "circle"}, JUDGED),
        (piece(words()), "grounds", ["#000000"], DRAWN),
        (piece(words(colour="#123456")), "grounds", ["#000000"], JUDGED),
        (piece(words()), "veil", {"colour": "#000000", "opacity": 0.4}, DRAWN),
        (piece(words(colour="#123456")), "seen", [{"name": "list", "width": 90}], JUDGED),
    ],
)
def test_a_key_of_a_sheet_counts_for_a_file_only_where_the_piece_asks_for_it(
    document: Any, key: str, value: Any, expected: str
) -> None:
    assert changed(request(document), request(document, {key: value})) == expected


def test_the_widths_seen_count_where_they_decide_the_size() -> None:
    open_size = {"size": {"min_width": 10, "aspect": "16:9"}}
    seen = {**open_size, "seen": [{"name": "page", "width": 640}]}
    assert changed(request(place=open_size), request(place=seen)) == DRAWN


PART_FIELDS: list[tuple[str, Any, str]] = [
    ("name", "My mark", NOTHING),
    ("locked", True, NOTHING),
    ("hidden", True, DRAWN),
    ("tint", "#ff8800", DRAWN),
    ("rotation", 4, DRAWN),
    ("opacity", 0.5, DRAWN),
    ("mode", "fill", DRAWN),
    ("padding", {"value": 3, "unit": "px"}, DRAWN),
    ("artwork", "ding.svg", DRAWN),
]


@pytest.mark.parametrize(("field", "value", "expected"), PART_FIELDS, ids=[entry[0] for entry in PART_FIELDS])
def test_each_field_of_a_part_changes_what_depends_on_it(field: str, value: Any, expected: str) -> None:
    ground, own = BASE["parts"]
    assert changed(request(), request({**BASE, "parts": [ground, {**own, field: value}]})) == expected


@pytest.mark.parametrize(
    ("more", "expected"),
    [
        ({"subject": "Another subject"}, NOTHING),
        ({"adjustments": {"elsewhere": {"m": {"tint": "#ffffff"}}}}, NOTHING),
        ({"adjustments": {"here": {"m": {"tint": "#ffffff"}}}}, DRAWN),
        ({"adjustments": {"here": {"m": {"name": "Mark here"}}}}, NOTHING),
        ({"takes": {"pale": {"m": {"tint": "#ffffff"}}}}, NOTHING),
        ({"fields": {"mark": {"part": "m", "field": "artwork"}}}, NOTHING),
        ({"house": ["#123456"]}, JUDGED),
        ({"versions": {"ottermoor-dark.svg": ["ottermoor-light.svg"]}}, DRAWN),
        ({"versions": {"ding.svg": ["ottermoor-light.svg"]}}, NOTHING),
    ],
)
def test_what_surrounds_the_parts_counts_only_where_it_decides(more: dict[str, Any], expected: str) -> None:
    assert changed(request(), request({**BASE, **more})) == expected


def test_the_bytes_of_an_artwork_count_and_those_of_another_one_do_not() -> None:
    def with_hash(name: str) -> FitRequest:
        known = {
            key: FitArtwork(entry.facts, "other" if key == name else key) for key, entry in read_artworks().items()
        }
        return request_for(BASE, sheet(), known)

    assert changed(request(), with_hash("ottermoor-dark.svg")) == DRAWN
    assert changed(request(), with_hash("photo")) == NOTHING


def test_takes_and_rows_make_files_of_their_own() -> None:
    document = {
        **BASE,
        "takes": {"pale": {"m": {"tint": "#ffffff"}}, "named": {"m": {"name": "The same"}}},
        "fields": {"colour": {"part": "m", "field": "tint"}},
    }
    plain = request(document)
    assert changed(plain, plain._replace(take="pale")) == DRAWN
    assert changed(plain, plain._replace(take="named")) == NOTHING
    row = Row(id="1", values={"colour": "#ffffff"})
    assert changed(plain._replace(take="pale"), plain._replace(row=row)) == NOTHING, "the same picture by another way"


def test_a_document_of_version_one_keeps_its_keys() -> None:
    old = {"fitzle_piece": 1, "subject": "x", "parts": [
        {"id": "ground", "role": "ground", "fill": None},
        {"id": "w", "role": "headline", "text": "Ride", "turn": 5, "spacing": 0.2, "level": "top", "hollow": True},
    ]}  # fmt: skip
    new = Piece.model_validate({**MIGRATIONS[1](old), "fitzle_piece": 2})
    written = piece(words("Ride", rotation=5, letter_spacing=0.2, vertical_align="top", outline_only=True))
    plain = {key: value for key, value in written["parts"][1].items() if key in new.parts[1].model_fields_set}
    assert plain["rotation"] == 5 and plain["outline_only"] is True
    assert keys(request(new)) == keys(request({"subject": "y", "parts": [{"id": "ground", "role": "ground"}, plain]}))


PLACES = st.fixed_dictionaries(
    {},
    optional={
        "grounds": st.sampled_from([["#ffffff"], ["#17181a"], ["#ffffff", "#17181a"]]),
        "veil": st.sampled_from([None, {"colour": "#000000", "opacity": 0.5}]),
        "cut": st.sampled_from([None, {"shape": "circle"}, {"shape": "rounded", "radius": 0.3}]),
        "transparency": st.sampled_from(["forbidden", "allowed", "required"]),
        "formats": st.sampled_from([["png"], ["jpeg"], ["jpeg", "png"]]),
        "seen": st.sampled_from([[], [{"name": "a", "width": 60}], [{"name": "a", "width": 800}]]),
        "size": st.sampled_from([{"width": 320, "height": 180}, {"min_width": 20}, {"min_width": 20, "aspect": "1:1"}]),
        "name": st.sampled_from(["A", "B"]),
    },
)
PIECES = [
    BASE,
    piece(picture(), mark("ding.svg", padding={"value": 4, "unit": "px"})),
    piece(mark("ding.svg"), words()),
    piece(picture(), ground=solid("#123456")),
    piece(mark("ding.svg", mode="fill")),
]


@settings(max_examples=200, deadline=None)
@given(st.sampled_from(PIECES), PLACES, PLACES)
def test_fits_with_the_same_file_key_have_the_same_plan(document: dict[str, Any], one: Any, other: Any) -> None:
    first, second = request(document, one, house=HOUSE), request(document, other, house=HOUSE)
    if keys(first)[1] != keys(second)[1]:
        return
    facts = resolve(first).facts
    assert plan_of(first.piece, first.sheet, facts) == plan_of(second.piece, second.sheet, facts)
