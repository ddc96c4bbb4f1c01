"""Sheets that are being written, over HTTP: shown, or said where they cannot be."""

from typing import Any

import pytest

from tests.apps.helpers import send
from tests.make import sheet

pytestmark = pytest.mark.django_db
LOOK = "workspaces/juno/places/look"


def looked(client: Any, **changed: Any) -> Any:
    data = {**sheet().model_dump(mode="json"), **changed}
    answer = send(client, "post", LOOK, {"sheet": data})
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_a_draft_that_can_be_read_is_shown(signed_in: Any) -> None:
    found = looked(signed_in, size={"width": 640, "height": 360}, max_bytes=90_000)
    assert found["contradictions"] == []
    assert [one["text"] for one in found["shown"]["sentences"] if one["key"] in ("size", "max_bytes")] == [
        "Exactly 640 × 360 px.",
        "At most 90 KB.",
    ]


def test_what_cannot_be_comes_with_ways_out_that_end_it(signed_in: Any) -> None:
    changed: dict[str, Any] = {"formats": ["jpeg"], "transparency": "required"}
    [said] = looked(signed_in, **changed)["contradictions"]
    assert said["keys"] == ["transparency", "formats"]
    for way in said["ways_out"]:
        assert looked(signed_in, **{**changed, **way["change"]})["contradictions"] == []


def test_a_place_says_what_cannot_be_in_it_for_as_long_as_it_is_so(signed_in: Any) -> None:
    odd = {**sheet().model_dump(mode="json"), "formats": ["jpeg"], "transparency": "required"}
    answer = send(signed_in, "post", "workspaces/juno/places", {"name": "Odd", "sheet": odd})
    assert answer.status_code == 201
    place = answer.json()
    assert place["shown"]["contradictions"][0]["message"] == "It has to be transparent, and JPEG cannot be."
    catalogue = signed_in.get("/api/workspaces/juno/places/catalogue").json()
    assert [one["kind"] for one in catalogue if one["shown"]["contradictions"]] == []


@pytest.mark.parametrize(
    "changed",
    [
        {"size": None},
        {"size": {"width": 10**9, "height": -1}},
        {"name": "Größe 寸法 حجم" * 200},
        {"covered": [{"x": 0}] * 9000},
        {"formats": "png"},
        {"fitzle_spec": 9},
        {"grounds": [[[[]]]]},
        {"fields": {"a": {"b": {"c": None}}}},
    ],
)
def test_absurd_drafts_are_answered_in_words(signed_in: Any, changed: dict[str, Any]) -> None:
    found = looked(signed_in, **changed)
    assert found["shown"] is None
    assert all(one["message"] for one in found["contradictions"])
    assert {one["keys"][0] for one in found["contradictions"]} == set(changed)


def test_a_draft_is_looked_at_only_by_people_of_the_workspace(client: Any, juno: Any) -> None:
    assert send(client, "post", LOOK, {"sheet": {}}).status_code == 401
