"""What is behind words is looked at anew where the page has another ground, though no pixel of the file changes."""

from typing import Any

import pytest

from tests.apps.helpers import mark_in_a_place, send

pytestmark = pytest.mark.django_db


def faint(fit: Any) -> list[str]:
    return [one["part"] for one in fit["findings"] if one["rule"] == "contrast" and one["part"] == "headline"]


def test_words_on_the_page_are_judged_by_the_page_that_is_there_now(signed_in: Any, place: Any, run: Any) -> None:
    fit = mark_in_a_place(signed_in, place, run)
    path = f"workspaces/juno/fits/{fit['id']}"
    with run(execute=True):
        added = send(signed_in, "post", f"{path}/parts", {"revision": fit["piece"]["revision"], "role": "headline"})
        body = {"revision": added.json()["piece"]["revision"], "step": "x", "changes": []}
        values = [{"part": "headline", "field": field, "value": value} for field, value in LOOKS.items()]
        assert send(signed_in, "patch", path, {**body, "values": values}).status_code == 200
    assert faint(signed_in.get(f"/api/{path}").json()) == [], "white words on a dark page"
    sheet_path = f"workspaces/juno/places/{fit['placement']}"
    sheet = {**signed_in.get(f"/api/{sheet_path}").json()["shown"]["sheet"], "grounds": ["#ffffff"]}
    with run(execute=True):
        assert send(signed_in, "patch", sheet_path, {"sheet": sheet}).status_code == 200
    assert faint(signed_in.get(f"/api/{path}").json()) == ["headline"], "white words on a white page"


LOOKS = {"colour": "#ffffff", "plate": None, "outline": None, "shadow": None, "text": "True a wheel"}
