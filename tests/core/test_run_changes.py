"""Changes of rows: each can be taken back, two people get both their changes, and a clash shows what is there."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.errors import DocumentError
from fitzle.core.runs.changes import (
    AddRow,
    AnyRowChange,
    Differ,
    Differing,
    MoveRow,
    PutAway,
    RemoveRow,
    SetCell,
    apply_row_changes,
    pasted_changes,
)
from fitzle.core.runs.document import Entry, Rows
from fitzle.core.runs.table import MOST_ROWS


def rows(*ids: str) -> Rows:
    return Rows(Entry(id=one, cells={"title": one.upper()}) for one in ids or ("a", "b", "c"))


def order(of: Rows) -> list[str]:
    return [entry.id for entry in of]


CHANGES: list[AnyRowChange] = [
    SetCell(row="b", field="title", text="New"),
    SetCell(row="b", field="title", text=""),
    SetCell(row="a", field="guest", text="Rowan"),
    AddRow(entry=Entry(id="n"), before="b"),
    AddRow(entry=Entry(id="n", cells={"title": "N"})),
    RemoveRow(row="a"),
    RemoveRow(row="c"),
    MoveRow(row="c", before="a"),
    MoveRow(row="a", before=None),
    MoveRow(row="b", before="b"),
    PutAway(row="b", on=True),
    Differ(row="a", part="headline", field="rotation", now=Differing(given=True, value=3)),
    Differ(row="a", part="headline", field="rotation"),
]


@pytest.mark.parametrize("change", CHANGES, ids=lambda change: change.act)
def test_each_change_can_be_taken_back(change: AnyRowChange) -> None:
    there = rows()
    made = apply_row_changes(there, [change])
    assert not made.clashes
    again = apply_row_changes(there, made.inverse)
    assert list(there) == list(rows()) and not again.clashes


@given(st.lists(st.sampled_from(CHANGES), max_size=8))
def test_many_changes_together_can_be_taken_back(changes: list[AnyRowChange]) -> None:
    there, inverse = rows(), list[AnyRowChange]()
    for change in changes:
        try:
            inverse = apply_row_changes(there, [change]).inverse + inverse
        except DocumentError:
            continue  # a row that was taken away before
    assert not apply_row_changes(there, inverse).clashes
    assert list(there) == list(rows())


def test_two_people_get_both_their_cells() -> None:
    there = rows()
    mine = SetCell(row="a", field="title", text="mine", had="A")
    theirs = SetCell(row="a", field="guest", text="theirs", had="")
    assert not apply_row_changes(there, [mine]).clashes + apply_row_changes(there, [theirs]).clashes
    assert there["a"].cells == {"title": "mine", "guest": "theirs"}


def test_a_clash_shows_what_is_there_and_changes_nothing() -> None:
    there = rows()
    apply_row_changes(there, [SetCell(row="a", field="title", text="first", had="A")])
    late = SetCell(row="a", field="title", text="second", had="A")
    beside = SetCell(row="b", field="title", text="beside", had="B")
    made = apply_row_changes(there, [late, beside])
    assert [(one.change, one.newest) for one in made.clashes] == [(late, "first")]
    assert there["a"].cells["title"] == "first" and there["b"].cells["title"] == "beside", "the rest is made"
    same = apply_row_changes(there, [late.model_copy(update={"text": "first"})])
    assert not same.clashes, "both wanted the same"


def test_what_somebody_changed_since_is_not_taken_back() -> None:
    there = rows()
    step = apply_row_changes(there, [SetCell(row="a", field="title", text="mine")])
    apply_row_changes(there, [SetCell(row="a", field="title", text="theirs")])
    [clash] = apply_row_changes(there, step.inverse).clashes
    assert clash.newest == "theirs" and there["a"].cells["title"] == "theirs"
    removed = apply_row_changes(there, [AddRow(entry=Entry(id="n"))])
    apply_row_changes(there, [SetCell(row="n", field="title", text="typed since")])
    assert apply_row_changes(there, removed.inverse).clashes, "a row somebody filled meanwhile is kept"


@pytest.mark.parametrize(
    "change",
    [
        SetCell(row="x", field="title", text="y"),
        RemoveRow(row="x"),
        MoveRow(row="x"),
        PutAway(row="x", on=True),
        AddRow(entry=Entry(id="a")),
    ],
    ids=lambda change: change.act,
)
def test_hopeless_changes_are_refused(change: AnyRowChange) -> None:
    with pytest.raises(DocumentError):
        apply_row_changes(rows(), [change])


def test_there_is_an_end_to_rows() -> None:
    full = Rows(Entry(id=f"r{number}") for number in range(MOST_ROWS))
    with pytest.raises(DocumentError, match="at most"):
        apply_row_changes(full, [AddRow(entry=Entry(id="one-more"))])


def test_differences_by_hand_are_set_and_let_go() -> None:
    there = rows()
    value: Any = {"anchor": "left", "width": 0.5, "height": 0.5}
    nudge = Differ(row="a", part="headline", field="stands", now=Differing(given=True, value=value))
    apply_row_changes(there, [nudge])
    assert there["a"].differences == {"headline": {"stands": value}}
    apply_row_changes(there, [Differ(row="a", part="headline", field="stands")])
    assert there["a"].differences == {}


def test_pasted_cells_fill_rows_and_add_what_is_missing() -> None:
    there = rows("a", "b")
    cells = [["One", "Rowan", "beyond"], ["B", ""], ["Three", "Ida"], ["", ""]]
    changes = pasted_changes(there, ["a", "b"], ["title", "guest"], cells, iter(["n1", "n2"]))
    assert [change.act for change in changes] == ["cell", "cell", "add"], "what is the same already is no change"
    apply_row_changes(there, changes)
    assert [entry.cells for entry in there] == [
        {"title": "One", "guest": "Rowan"}, {"title": "B"}, {"title": "Three", "guest": "Ida"},
    ]  # fmt: skip
    assert order(there) == ["a", "b", "n1"]
