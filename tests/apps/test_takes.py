"""Takes over HTTP: beside each other, proposed, changed on their own, chosen for one place or for all."""

from typing import Any

import pytest

from fitzle.apps.pieces.models import Fit, Piece
from tests.apps.helpers import deliver, mark_in_a_place, send, upload, wall_proofs
from tests.make import svg

pytestmark = pytest.mark.django_db


@pytest.fixture
def fit(signed_in: Any, place: Any, run: Any) -> dict[str, Any]:
    return mark_in_a_place(signed_in, place, run)


def call(client: Any, method: str, fit: str, tail: str, body: Any = None) -> Any:
    return send(client, method, f"workspaces/juno/fits/{fit}/{tail}", body)


def add(client: Any, run: Any, fit: str, proposal: str = "") -> list[dict[str, Any]]:
    with run(execute=True):
        answer = call(client, "post", fit, "takes", {"proposal": proposal})
    assert answer.status_code == 201, answer.content
    return list(answer.json()["takes"])


def test_another_take_is_a_copy_that_stands_beside(signed_in: Any, fit: Any, run: Any) -> None:
    [first, second] = add(signed_in, run, fit["id"])
    assert [(one["name"], one["chosen"], one["differs"]) for one in (first, second)] == [
        ("A", True, []), ("B", False, []),
    ]  # fmt: skip
    assert wall_proofs(signed_in, "juno")["Test place"]["fit"] == fit["id"], "the wall stays as it is"
    shown = signed_in.get(f"/api/workspaces/juno/fits/{second['fit']}").json()
    assert shown["take"] == "B" and len(shown["rail"]) == 1, "one of each place on the rail"
    assert signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}").json()["take"] == "A"


def _tint(client: Any, fit: str, colour: str, *, everywhere: bool = True) -> Any:
    now = client.get(f"/api/workspaces/juno/fits/{fit}").json()
    values = [{"part": "mark", "field": "tint", "value": colour}]
    body = {"revision": now["piece"]["revision"], "step": "tint it", "values": values, "everywhere": everywhere}
    answer = send(client, "patch", f"workspaces/juno/fits/{fit}", body)
    assert answer.status_code == 200, answer.content
    return answer.json()


@pytest.mark.parametrize("everywhere", [True, False])
def test_what_is_changed_in_a_take_is_its_own_and_named(signed_in: Any, fit: Any, run: Any, everywhere: bool) -> None:
    [_, second] = add(signed_in, run, fit["id"])
    with run(execute=True):
        changed = _tint(signed_in, second["fit"], "#f4d06f", everywhere=everywhere)
    assert changed["here"]["mark"]["tint"] == "#f4d06f"
    assert signed_in.get(f"/api/workspaces/juno/fits/{fit['id']}").json()["here"]["mark"]["tint"] is None
    [_, named] = call(signed_in, "get", fit["id"], "takes").json()["takes"]
    assert "Mark tinted #f4d06f" in named["differs"]


def test_a_repair_mends_the_take_alone(signed_in: Any, fit: Any, run: Any) -> None:
    [_, second] = add(signed_in, run, fit["id"])
    finding = next(one for one in fit["findings"] if one["rule"] == "contrast")
    with run(execute=True):
        call(signed_in, "post", second["fit"], f"repairs/{finding['repair']['name']}?part=mark")
    states = [one["state"] for one in call(signed_in, "get", fit["id"], "takes").json()["takes"]]
    assert states == ["risky", "fits"]


def test_the_chosen_take_stands_on_the_wall_and_the_others_are_kept(signed_in: Any, fit: Any, run: Any) -> None:
    [_, second] = add(signed_in, run, fit["id"])
    with run(execute=True):
        answer = call(signed_in, "post", second["fit"], "choose", {})
    assert [one["chosen"] for one in answer.json()["takes"]] == [False, True]
    assert wall_proofs(signed_in, "juno")["Test place"]["fit"] == second["fit"]
    assert Fit.objects.count() == 2
    call(signed_in, "post", fit["id"], "choose", {})
    assert wall_proofs(signed_in, "juno")["Test place"]["fit"] == fit["id"], "and back"


def test_a_take_can_be_chosen_for_all_places(signed_in: Any, place: Any, run: Any) -> None:
    places = [place(name=name, grounds=["#17181a"]) for name in ("One", "Two")]
    upload(signed_in, "juno", "mark.svg", svg(), ",".join(str(one.pk) for one in places), run)
    fits = {name: proof["fit"] for name, proof in wall_proofs(signed_in, "juno").items()}
    [_, second] = add(signed_in, run, fits["One"])
    with run(execute=True):
        _tint(signed_in, second["fit"], "#f4d06f")
        call(signed_in, "post", second["fit"], "choose", {"everywhere": True})
    wall = wall_proofs(signed_in, "juno")
    assert wall["One"]["fit"] == second["fit"] and wall["Two"]["fit"] not in fits.values()
    assert {wall[name]["state"] for name in wall} == {"fits"}, "made and judged in both"


def test_a_proposal_becomes_a_take_and_is_not_proposed_again(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(seen=[{"name": "list", "width": 160}])
    fit = send(signed_in, "post", f"workspaces/juno/placements/{entry.pk}/pieces", {"starting_point": 1}).json()
    found = call(signed_in, "get", fit["id"], "proposals").json()
    assert found and all(one["picture"].startswith("data:image/") and one["words"] for one in found)
    takes = add(signed_in, run, fit["id"], found[0]["id"])
    assert takes[1]["differs"]
    left = {one["id"] for one in call(signed_in, "get", fit["id"], "proposals").json()}
    assert found[0]["id"] not in left
    refused = call(signed_in, "post", fit["id"], "takes", {"proposal": "nonsense"})
    assert refused.status_code == 422 and "does not hold" in refused.json()["message"]


def test_six_stand_side_by_side_at_most(signed_in: Any, fit: Any, run: Any) -> None:
    for count in range(2, 7):
        assert len(add(signed_in, run, fit["id"])) == count
        assert call(signed_in, "get", fit["id"], "takes").json()["full"] is (count == 6)
    refused = call(signed_in, "post", fit["id"], "takes", {})
    assert refused.status_code == 422 and "side by side" in refused.json()["message"]


def test_a_copy_of_a_take_differs_as_it_does_and_goes_its_own_way(signed_in: Any, fit: Any, run: Any) -> None:
    [_, second] = add(signed_in, run, fit["id"])
    _tint(signed_in, second["fit"], "#f4d06f")
    third = add(signed_in, run, second["fit"])[2]
    assert "Mark tinted #f4d06f" in third["differs"]
    _tint(signed_in, third["fit"], "#ffffff")
    tints = [
        signed_in.get(f"/api/workspaces/juno/fits/{one}").json()["here"]["mark"]["tint"]
        for one in (fit["id"], second["fit"], third["fit"])
    ]
    assert tints == [None, "#f4d06f", "#ffffff"]


def test_undo_takes_back_what_was_changed_in_a_take_and_leaves_the_take(signed_in: Any, fit: Any, run: Any) -> None:
    [_, second] = add(signed_in, run, fit["id"])
    _tint(signed_in, second["fit"], "#f4d06f")
    piece = Piece.objects.get()
    assert send(signed_in, "post", f"workspaces/juno/pieces/{piece.pk}/undo").status_code == 200
    shown = signed_in.get(f"/api/workspaces/juno/fits/{second['fit']}").json()
    assert shown["here"]["mark"]["tint"] is None and shown["take"] == "B"


def test_a_take_that_nobody_wants_is_taken_away(signed_in: Any, fit: Any, run: Any) -> None:
    [_, second] = add(signed_in, run, fit["id"])
    assert signed_in.delete(f"/api/workspaces/juno/fits/{second['fit']}").status_code == 204
    assert len(call(signed_in, "get", fit["id"], "takes").json()["takes"]) == 1
    assert add(signed_in, run, fit["id"])[1]["name"] == "B"


def test_what_differs_in_a_take_stays_when_a_place_gets_its_own_file_again(
    signed_in: Any, place: Any, run: Any
) -> None:
    """The second place keeps adjustments under the slug of the first while one file serves both."""
    places = [place(name=name, grounds=["#17181a"], size={"width": 64, "height": 64}) for name in ("One", "Two")]
    upload(signed_in, "juno", "mark.svg", svg(), ",".join(str(one.pk) for one in places), run)
    one = wall_proofs(signed_in, "juno")["One"]["fit"]
    with run(execute=True):
        body = {"places": [str(entry.pk) for entry in places], "leader": str(places[0].pk)}
        assert send(signed_in, "post", "workspaces/juno/shared-files", body).status_code == 204
    [_, second] = add(signed_in, run, one)
    with run(execute=True):
        _tint(signed_in, second["fit"], "#f4d06f", everywhere=False)
        call(signed_in, "post", second["fit"], "choose", {})
    before = wall_proofs(signed_in, "juno")["Two"]
    with run(execute=True):
        signed_in.delete(f"/api/workspaces/juno/shared-files/{places[1].pk}")
    after = wall_proofs(signed_in, "juno")["Two"]
    assert (after["fit"], after["state"]) == (before["fit"], "fits")
    assert signed_in.get(f"/api/workspaces/juno/fits/{after['fit']}").json()["here"]["mark"]["tint"] == "#f4d06f"


def test_a_take_that_is_not_chosen_is_never_out_of_date(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(grounds=["#ffffff"])
    upload(signed_in, "juno", "mark.svg", svg(), str(entry.pk), run)
    fit = wall_proofs(signed_in, "juno")["Test place"]["fit"]
    [_, second] = add(signed_in, run, fit)
    deliver(signed_in, {"fits": [fit]})
    with run(execute=True):
        _tint(signed_in, second["fit"], "#17443c")
    assert [one["state"] for one in call(signed_in, "get", fit, "takes").json()["takes"]] == ["fits", "fits"]
    with run(execute=True):
        call(signed_in, "post", second["fit"], "choose", {})
    assert wall_proofs(signed_in, "juno")["Test place"]["state"] == "out of date", "another file was handed over"
