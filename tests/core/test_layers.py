"""Layers of differences: piece ← take ← row ← placement; and what "everywhere" and "only here" mean."""

from typing import Any

import pytest

from fitzle.core.errors import DocumentError
from fitzle.core.piece.changes import ResetField, SetField, apply_changes
from fitzle.core.piece.document import Piece, Row, artworks_in, parts_in
from fitzle.core.piece.editing import read_piece
from fitzle.core.piece.scoping import FieldValue, adjusted_fields, scoped, taking_back

DOCUMENT: dict[str, Any] = {
    "subject": "Lesson",
    "parts": [
        {"id": "ground", "role": "ground"},
        {"id": "guest", "role": "picture", "artwork": "juno.jpg"},
        {"id": "title", "role": "headline", "text": "Own", "weight": 800},
    ],
    "takes": {"loud": {"title": {"text": "Take", "case": "capitals", "weight": 400}}},
    "fields": {"title": {"part": "title", "field": "text"}, "guest": {"part": "guest", "field": "artwork"}},
    "adjustments": {"banner": {"title": {"text": "Place"}}},
}
PIECE = Piece.model_validate(DOCUMENT)
ROW = Row(id="12", values={"title": "Row", "guest": "rowan.jpg"})


def words(**where: Any) -> Any:
    return parts_in(PIECE, where.get("placement"), where.get("take", ""), where.get("row"))[2]


@pytest.mark.parametrize(
    ("where", "text"),
    [
        ({}, "Own"),
        ({"take": "loud"}, "Take"),
        ({"take": "loud", "row": ROW}, "Row"),
        ({"take": "loud", "row": ROW, "placement": "banner"}, "Place"),
        ({"row": ROW, "placement": "elsewhere"}, "Row"),
    ],
)
def test_of_two_layers_that_change_the_same_field_the_later_one_wins(where: Any, text: str) -> None:
    assert words(**where).text == text


def test_what_no_later_layer_changes_shines_through() -> None:
    there = words(take="loud", row=ROW, placement="banner")
    assert (there.case, there.weight, there.italic) == ("capitals", 400, False)


def test_a_row_may_bring_another_picture() -> None:
    assert artworks_in(PIECE, None, "", ROW) == {"rowan.jpg"}


@pytest.mark.parametrize(
    ("where", "said"),
    [
        ({"take": "quiet"}, "no take 'quiet'.*loud"),
        ({"row": Row(id="1", values={"number": "7"})}, "no field 'number'.*title"),
        ({"row": Row(id="1", values={"title": ["no", "words"]})}, "part 'title' cannot be changed so.*text"),
    ],
)
def test_what_a_piece_does_not_have_is_said(where: Any, said: str) -> None:
    with pytest.raises(DocumentError, match=said):
        words(**where)


@pytest.mark.parametrize(
    ("more", "said"),
    [
        ({"takes": {"loud": {"nobody": {"text": "x"}}}}, "take loud names a part 'nobody'"),
        ({"takes": {"loud": {"title": {"focal_point": None}}}}, "'focal_point' cannot be adjusted on a headline"),
        ({"takes": {"Loud one": {}}}, "takes"),
        ({"fields": {"title": {"part": "gone", "field": "text"}}}, "field 'title' names a part 'gone'"),
        ({"fields": {"title": {"part": "title", "field": "tint"}}}, "has no 'tint'"),
    ],
)
def test_a_piece_with_layers_that_fit_nothing_is_refused(more: Any, said: str) -> None:
    import json

    with pytest.raises(DocumentError, match=said):
        read_piece(json.dumps({"fitzle_piece": 2, **DOCUMENT, **more}))


def test_a_part_that_is_taken_away_takes_its_layers_with_it() -> None:
    from fitzle.core.piece.changes import RemovePart

    without = apply_changes(PIECE, [RemovePart(part="title")])
    assert without.fields.keys() == {"guest"}
    assert without.takes == {"loud": {}} and without.adjustments == {}


def test_everywhere_takes_back_what_differs_where_it_is_changed() -> None:
    value = FieldValue(part="title", field="text", value="New")
    changes = scoped(PIECE, "banner", [value], everywhere=True)
    assert [type(change) for change in changes] == [ResetField, SetField]
    after = apply_changes(PIECE, changes)
    assert {parts_in(after, place)[2].text for place in (None, "banner")} == {"New"}  # type: ignore[union-attr]


def test_only_here_leaves_everything_else_and_can_be_taken_back() -> None:
    value = FieldValue(part="title", field="weight", value=600)
    after = apply_changes(PIECE, scoped(PIECE, "banner", [value], everywhere=False))
    assert [parts_in(after, place)[2].weight for place in (None, "banner")] == [800, 600]  # type: ignore[union-attr]
    assert adjusted_fields(after, "banner") == ["title.text", "title.weight"]
    assert apply_changes(after, taking_back(["title.weight"], "banner")) == PIECE
