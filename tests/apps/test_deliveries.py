"""What is handed over: names, folders, the manifest, and what is out of date since."""

import io
import json
import zipfile
from typing import Any

import pytest

from tests.apps.helpers import content, deliver, send, upload, wall_proofs
from tests.make import opened, photo, saved, svg

pytestmark = pytest.mark.django_db


@pytest.fixture
def filled(signed_in: Any, place: Any, run: Any) -> Any:
    """Two placements with a mark, one with a photo that cannot be made small enough, one empty."""
    places = [place(name="Head", destination="My site"), place(name="Foot", destination="My site!", naming="logo")]
    upload(signed_in, "juno", "The Mark.svg", svg(), ",".join(str(entry.pk) for entry in places), run)
    heavy = place(name="Heavy", max_bytes=400, formats=["jpeg"])
    upload(signed_in, "juno", "p.jpg", saved(photo(), "JPEG"), str(heavy.pk), run)
    place(name="Empty")
    return signed_in


def test_all_that_fit_are_packed_in_folders_with_a_manifest(filled: Any) -> None:
    assert wall_proofs(filled, "juno")["Heavy"]["state"] == "refused"
    made = deliver(filled, {})
    assert made.status_code == 201
    answer = filled.get(f"/api/workspaces/juno/deliveries/{made.json()['id']}/zip")
    assert answer["Content-Type"] == "application/zip"
    archive = zipfile.ZipFile(io.BytesIO(content(answer)))
    assert sorted(archive.namelist()) == ["delivery.json", "my-site/logo.png", "my-site/the-mark_320x180.png"]
    manifest = json.loads(archive.read("delivery.json"))
    for entry in manifest["files"]:
        data = archive.read(entry["file"])
        assert (len(data), opened(data).size) == (entry["bytes"], (entry["width"], entry["height"]))


def test_one_file_is_saved_under_its_own_name(filled: Any) -> None:
    fit = wall_proofs(filled, "juno")["Head"]["fit"]
    made = deliver(filled, {"fits": [fit]}).json()
    answer = filled.get(f"/api/workspaces/juno/deliveries/files/{made['files'][0]['id']}")
    assert 'filename="the-mark_320x180.png"' in answer["Content-Disposition"]
    assert answer["Content-Type"] == "image/png"


def test_what_changed_since_is_out_of_date_and_delivered_alone(filled: Any, run: Any) -> None:
    deliver(filled, {})
    head = filled.get(f"/api/workspaces/juno/fits/{wall_proofs(filled, 'juno')['Head']['fit']}").json()
    body = {
        "revision": head["piece"]["revision"], "step": "tint",
        "values": [{"part": "mark", "field": "tint", "value": "#202020"}], "everywhere": False,
    }  # fmt: skip
    with run(execute=True):
        send(filled, "patch", f"workspaces/juno/fits/{head['id']}", body)
    states = {name: proof["state"] for name, proof in wall_proofs(filled, "juno").items()}
    assert (states["Head"], states["Foot"]) == ("out of date", "fits")
    wall = filled.get("/api/workspaces/juno/wall").json()
    assert (wall["deliverable"], wall["changed"]) == (2, 1)
    old = filled.get("/api/workspaces/juno/deliveries").json()[0]
    assert {file["placement_name"]: file["out_of_date"] for file in old["files"]} == {"Head": True, "Foot": False}
    again = deliver(filled, {"changed": True}).json()
    assert [(file["name"], file["version"]) for file in again["files"]] == [("the-mark_320x180.png", 2)]


def test_what_would_be_refused_is_not_delivered(filled: Any) -> None:
    heavy = wall_proofs(filled, "juno")["Heavy"]["fit"]
    answer = deliver(filled, {"fits": [heavy]})
    assert answer.status_code == 422
    assert "Heavy" in answer.json()["message"]


def test_nothing_to_deliver_is_said(signed_in: Any) -> None:
    answer = deliver(signed_in, {})
    assert answer.status_code == 422
    assert "nothing to deliver" in answer.json()["message"]


def test_colliding_names_in_one_folder_are_numbered(signed_in: Any, place: Any, run: Any) -> None:
    places = [place(name=name, naming="same") for name in ("A", "B")]
    targets = ",".join(str(entry.pk) for entry in places)
    upload(signed_in, "juno", "m.svg", svg(), targets, run)
    made = deliver(signed_in, {}).json()
    assert sorted(file["name"] for file in made["files"]) == ["same-2.png", "same.png"]
