"""Fits are changed, undone, merged and mended; two windows lose nothing."""

from typing import Any

import pytest

from tests.apps.helpers import mark_in_a_place, send, upload, wall_proofs
from tests.make import solid, svg

pytestmark = pytest.mark.django_db


@pytest.fixture
def fit(signed_in: Any, place: Any, run: Any) -> dict[str, Any]:
    return mark_in_a_place(signed_in, place, run)


def read(client: Any, fit: str) -> dict[str, Any]:
    return client.get(f"/api/workspaces/juno/fits/{fit}").json()


def change(client: Any, fit: dict[str, Any], field: str, value: Any, **more: Any) -> Any:
    body = {
        "revision": more.pop("revision", fit["piece"]["revision"]),
        "step": f"set {field}",
        "changes": [{"act": "set", "part": more.pop("part", "mark"), "field": field, "value": value, **more}],
    }
    return send(client, "patch", f"workspaces/juno/fits/{fit['id']}", body)


def tint_of(fit: dict[str, Any]) -> str | None:
    return next(part for part in fit["piece"]["document"]["parts"] if part["role"] == "mark")["tint"]


def test_a_change_answers_with_plan_findings_and_a_new_key(signed_in: Any, fit: dict[str, Any]) -> None:
    answer = change(signed_in, fit, "padding", {"value": 0, "unit": "px"}).json()
    assert answer["key"] != fit["key"]
    assert answer["measuring"]
    assert {entry["rule"] for entry in answer["findings"]} >= {"clearance"}
    assert answer["parts"][0]["artwork"]["clearance_px"] == 0
    assert answer["piece"]["undo"] == "set padding"


def test_the_file_is_made_anew_for_the_new_state(signed_in: Any, fit: dict[str, Any], run: Any) -> None:
    assert fit["file"]["format"] == "png"
    with run(execute=True):
        change(signed_in, fit, "tint", "#ffffff")
    after = read(signed_in, fit["id"])
    assert not after["measuring"]
    assert after["file"]["bytes"] != 0
    assert {demand["rule"] for demand in after["demands"]} == {"size", "format", "bytes", "transparency", "motion"}


def test_an_adjustment_counts_only_here_and_everywhere_counts_everywhere(signed_in: Any, fit: dict[str, Any]) -> None:
    here = change(signed_in, fit, "tint", "#ff0000", placement=fit["sheet"]["slug"]).json()
    assert here["adjusted"] == ["mark.tint"]
    assert tint_of(here) is None
    everywhere = change(signed_in, here, "tint", "#00ff00").json()
    assert tint_of(everywhere) == "#00ff00"
    assert everywhere["here"]["mark"]["tint"] == "#ff0000", "a plain change leaves what differs here"


def test_what_everywhere_and_only_here_mean_is_decided_here(signed_in: Any, fit: dict[str, Any]) -> None:
    def give(now: dict[str, Any], tint: str, **more: Any) -> dict[str, Any]:
        body = {"revision": now["piece"]["revision"], "step": "tint", **more}
        body["values"] = [{"part": "mark", "field": "tint", "value": tint}]
        return send(signed_in, "patch", f"workspaces/juno/fits/{fit['id']}", body).json()  # type: ignore[no-any-return]

    here = give(fit, "#ff0000", everywhere=False)
    assert (here["adjusted"], tint_of(here), here["here"]["mark"]["tint"]) == (["mark.tint"], None, "#ff0000")
    everywhere = give(here, "#00ff00", everywhere=True)
    assert (everywhere["adjusted"], tint_of(everywhere)) == ([], "#00ff00")
    again = give(everywhere, "#0000ff", everywhere=False)
    body = {"revision": again["piece"]["revision"], "step": "back", "take_back": ["mark.tint"]}
    back = send(signed_in, "patch", f"workspaces/juno/fits/{fit['id']}", body).json()
    assert (back["adjusted"], back["here"]["mark"]["tint"]) == ([], "#00ff00")


def test_a_placement_that_is_not_there_cannot_be_adjusted(signed_in: Any, fit: dict[str, Any]) -> None:
    answer = change(signed_in, fit, "tint", "#ff0000", placement="nowhere")
    assert answer.status_code == 422 and "no placement 'nowhere'" in answer.json()["message"]


def test_undo_and_redo_walk_the_history_and_a_new_change_cuts_it(signed_in: Any, fit: dict[str, Any]) -> None:
    piece = f"workspaces/juno/pieces/{fit['piece']['id']}"
    one = change(signed_in, fit, "tint", "#111111").json()
    two = change(signed_in, one, "tint", "#222222").json()
    assert two["piece"]["undo"] == "set tint"
    send(signed_in, "post", f"{piece}/undo")
    assert tint_of(read(signed_in, fit["id"])) == "#111111"
    send(signed_in, "post", f"{piece}/undo")
    back = send(signed_in, "post", f"{piece}/undo").json()
    assert tint_of(read(signed_in, fit["id"])) is None
    assert (back["undo"], back["redo"]) == (None, "set tint")
    send(signed_in, "post", f"{piece}/redo")
    again = read(signed_in, fit["id"])
    assert tint_of(again) == "#111111"
    cut = change(signed_in, again, "tint", "#333333").json()
    assert cut["piece"]["redo"] is None


def test_changes_to_different_fields_from_two_windows_are_merged(signed_in: Any, fit: dict[str, Any]) -> None:
    change(signed_in, fit, "tint", "#123456")
    merged = change(signed_in, fit, "fill", solid("#ffffff"), part="ground")
    assert merged.status_code == 200
    document = merged.json()["piece"]["document"]
    assert (document["parts"][0]["fill"]["colour"], tint_of(merged.json())) == ("#ffffff", "#123456")


def test_the_same_field_from_two_windows_is_answered_with_both_values(signed_in: Any, fit: dict[str, Any]) -> None:
    newest = change(signed_in, fit, "tint", "#123456").json()["piece"]["revision"]
    clash = change(signed_in, fit, "tint", "#abcdef")
    assert clash.status_code == 409
    body = clash.json()
    assert body["newest"]["revision"] == newest
    assert body["clashes"][0]["newest"] == "#123456"
    assert body["clashes"][0]["change"]["value"] == "#abcdef"
    assert tint_of(read(signed_in, fit["id"])) == "#123456"
    kept = change(signed_in, fit, "tint", "#abcdef", revision=newest)
    assert tint_of(kept.json()) == "#abcdef"


def test_a_repair_mends_its_finding(signed_in: Any, fit: dict[str, Any]) -> None:
    finding = next(entry for entry in fit["findings"] if entry["rule"] == "contrast")
    mended = send(signed_in, "post", f"workspaces/juno/fits/{fit['id']}/repairs/{finding['repair']['name']}").json()
    assert "contrast" not in {entry["rule"] for entry in mended["findings"]}
    nothing = send(signed_in, "post", f"workspaces/juno/fits/{fit['id']}/repairs/{finding['repair']['name']}")
    assert nothing.status_code == 422


@pytest.mark.parametrize(
    ("field", "value"),
    [("tint", "reddish"), ("mode", "stretch"), ("padding", {"value": -1, "unit": "px"}), ("id", "x")],
)
def test_an_impossible_change_is_refused_in_words_and_changes_nothing(
    signed_in: Any, fit: dict[str, Any], field: str, value: Any
) -> None:
    answer = change(signed_in, fit, field, value)
    assert answer.status_code == 422
    assert answer.json()["message"]
    assert read(signed_in, fit["id"])["piece"]["revision"] == fit["piece"]["revision"]


def test_a_proof_is_immutable_by_its_key_and_never_larger_than_a_screen(signed_in: Any, fit: dict[str, Any]) -> None:
    from tests.make import opened

    path = f"/api/workspaces/juno/fits/{fit['id']}/proof"
    now = signed_in.get(f"{path}?width=160&key={fit['key']}")
    assert "immutable" in now["Cache-Control"]
    assert opened(now.content).size == (160, 90)
    assert signed_in.get(f"{path}?width=160&key={fit['key']}").content == now.content
    assert signed_in.get(f"{path}?width=160&key=old")["Cache-Control"] == "no-store"
    assert opened(signed_in.get(f"{path}?width=99999").content).size[0] == 960, (
        "of 320 px: as large as small ones are looked at"
    )


def test_the_same_artwork_in_two_places_is_one_piece_and_emptying_leaves_the_other(
    signed_in: Any, fit: dict[str, Any], place: Any
) -> None:
    second = place(name="Second")
    artwork = fit["parts"][0]["artwork"]["artwork"]
    placed = send(signed_in, "post", "workspaces/juno/fits", {"artwork": artwork, "placements": [str(second.pk)]})
    assert placed.status_code == 201
    assert len(read(signed_in, fit["id"])["rail"]) == 2
    assert send(signed_in, "delete", f"workspaces/juno/fits/{fit['id']}").status_code == 204
    states = {name: proof["state"] for name, proof in wall_proofs(signed_in, "juno").items()}
    assert states["Test place"] == "empty"
    assert states["Second"] != "empty"


def test_what_was_placed_before_comes_back_when_the_newer_one_is_taken_away(
    signed_in: Any, fit: dict[str, Any], run: Any
) -> None:
    other = svg('<circle cx="9" cy="9" r="8"/>')
    upload(signed_in, "juno", "other.svg", other, fit["placement"], run)
    newer = wall_proofs(signed_in, "juno")["Test place"]["fit"]
    assert newer != fit["id"]
    send(signed_in, "delete", f"workspaces/juno/fits/{newer}")
    assert wall_proofs(signed_in, "juno")["Test place"]["fit"] == fit["id"]


def test_only_the_last_hundred_states_are_kept(signed_in: Any, fit: dict[str, Any]) -> None:
    from fitzle.apps.pieces.models import PieceRevision, PieceState

    now = fit
    for number in range(104):
        now = change(signed_in, now, "tint", f"#{number:06x}").json()
    assert PieceState.objects.filter(piece_id=fit["piece"]["id"]).count() == 100
    assert PieceRevision.objects.filter(piece_id=fit["piece"]["id"]).count() == 100
    assert change(signed_in, fit, "tint", "#ffffff").status_code == 409
