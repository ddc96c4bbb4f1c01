"""A piece put into other places over HTTP: seen there first, then standing, and what stood there kept."""

from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from tests.apps.helpers import mark_in_a_place, send, wall_proofs
from tests.make import opened, svg

pytestmark = pytest.mark.django_db


@pytest.fixture
def fit(signed_in: Any, place: Any, run: Any) -> dict[str, Any]:
    return mark_in_a_place(signed_in, place, run)


def elsewhere(client: Any, fit: dict[str, Any]) -> dict[str, dict[str, Any]]:
    found = client.get(f"/api/workspaces/juno/fits/{fit['id']}/elsewhere").json()
    return {one["name"]: one for one in found}


def put(client: Any, fit: dict[str, Any], placements: list[str]) -> Any:
    return send(client, "post", f"workspaces/juno/fits/{fit['id']}/elsewhere", {"placements": placements})


def test_it_is_seen_in_every_place_before_it_stands_there(signed_in: Any, fit: Any, place: Any, run: Any) -> None:
    place(name="Strip", size={"width": 600, "height": 100})
    found = elsewhere(signed_in, fit)
    assert found["Test place"]["stands"] and not found["Strip"]["stands"] and not found["Strip"]["holds"]
    address = f"/api/workspaces/juno/fits/{fit['id']}/elsewhere/{found['Strip']['id']}/proof?width=300&key=a"
    answer = signed_in.get(address)
    assert opened(answer.content).size == (300, 50) and "immutable" in answer["Cache-Control"]
    assert wall_proofs(signed_in, "juno")["Strip"]["fit"] is None, "nothing was put there"
    with run(execute=True):
        made = put(signed_in, fit, [found["Strip"]["id"]])
    assert made.status_code == 201 and [one["placement_name"] for one in made.json()] == ["Strip"]
    assert wall_proofs(signed_in, "juno")["Strip"]["fit"] == made.json()[0]["id"]
    assert elsewhere(signed_in, fit)["Strip"]["stands"]
    rail = signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}").json()["rail"]
    assert {one["placement_name"] for one in rail} == {"Test place", "Strip"}


def test_what_stood_there_is_named_before_and_kept(signed_in: Any, fit: Any, place: Any, run: Any) -> None:
    strip = place(name="Strip", size={"width": 600, "height": 100}, transparency="forbidden")
    with run(execute=True):
        body = {"starting_point": 0}
        other = send(signed_in, "post", f"workspaces/juno/placements/{strip.pk}/pieces", body).json()
    found = elsewhere(signed_in, fit)["Strip"]
    assert found["holds"] == "Strip" and not found["stands"]
    with run(execute=True):
        put(signed_in, fit, [found["id"]])
    assert wall_proofs(signed_in, "juno")["Strip"]["fit"] != other["id"]
    assert signed_in.get(f"/api/workspaces/juno/fits/{other['id']}").status_code == 200, "it is kept"


def test_a_composed_piece_is_arranged_there_as_it_was_shown(signed_in: Any, fit: Any, place: Any, run: Any) -> None:
    card = place(name="Card", size={"width": 640, "height": 360}, transparency="forbidden")
    with run(execute=True):
        body = {"starting_point": 0}
        own = send(signed_in, "post", f"workspaces/juno/placements/{card.pk}/pieces", body).json()
    place(name="Story", size={"width": 360, "height": 800}, transparency="forbidden")
    story = elsewhere(signed_in, own)["Story"]
    seen = signed_in.get(f"/api/workspaces/juno/fits/{own['id']}/elsewhere/{story['id']}/proof?width=180").content
    with run(execute=True):
        [there] = put(signed_in, own, [story["id"]]).json()
    stands = signed_in.get(f"/api/workspaces/juno/fits/{there['id']}").json()
    assert stands["stance"] == "arranged"
    proof = signed_in.get(f"/api/workspaces/juno/fits/{there['id']}/proof?width=180&key={stands['key']}")
    assert proof.content == seen


def test_hopeless_wishes_are_refused(signed_in: Any, fit: Any) -> None:
    assert put(signed_in, fit, []).status_code == 422
    assert put(signed_in, fit, ["00000000-0000-4000-8000-000000000000"]).status_code == 404


def test_the_address_of_what_is_shown_changes_with_the_artwork(signed_in: Any, fit: Any, place: Any, run: Any) -> None:
    place(name="Strip", size={"width": 600, "height": 100})
    before = elsewhere(signed_in, fit)["Strip"]["key"]
    mark = fit["piece"]["document"]["parts"][-1]["artwork"]
    newer = SimpleUploadedFile("mark.svg", svg('<circle cx="50" cy="25" r="20" fill="#b4541a"/>'))
    with run(execute=True):
        assert signed_in.post(f"/api/workspaces/juno/artwork/{mark}/newer", {"file": newer}).status_code == 202
    assert elsewhere(signed_in, fit)["Strip"]["key"] != before, "browsers keep what an address showed"
