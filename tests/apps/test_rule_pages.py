"""The page of a rule over HTTP, for who reads one of its findings."""

from typing import Any

import pytest

from fitzle.core.preflight.registry import RULES

pytestmark = pytest.mark.django_db


@pytest.mark.parametrize("rule", sorted(RULES))
def test_each_rule_says_what_it_measures(signed_in: Any, rule: str) -> None:
    answer = signed_in.get(f"/api/rules/{rule}")
    assert answer.status_code == 200
    first, *parts = answer.json()
    assert first["text"] and not first["title"]
    titles = [part["title"] for part in parts]
    assert [title for title in titles if title != "Mended"] == ["Measured", "Source", "Limits"]
    assert all(part["text"] and "##" not in part["text"] for part in parts)


@pytest.mark.parametrize("rule", ["nonsense", "..", "%2e%2e%2fREADME", "README"])
def test_what_is_no_rule_has_no_page(signed_in: Any, rule: str) -> None:
    assert signed_in.get(f"/api/rules/{rule}").status_code == 404


def test_pages_are_for_people_who_are_signed_in(client: Any) -> None:
    assert client.get("/api/rules/smudge").status_code == 401
