"""Rows that nobody tells apart where they are listed, and rows that differ by hand in one place."""

import numpy as np
import pytest

from fitzle.core.errors import DocumentError, ValueOutOfRange
from fitzle.core.piece.document import Row, parts_in
from fitzle.core.piece.editing import piece_from
from fitzle.core.runs.changes import Differ, Differing, apply_row_changes
from fitzle.core.runs.document import Entry, Rows
from fitzle.core.runs.fields import columns_of, possible_fields, value_of_cell
from fitzle.core.runs.likeness import Cells, are_alike, twins_in
from fitzle.core.runs.rows import row_of_entry

PIECE = piece_from(
    {
        "fitzle_piece": 2,
        "subject": "School",
        "parts": [
            {"id": "ground", "role": "ground", "fill": {"kind": "solid", "colour": "#17443c"}},
            {"id": "headline", "role": "headline", "text": "Hello", "colour": "#ffffff"},
        ],
        "fields": {
            "title": {"part": "headline", "field": "text"},
            "ground": {"part": "ground", "field": "fill"},
            "weight": {"part": "headline", "field": "weight"},
        },
    }
)


def cells(seed: int, different: float = 0.0) -> Cells:
    """A list picture of 40 x 24 cells, of which a share differs from the one of the seed alone."""
    rng = np.random.default_rng(seed)
    own = rng.integers(0, 255, (24, 40, 3)).astype(np.uint8)
    changed = own.reshape(-1, 3)
    count = round(different * len(changed))
    changed[:count] = (changed[:count].astype(int) + 128) % 255
    return own


@pytest.mark.parametrize(("different", "twins"), [(0.0, True), (0.015, True), (0.03, False), (0.5, False)])
def test_twins_are_those_of_which_hardly_anything_differs(different: float, twins: bool) -> None:
    found = twins_in({"a": cells(1), "b": cells(2), "c": cells(1, different)})
    assert found == ([("a", "c")] if twins else [])


def test_the_quick_look_misses_no_twin() -> None:
    """Against all pairs compared whole, also where what differs lies in the cells that are looked at first."""
    rng = np.random.default_rng(3)
    rows = {f"{number}": cells(number % 7, float(rng.choice([0, 0.01, 0.019, 0.021, 0.2]))) for number in range(40)}
    slow = []
    names = list(rows)
    for at, one in enumerate(names):
        for other in names[at + 1 :]:
            away = rows[one].astype(int) - rows[other]
            if ((away**2).sum(axis=-1) > 25.5**2).mean() <= 0.02:
                slow.append((one, other))
    assert twins_in(rows) == slow and slow


def test_all_alike_is_said_of_three_or_more_that_are() -> None:
    assert are_alike({"a": cells(1), "b": cells(1), "c": cells(1, 0.01)})
    assert not are_alike({"a": cells(1), "b": cells(1)}), "two are twins"
    assert not are_alike({"a": cells(1), "b": cells(1), "c": cells(2)})
    assert not are_alike({"a": cells(1), "b": cells(1), "c": cells(1)[:12]}) and not are_alike({})


def test_a_row_differs_everywhere_and_in_one_place_alone() -> None:
    rows = Rows([Entry(id="a", cells={"title": "Gears"})])
    yellow, red = Differing(given=True, value="#f4d06f"), Differing(given=True, value="#b4541a")
    changes = [
        Differ(row="a", part="headline", field="colour", now=yellow),
        Differ(row="a", placement="card", part="headline", field="colour", now=red),
    ]
    applied = apply_row_changes(rows, changes)
    row, wrong = row_of_entry(PIECE, rows["a"], 0, {})
    assert not wrong and rows["a"].by_hand == 2

    def colour(place: str | None) -> str:
        return next(part.colour for part in parts_in(PIECE, place, row=row) if part.id == "headline")  # type: ignore[union-attr,return-value]

    assert (colour(None), colour("header"), colour("card")) == ("#f4d06f", "#f4d06f", "#b4541a")
    apply_row_changes(rows, applied.inverse)
    assert rows["a"] == Entry(id="a", cells={"title": "Gears"})


def test_what_cannot_be_used_of_a_row_is_told_and_the_rest_shows() -> None:
    entry = Entry(id="a", cells={"title": "Gears", "weight": "9000", "ground": "#b4541a"})
    row, wrong = row_of_entry(PIECE, entry, 4, {})
    assert [(one.line, one.field) for one in wrong] == [(5, "weight")]
    assert row.values == {"title": "Gears", "ground": {"kind": "solid", "colour": "#b4541a"}}
    odd = Entry(id="a", cells={"title": "Gears"}, differences={"headline": {"colour": "no colour"}})
    row, wrong = row_of_entry(PIECE, odd, 0, {})
    assert row.values and [one.field for one in wrong] == [""]
    gone = Entry(id="a", differences={"part-that-was-removed": {"colour": "#000000"}}, cells={"old": "kept"})
    assert row_of_entry(PIECE, gone, 0, {})[1] == []


def test_everything_that_rows_may_change_is_offered_once() -> None:
    offered = possible_fields(PIECE)
    assert offered["title"].target.field == "text" and offered["ground"].kind == "colour"
    assert {"headline_colour", "headline_hidden"} <= offered.keys() and "ground_hidden" not in offered
    targets = [(one.target.part, one.target.field) for one in offered.values()]
    assert len(targets) == len(set(targets))


def test_a_ground_takes_one_colour() -> None:
    column = columns_of(PIECE)["ground"]
    assert value_of_cell(column, "#F4D06F", 0, {}) == {"kind": "solid", "colour": "#f4d06f"}
    with pytest.raises(ValueOutOfRange, match="no colour"):
        value_of_cell(column, "auto", 0, {})


def test_a_row_that_names_a_field_of_no_piece_is_refused() -> None:
    with pytest.raises(DocumentError, match="no field"):
        parts_in(PIECE, None, row=Row(id="a", values={"nothing": 1}))
