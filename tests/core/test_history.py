"""Steps taken back out of the middle of a history."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from fitzle.core.history import StoodOn, difference, taken_back


def document(*parts: dict[str, Any], adjustments: dict[str, Any] | None = None, **more: Any) -> dict[str, Any]:
    return {"parts": list(parts), "adjustments": adjustments or {}, **more}


def part(name: str, **fields: Any) -> dict[str, Any]:
    return {"id": name, "tint": None, "text": "", **fields}


A, B, C = part("a"), part("b"), part("c")


@pytest.mark.parametrize(
    ("before", "after", "newest", "expected"),
    [
        (  # a field, while somebody changed another field of the same part
            document(A), document(part("a", tint="#111")), document(part("a", tint="#111", text="hers")),
            document(part("a", text="hers")),
        ),
        (  # a part added, while somebody changed another one
            document(A), document(A, B), document(part("a", text="hers"), B), document(part("a", text="hers")),
        ),
        (  # a part removed comes back behind what it stood behind, whatever came since
            document(A, B, C), document(A, C), document(A, part("d"), C), document(A, B, part("d"), C),
        ),
        (  # the order, while somebody added a part
            document(A, B, C), document(A, C, B), document(A, C, part("d"), B), document(A, B, part("d"), C),
        ),
        (  # what differs in one placement goes, and what is empty then with it
            document(A), document(A, adjustments={"card": {"a": {"tint": "#111"}}}),
            document(A, adjustments={"card": {"a": {"tint": "#111"}}, "tile": {"a": {"tint": "#222"}}}),
            document(A, adjustments={"tile": {"a": {"tint": "#222"}}}),
        ),
        (  # what is no part
            document(A, subject="old"), document(A, subject="new"), document(B, subject="new"),
            document(B, subject="old"),
        ),
    ],
)  # fmt: skip
def test_what_one_step_changed_is_taken_back_and_nothing_else(
    before: Any, after: Any, newest: Any, expected: Any
) -> None:
    assert taken_back(newest, before, after, "parts") == expected


@pytest.mark.parametrize(
    ("before", "after", "newest", "place"),
    [
        (document(A), document(part("a", tint="#111")), document(part("a", tint="#222")), ("parts", "a", "tint")),
        (document(A), document(A, B), document(A, part("b", text="hers")), ("parts", "b", "text")),
        (
            document(A), document(A, B), document(A, B, adjustments={"card": {"b": {"tint": "#222"}}}),
            ("adjustments", "card", "b", "tint"),
        ),
        (document(A, B), document(A), document(A, part("b", text="another")), ("parts", "b", "id")),
        (document(A, B, C), document(A, C, B), document(C, A, B), ("order",)),
        (document(A), document(part("a", tint="#111")), document(), ("parts", "a", "tint")),
    ],
)  # fmt: skip
def test_what_something_else_stands_on_stays(before: Any, after: Any, newest: Any, place: tuple[str, ...]) -> None:
    with pytest.raises(StoodOn) as blocked:
        taken_back(newest, before, after, "parts")
    assert place in blocked.value.places
    assert difference(after, newest, "parts").touches({place}), "so that it can be said whose change it is"


fields = st.fixed_dictionaries({"tint": st.sampled_from([None, "#111", "#222"]), "text": st.sampled_from(["", "x"])})
documents = st.lists(st.sampled_from("abcd"), unique=True).flatmap(
    lambda names: st.tuples(*[fields for _ in names]).map(
        lambda own: document(*[{"id": name, **more} for name, more in zip(names, own, strict=True)])
    )
)


@given(documents, documents)
def test_the_last_step_can_always_be_taken_back_exactly(before: Any, after: Any) -> None:
    assert taken_back(after, before, after, "parts")["parts"] in (before["parts"], _same_but_order(before, after))


def _same_but_order(before: Any, after: Any) -> list[Any]:
    """Where entries came and went and others moved in one step, the others stay where they are now."""
    back = taken_back(after, before, after, "parts")["parts"]
    assert {one["id"]: one for one in back} == {one["id"]: one for one in before["parts"]}
    return back  # type: ignore[no-any-return]


@given(documents, documents, documents)
def test_nothing_that_others_did_is_lost(before: Any, after: Any, newest: Any) -> None:
    """Each field is as it was before the step, or as it is now."""
    try:
        back = taken_back(newest, before, after, "parts")
    except StoodOn:
        return
    old, now = ({one["id"]: one for one in state["parts"]} for state in (before, newest))
    changed = difference(before, after, "parts").values
    for entry in back["parts"]:
        for field, value in entry.items():
            source = old if ("parts", entry["id"], field) in changed else now
            assert source[entry["id"]][field] == value
