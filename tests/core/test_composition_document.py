"""The piece's document: parts, limits, changes that add, remove and move, clashes, migrations, its JSON Schema."""

import json
from pathlib import Path
from typing import Any

import pytest

from fitzle.core.errors import DocumentError
from fitzle.core.piece.changes import AddPart, AnyChange, MovePart, RemovePart, SetField, apply_changes, clashes
from fitzle.core.piece.document import MOST_PARTS, Piece, artworks_in, parts_in
from fitzle.core.piece.editing import piece_schema, read_piece
from fitzle.core.piece.migrations import brought_up_to_date
from fitzle.core.piece.parts import adjustable
from tests.core.composed import PIECES, gradient, mark, piece, shape, words
from tests.make import solid

HERE = "place-1"


def text_of(data: dict[str, Any]) -> str:
    return json.dumps({"fitzle_piece": 1, **data})


BASE = Piece.model_validate(piece(mark("a"), words(), ground=solid("#ffffff")))
ADD = AddPart(part="shape", value={"role": "shape", "shape": "star"})


@pytest.mark.parametrize("case", PIECES)
def test_a_piece_survives_writing_and_reading(case: str) -> None:
    one = Piece.model_validate(PIECES[case])
    assert read_piece(one.model_dump_json()) == one


@pytest.mark.parametrize(
    ("data", "said"),
    [
        (piece({**words(), "wobble": 3}), '"parts.1.headline.wobble" is not a key'),
        (piece({**words(), "role": "title"}), "unknown kind"),
        (piece(words("x" * 1001)), "at most 1000"),
        (piece(words(family="")), "family"),
        (piece(words(weight=5000)), "weight"),
        (piece(words(stands={"width": 1e9, "height": 1})), "width"),
        (piece(words(stands={"width": -1, "height": 1})), "width"),
        (piece(words(rotation=9e99)), "rotation"),
        (piece(words(colour="reddish")), "colour"),
        (piece(words(outline={"width": 50, "colour": "#fff"})), "outline.width"),
        (piece(shape("blob", None)), "there is no shape 'blob'"),
        (piece(ground=gradient("linear", stops=[{"at": 0, "colour": "#fff"}])), "stops"),
        (
            piece(ground=gradient("linear", stops=[{"at": 1, "colour": "#fff"}, {"at": 0, "colour": "#000"}])),
            "in order",
        ),
        (piece(words(), {**words(), "id": "w"}), "two parts have the id 'w'"),
        ({"subject": "x", "parts": [words(), {"id": "g", "role": "ground"}]}, "the ground is the first"),
        (piece(*({**words(), "id": f"w{n}"} for n in range(MOST_PARTS))), "at most 100"),
        ({**piece(words()), "adjustments": {HERE: {"w": {"role": "badge"}}}}, "cannot be adjusted"),
        ({**piece(words()), "adjustments": {HERE: {"nobody": {}}}}, "not there"),
    ],
)
def test_a_piece_that_cannot_be_used_is_refused_with_the_place(data: dict[str, Any], said: str) -> None:
    with pytest.raises(DocumentError) as caught:
        read_piece(text_of(data), "piece.json")
    assert said in caught.value.message and caught.value.message.startswith("piece.json")


def test_a_newer_version_is_refused_politely_and_an_older_one_is_brought_up() -> None:
    with pytest.raises(DocumentError, match="of version 3; this Fitzle reads up to version 2"):
        read_piece('{"fitzle_piece": 3}')
    steps = {1: lambda data: {**data, "parts": []}, 2: lambda data: {**data, "subject": "new"}}
    assert brought_up_to_date({"subject": "old"}, 1, 3, steps) == {"subject": "new", "parts": [], "fitzle_piece": 3}
    assert brought_up_to_date({"subject": "old"}, 1, 1, steps) == {"subject": "old"}


@pytest.mark.parametrize("adjusted", [False, True])
def test_a_piece_of_version_one_is_still_read(adjusted: bool) -> None:
    """Names that version 2 replaced by the field's standard terms, in parts, fills and adjustments."""
    old = {"turn": 7, "spacing": 0.3, "level": "bottom", "hollow": True}
    fill = {"kind": "picture", "artwork": "a.jpg", "focus": {"x": 0.1, "y": 0.2}}
    words_part = {"id": "w", "role": "headline", "text": "Ride", **({} if adjusted else old)}
    shown = {"id": "p", "role": "picture", "artwork": "a.jpg", "focus": {"x": 0.3, "y": 0.4}}
    data = {
        "fitzle_piece": 1, "subject": "x", "parts": [{"id": "g", "role": "ground", "fill": fill}, shown, words_part],
        "adjustments": {HERE: {"w": old}} if adjusted else {},
    }  # fmt: skip
    ground, picture_part, there = parts_in(read_piece(json.dumps(data)), HERE)
    assert (there.rotation, there.letter_spacing) == (7, 0.3)  # type: ignore[union-attr]
    assert (there.vertical_align, there.outline_only) == ("bottom", True)  # type: ignore[union-attr]
    assert ground.fill.focal_point.x == 0.1 and picture_part.focal_point.y == 0.4  # type: ignore[union-attr]


def test_control_characters_do_not_get_into_words() -> None:
    part = Piece.model_validate(piece(words("one\r\ntwo\x00\x07"))).parts[1]
    assert part.text == "one\ntwo"  # type: ignore[union-attr]


def test_the_schema_in_the_docs_is_the_one_of_the_code() -> None:
    kept = json.loads((Path(__file__).parents[2] / "docs" / "piece.schema.json").read_text())
    assert kept == piece_schema(), "write it anew with: python scripts/schemas.py"


def test_a_part_is_added_in_front_or_at_a_place_but_never_behind_the_ground() -> None:
    assert [part.id for part in apply_changes(BASE, [ADD]).parts] == ["ground", "m", "w", "shape"]
    behind = apply_changes(BASE, [ADD.model_copy(update={"at": 0})])
    assert [part.id for part in behind.parts] == ["ground", "shape", "m", "w"]
    twice = apply_changes(BASE, [ADD, ADD])
    assert [part.id for part in twice.parts][-2:] == ["shape", "shape-2"]


def test_a_part_is_moved_in_the_order_and_the_ground_is_not() -> None:
    moved = apply_changes(BASE, [MovePart(part="w", at=1)])
    assert [part.id for part in moved.parts] == ["ground", "w", "m"]
    with pytest.raises(DocumentError, match="behind all other"):
        apply_changes(BASE, [MovePart(part="ground", at=2)])


def test_a_removed_part_takes_its_adjustments_along() -> None:
    adjusted = apply_changes(BASE, [SetField(part="w", field="text", value="here", placement=HERE)])
    without = apply_changes(adjusted, [RemovePart(part="w")])
    assert [part.id for part in without.parts] == ["ground", "m"]
    assert without.adjustments == {}


@pytest.mark.parametrize("value", [{}, {"role": "shape", "shape": "blob"}, {"role": "ground"}])
def test_a_part_that_cannot_be_used_is_not_added(value: Any) -> None:
    with pytest.raises(DocumentError):
        apply_changes(BASE, [ADD.model_copy(update={"value": value})])


def changed(*changes: AnyChange) -> Piece:
    return apply_changes(BASE, changes)


SET = SetField(part="w", field="text", value="mine")


@pytest.mark.parametrize(
    ("theirs", "mine", "clash"),
    [
        (SetField(part="w", field="text", value="theirs"), SET, True),
        (SetField(part="w", field="text", value="mine"), SET, False),
        (SetField(part="w", field="case", value="capitals"), SET, False),
        (SetField(part="m", field="tint", value="#ffffff"), SET, False),
        (RemovePart(part="w"), SET, True),
        (SetField(part="w", field="text", value="theirs"), RemovePart(part="w"), True),
        (RemovePart(part="w"), RemovePart(part="w"), False),
        (ADD, ADD, False),
        (ADD, SET, False),
        (MovePart(part="w", at=1), MovePart(part="m", at=2), True),
    ],
)
def test_a_change_clashes_only_with_what_touches_the_same(theirs: AnyChange, mine: AnyChange, clash: bool) -> None:
    assert bool(clashes(BASE, changed(theirs), [mine])) is clash


def test_the_artwork_of_grounds_and_patterns_counts_and_adjustments_change_it() -> None:
    data = piece(mark("a"), ground={"kind": "pattern", "artwork": "b"})
    document = Piece.model_validate({**data, "adjustments": {HERE: {"m": {"artwork": "c"}}}})
    assert artworks_in(document) == {"a", "b"}
    assert artworks_in(document, HERE) == {"b", "c"}
    assert parts_in(document, HERE)[0] is document.parts[0], "a part without adjustments is the same value"


def test_identity_and_role_cannot_be_adjusted() -> None:
    for part in BASE.parts:
        assert not adjustable(part) & {"id", "role"}
