"""Pieces are values; changes and clashes."""

import json

import pytest

from fitzle.core.errors import DocumentError
from fitzle.core.piece.changes import AnyChange, ResetField, SetField, apply_changes, clashes, value_of
from fitzle.core.piece.document import parts_in
from fitzle.core.piece.editing import new_piece, read_piece
from tests.make import solid

PIECE = new_piece("wheel", "art-1", "mark")
HERE = "place-1"


def test_a_change_makes_a_new_piece_and_leaves_the_old_one() -> None:
    changed = apply_changes(PIECE, [SetField(part="mark", field="tint", value="#abc")])
    assert parts_in(changed, None)[1].tint == "#aabbcc"  # type: ignore[union-attr]
    assert parts_in(PIECE, None)[1].tint is None  # type: ignore[union-attr]


def test_an_adjustment_counts_in_its_placement_only_and_can_be_taken_back() -> None:
    change = SetField(part="ground", field="fill", value=solid("#102030"), placement=HERE)
    adjusted = apply_changes(PIECE, [change])
    assert parts_in(adjusted, HERE)[0].fill.colour == "#102030"  # type: ignore[union-attr]
    assert parts_in(adjusted, "elsewhere")[0].fill is None  # type: ignore[union-attr]
    back = apply_changes(adjusted, [ResetField(part="ground", field="fill", placement=HERE)])
    assert back == PIECE


@pytest.mark.parametrize(
    ("change", "words"),
    [
        (SetField(part="nobody", field="tint", value=None), "no part 'nobody'"),
        (SetField(part="ground", field="tint", value="#fff"), "has no 'tint'"),
        (SetField(part="mark", field="tint", value="reddish"), "is not a colour"),
        (SetField(part="mark", field="padding", value={"value": -4, "unit": "px"}), "padding"),
        (SetField(part="mark", field="focal_point", value={"x": 2, "y": 0}, placement=HERE), "focal_point"),
        (SetField(part="mark", field="id", value="x"), "has no 'id'"),
    ],
)
def test_an_impossible_change_is_refused_and_says_why(change: AnyChange, words: str) -> None:
    with pytest.raises(DocumentError, match=words):
        apply_changes(PIECE, [change])


def test_changes_to_different_fields_do_not_clash() -> None:
    theirs = apply_changes(PIECE, [SetField(part="ground", field="fill", value=solid("#111111"))])
    mine = SetField(part="mark", field="tint", value="#ffffff")
    assert clashes(PIECE, theirs, [mine]) == []
    assert value_of(apply_changes(theirs, [mine]), SetField(part="ground", field="fill")) == solid("#111111")


def test_the_same_field_with_another_value_clashes_and_the_same_value_does_not() -> None:
    theirs = apply_changes(PIECE, [SetField(part="mark", field="tint", value="#111111")])
    mine = SetField(part="mark", field="tint", value="#ffffff")
    assert clashes(PIECE, theirs, [mine]) == [mine]
    assert clashes(PIECE, theirs, [mine.model_copy(update={"value": "#111111"})]) == []


@pytest.mark.parametrize(
    "change",
    [
        {"parts": [{"id": "a", "role": "mark", "artwork": "x"}] * 2}, {"parts": [{"id": "a", "role": "hero"}]},
        {"parts": [{"id": "A b", "role": "ground"}]}, {"more": 1}, {"fitzle_piece": 9}, {"subject": ""},
        {"adjustments": {"p": {"nobody": {"tint": "#fff"}}}}, {"adjustments": {"p": {"mark": {"id": "x"}}}},
        {"adjustments": {"p": {"mark": {"tint": "pink-ish"}}}},
    ],
)  # fmt: skip
def test_a_wrong_piece_file_is_refused(change: dict) -> None:
    text = json.dumps({**PIECE.model_dump(mode="json"), **change})
    with pytest.raises(DocumentError):
        read_piece(text, "piece.json")


def test_a_piece_survives_its_file() -> None:
    assert read_piece(PIECE.model_dump_json()) == PIECE
