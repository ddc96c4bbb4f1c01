"""The table of candidates: every file can be seen again, scored, and fixed."""

from __future__ import annotations

import io
import json
from typing import Any

import numpy as np
import pytest
from PIL import Image

from fitzle.apps.pieces.models import Fit
from tests.apps.helpers import send, upload, wall_proofs
from tests.make import opened, photo, saved

pytestmark = pytest.mark.django_db
SHEET = {"size": {"width": 480, "height": 300}, "formats": ["jpeg", "webp", "png"], "max_bytes": 24_000}


@pytest.fixture
def fit(signed_in: Any, place: Any, run: Any) -> str:
    """A photo in a place that takes three formats, under a limit."""
    entry = place(name="Photo", **SHEET)
    upload(signed_in, "juno", "ride.png", saved(photo(480, 300), "PNG"), str(entry.pk), run)
    return str(wall_proofs(signed_in, "juno")["Photo"]["fit"])


def table(client: Any, fit: str) -> Any:
    return client.get(f"/api/workspaces/juno/fits/{fit}/candidates").json()


def query(one: Any) -> str:
    return f"format={one['format']}&settings={json.dumps(one['settings'])}"


def test_the_table_says_what_was_tried_and_what_was_chosen(signed_in: Any, fit: str) -> None:
    told = table(signed_in, fit)
    assert told["limit"] == 24_000 and told["made"] and told["wish"]["format"] is None
    assert len([one for one in told["candidates"] if one["chosen"]]) == 1 and told["candidates"][0]["chosen"]
    chosen = told["candidates"][0]
    best = max((one for one in told["candidates"] if one["score"] and one["under"]), key=lambda one: one["score"])
    assert chosen["score"] >= best["score"] - 1
    assert {one["format"] for one in told["formats"]} == {"jpeg", "webp", "png"}
    assert [one["colours"] for one in told["formats"]] == [False, False, True]
    assert all(one["seconds"] is not None and one["words"] for one in told["candidates"])


def test_each_candidate_can_be_seen_beside_the_original(signed_in: Any, fit: str) -> None:
    base = f"/api/workspaces/juno/fits/{fit}/candidates"
    told = table(signed_in, fit)
    whole = opened(signed_in.get(f"{base}/original?key={told['key']}").content)
    assert whole.size == (480, 300)
    for one in told["candidates"][:4]:
        answer = signed_in.get(f"{base}/picture?{query(one)}&key={told['key']}")
        assert answer.status_code == 200, (one, answer.content)
        assert len(answer.content) == one["bytes"], "it is the very file"
        assert "immutable" in answer["Cache-Control"]
        looked = signed_in.get(f"{base}/look?{query(one)}").json()
        assert one["score"] is None or looked["score"] == pytest.approx(one["score"], abs=0.01)
        assert 0 <= looked["x"] <= looked["x"] + looked["width"] <= 1.001
        veil = np.asarray(Image.open(io.BytesIO(signed_in.get(f"{base}/errors?{query(one)}").content)))
        assert veil.shape == (19, 30, 4)


def test_a_wish_is_tried_before_it_is_taken(signed_in: Any, fit: str, run: Any) -> None:
    base = f"/api/workspaces/juno/fits/{fit}"
    before = table(signed_in, fit)
    tried = signed_in.get(f"{base}/candidates/try?format=jpeg&quality=30&chroma=4:2:0").json()
    assert (tried["format"], tried["settings"]["quality"], tried["chosen"]) == ("jpeg", 30, False)
    assert table(signed_in, fit)["key"] == before["key"], "nothing changed yet"
    heavy = signed_in.get(f"{base}/candidates/try?format=jpeg&quality=95&chroma=4:4:4")
    assert heavy.status_code == 422 and "24 KB" in heavy.json()["message"]
    with run(execute=True):
        wish = {"format": "jpeg", "quality": 30, "chroma": "4:2:0"}
        assert send(signed_in, "put", f"workspaces/juno/fits/{fit}/wish", {"wish": wish}).status_code == 200
    after = table(signed_in, fit)
    assert after["key"] != before["key"] and after["wish"]["quality"] == 30
    assert after["candidates"][0]["bytes"] == tried["bytes"] and after["candidates"][0]["chosen"]
    with run(execute=True):
        send(signed_in, "put", f"workspaces/juno/fits/{fit}/wish", {"wish": {}})
    assert table(signed_in, fit)["key"] == before["key"] and Fit.objects.get(pk=fit).wish == {}


@pytest.mark.parametrize(
    "wish", [{"format": "gif"}, {"quality": 0}, {"colours": 1}, {"format": "nonsense"}, {"chroma": "4:1:1"}]
)
def test_what_cannot_be_fixed_is_said(signed_in: Any, fit: str, wish: Any) -> None:
    assert send(signed_in, "put", f"workspaces/juno/fits/{fit}/wish", {"wish": wish}).status_code == 422
    assert Fit.objects.get(pk=fit).wish == {}


@pytest.mark.parametrize(
    "told", ["{}", "nonsense", '{"kind":"jpeg"}', '{"kind":"palette","colours":9999}', '{"kind":"uncompressed"}']
)
def test_settings_that_nobody_was_told_are_refused(signed_in: Any, fit: str, told: str) -> None:
    answer = signed_in.get(f"/api/workspaces/juno/fits/{fit}/candidates/picture?format=png&settings={told}")
    assert answer.status_code == 422


def test_a_wish_travels_with_the_workspace(signed_in: Any, fit: str, run: Any) -> None:
    from django.core.files.uploadedfile import SimpleUploadedFile

    with run(execute=True):
        send(signed_in, "put", f"workspaces/juno/fits/{fit}/wish", {"wish": {"format": "webp"}})
    data = b"".join(signed_in.get("/api/workspaces/juno/export").streaming_content)
    with run(execute=True):
        slug = signed_in.post("/api/workspaces/bring-in", {"file": SimpleUploadedFile("juno.zip", data)}).json()["slug"]
    there = wall_proofs(signed_in, slug)["Photo"]["fit"]
    told = signed_in.get(f"/api/workspaces/{slug}/fits/{there}/candidates").json()
    assert told["wish"]["format"] == "webp" and told["candidates"][0]["format"] == "webp"


def test_a_wish_ends_where_the_place_takes_its_format_no_more(signed_in: Any, fit: str, run: Any) -> None:
    with run(execute=True):
        send(signed_in, "put", f"workspaces/juno/fits/{fit}/wish", {"wish": {"format": "webp"}})
    place = str(Fit.objects.get(pk=fit).placement_id)
    sheet = signed_in.get(f"/api/workspaces/juno/places/{place}").json()["shown"]["sheet"]
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/places/{place}", {"sheet": {**sheet, "formats": ["jpeg"]}})
    told = table(signed_in, fit)
    assert told["wish"]["format"] is None and told["candidates"][0]["format"] == "jpeg"
