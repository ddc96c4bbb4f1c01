"""One file for several places: joined with one click, fed by one fit, parted when a sheet changes."""

from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from fitzle.apps.pieces.models import Fit, Rendition, SharedFile
from tests.apps.helpers import deliver, send, upload, wall_proofs
from tests.make import disc, saved, sheet, svg

pytestmark = pytest.mark.django_db
SHARED = "workspaces/juno/shared-files"
CHANGED = ("Exactly 300 × 300 px (was: Exactly 256 × 256 px).", "At most 90 KB (was: At most 200 KB).")


def add(client: Any, name: str, **keys: Any) -> str:
    keys = {"size": {"width": 256, "height": 256}, "formats": ["png"], **keys}
    wanted = sheet(name=name, destination="Forum", **keys).model_dump(mode="json")
    answer = send(client, "post", "workspaces/juno/places", {"name": name, "destination": "Forum", "sheet": wanted})
    assert answer.status_code == 201, answer.content
    return str(answer.json()["id"])


@pytest.fixture
def places(signed_in: Any) -> dict[str, str]:
    """Two places that one file serves, and one that it does not."""
    return {
        "Badge": add(signed_in, "Badge"),
        "Portrait": add(
            signed_in,
            "Portrait",
            size={"min_width": 100, "min_height": 100, "max_width": 256, "max_height": 256, "aspect": "1:1"},
            formats=["webp", "png"],
            max_bytes=60_000,
            cut={"shape": "circle"},
        ),
        "Banner": add(signed_in, "Banner", size={"width": 900, "height": 300}),
    }


def share(client: Any, run: Any, places: list[str], leader: str) -> Any:
    with run(execute=True):
        return send(client, "post", SHARED, {"places": places, "leader": leader})


def part(client: Any, run: Any, place: str) -> Any:
    with run(execute=True):
        return client.delete(f"/api/{SHARED}/{place}")


def groups(client: Any) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = client.get(f"/api/{SHARED}").json()
    return found


def names(group: dict[str, Any]) -> list[str]:
    return [one["name"] for one in group["places"]]


def fit_of(client: Any, name: str) -> Any:
    return client.get(f"/api/workspaces/juno/fits/{wall_proofs(client, 'juno')[name]['fit']}").json()


def change(client: Any, run: Any, fit: Any, **keys: Any) -> None:
    with run(execute=True):
        body = {"revision": fit["piece"]["revision"], "step": "x", **keys}
        answer = send(client, "patch", f"workspaces/juno/fits/{fit['id']}", body)
    assert answer.status_code == 200, answer.content


def change_sheet(client: Any, run: Any, place: str, **keys: Any) -> None:
    now = client.get(f"/api/workspaces/juno/places/{place}").json()["shown"]["sheet"]
    with run(execute=True):
        answer = send(client, "patch", f"workspaces/juno/places/{place}", {"sheet": {**now, **keys}})
    assert answer.status_code == 200, answer.content


def test_places_that_one_file_could_serve_are_recognised(signed_in: Any, places: dict[str, str]) -> None:
    [found] = groups(signed_in)
    assert (names(found), found["joined"], found["broken"]) == (["Badge", "Portrait"], False, "")
    assert found["short"] == "256 × 256 px, PNG"


def test_one_fit_feeds_them_all_with_the_very_same_bytes(signed_in: Any, places: dict[str, str], run: Any) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    assert share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"]).status_code == 204
    assert Rendition.objects.values_list("file_key", flat=True).distinct().count() == Rendition.objects.count()
    one, other = fit_of(signed_in, "Badge"), fit_of(signed_in, "Portrait")
    assert one["key"] == other["key"]
    assert one["file"] == other["file"]
    assert one["file"]["bytes"] <= 60_000
    proofs = wall_proofs(signed_in, "juno")
    assert (proofs["Badge"]["shared"], proofs["Portrait"]["shared"]) == (["Portrait"], ["Badge"])
    assert proofs["Banner"]["shared"] == []
    assert names(groups(signed_in)[0]) == ["Badge", "Portrait"]
    assert groups(signed_in)[0]["joined"]


def test_each_place_judges_the_file_as_it_is_seen_there(signed_in: Any, places: dict[str, str], run: Any) -> None:
    upload(signed_in, "juno", "disc.png", saved(disc(256, margin=2), "PNG"), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    one, other = fit_of(signed_in, "Badge"), fit_of(signed_in, "Portrait")
    assert one["mask"] is None
    assert other["mask"] is not None
    assert [demand["asked"] for demand in one["demands"]] != [demand["asked"] for demand in other["demands"]]


def test_another_artwork_dropped_on_one_goes_to_all(signed_in: Any, places: dict[str, str], run: Any) -> None:
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    upload(signed_in, "juno", "mark.svg", svg(), places["Portrait"], run)
    first = wall_proofs(signed_in, "juno")
    assert first["Badge"]["key"] == first["Portrait"]["key"] is not None
    upload(signed_in, "juno", "disc.png", saved(disc(), "PNG"), places["Badge"], run)
    then = wall_proofs(signed_in, "juno")
    assert then["Badge"]["key"] == then["Portrait"]["key"] != first["Badge"]["key"]
    with run(execute=True):
        assert signed_in.delete(f"/api/workspaces/juno/fits/{then['Badge']['fit']}").status_code == 204
    assert wall_proofs(signed_in, "juno")["Portrait"]["key"] == first["Portrait"]["key"]


def test_what_is_changed_only_here_counts_for_all_of_them(signed_in: Any, places: dict[str, str], run: Any) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    fit = fit_of(signed_in, "Portrait")
    part_id = next(name for name, found in fit["here"].items() if found["role"] == "mark")
    value = {"part": part_id, "field": "opacity", "value": 0.5}
    change(signed_in, run, fit, values=[value], everywhere=False)
    one, other = fit_of(signed_in, "Badge"), fit_of(signed_in, "Portrait")
    assert one["here"][part_id]["opacity"] == other["here"][part_id]["opacity"] == 0.5
    assert one["key"] == other["key"]
    assert part(signed_in, run, places["Portrait"]).status_code == 204
    assert fit_of(signed_in, "Portrait")["here"][part_id]["opacity"] == 0.5, "it looks as it did"
    back = fit_of(signed_in, "Portrait")
    change(signed_in, run, back, values=[{**value, "value": 0.7}], everywhere=False)
    assert fit_of(signed_in, "Badge")["here"][part_id]["opacity"] == 0.5, "each for itself again"
    assert SharedFile.objects.count() == 0


def test_the_one_that_led_may_leave_and_the_others_stay_as_they_are(
    signed_in: Any, places: dict[str, str], run: Any
) -> None:
    third = add(signed_in, "Stamp")
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [*[*places.values()][:2], third], places["Badge"])
    fit = fit_of(signed_in, "Badge")
    part_id = next(name for name, found in fit["here"].items() if found["role"] == "mark")
    change(signed_in, run, fit, values=[{"part": part_id, "field": "opacity", "value": 0.5}], everywhere=False)
    assert part(signed_in, run, places["Badge"]).status_code == 204
    left, stamp = fit_of(signed_in, "Portrait"), fit_of(signed_in, "Stamp")
    assert left["key"] == stamp["key"]
    assert left["here"][part_id]["opacity"] == fit_of(signed_in, "Badge")["here"][part_id]["opacity"] == 0.5
    change(signed_in, run, left, values=[{"part": part_id, "field": "opacity", "value": 0.6}], everywhere=False)
    assert fit_of(signed_in, "Stamp")["here"][part_id]["opacity"] == 0.6
    assert fit_of(signed_in, "Badge")["here"][part_id]["opacity"] == 0.5


def test_places_that_do_not_go_together_are_refused_with_the_reason(
    signed_in: Any, places: dict[str, str], run: Any
) -> None:
    answer = share(signed_in, run, [places["Badge"], places["Banner"]], places["Badge"])
    assert answer.status_code == 422
    assert "Badge at Forum takes exactly 256 × 256 px, Banner at Forum takes exactly 900 × 300 px." in str(
        answer.json()["message"]
    )
    assert share(signed_in, run, [places["Badge"]], places["Badge"]).status_code == 422
    assert SharedFile.objects.count() == 0


def test_a_sheet_that_breaks_the_group_is_said_before_and_after(
    signed_in: Any, places: dict[str, str], run: Any
) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    now = signed_in.get(f"/api/workspaces/juno/places/{places['Badge']}").json()["shown"]["sheet"]
    larger = {"size": {"width": 400, "height": 400}}
    effect = send(
        signed_in, "post", f"workspaces/juno/places/{places['Badge']}/effect", {"sheet": {**now, **larger}}
    ).json()
    assert "takes exactly 400 × 400 px" in effect["broken"]
    assert {one["place_name"] for one in effect["fits"]} == {"Badge", "Portrait"}
    change_sheet(signed_in, run, places["Badge"], **larger)
    proofs = wall_proofs(signed_in, "juno")
    assert "takes exactly 400 × 400 px" in proofs["Badge"]["parted"]
    assert proofs["Badge"]["size"] == "400 × 400 px", "each has a file of its own"
    assert proofs["Badge"]["key"] != proofs["Portrait"]["key"]
    assert proofs["Badge"]["state"] == proofs["Portrait"]["state"] == "fits"
    assert groups(signed_in)[0]["broken"] == proofs["Badge"]["parted"]
    change_sheet(signed_in, run, places["Badge"], size={"width": 200, "height": 200})
    again = wall_proofs(signed_in, "juno")
    assert again["Badge"]["key"] == again["Portrait"]["key"], "and one again once it serves both"


def test_the_limit_of_one_counts_for_all(signed_in: Any, places: dict[str, str], run: Any) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    before = fit_of(signed_in, "Badge")["file"]["bytes"]
    change_sheet(signed_in, run, places["Portrait"], max_bytes=before - 1)
    assert fit_of(signed_in, "Badge")["file"]["bytes"] < before


def test_a_place_that_is_put_away_asks_for_nothing(signed_in: Any, places: dict[str, str], run: Any) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/places/{places['Portrait']}", {"put_away": True})
    assert wall_proofs(signed_in, "juno")["Badge"]["shared"] == []
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/places/{places['Portrait']}", {"put_away": False})
    assert wall_proofs(signed_in, "juno")["Badge"]["shared"] == ["Portrait"]


def test_a_damaged_sheet_parts_them_and_breaks_nothing(signed_in: Any, places: dict[str, str], run: Any) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    fit = Fit.objects.get(placement=places["Portrait"])
    fit.placement.sheet = {"size": "?"}
    fit.placement.save()
    proofs = wall_proofs(signed_in, "juno")
    assert proofs["Badge"]["parted"] == "The sheet of one of them is damaged."
    assert proofs["Badge"]["state"] in ("fits", "working")
    assert len(groups(signed_in)) == 1


def test_nobody_else_sees_or_joins_them(signed_in: Any, places: dict[str, str], make_person: Any, client: Any) -> None:
    assert client.__class__().get(f"/api/{SHARED}").status_code == 401
    stranger, _ = make_person("otto")
    other = client.__class__()
    other.force_login(stranger)
    assert other.get(f"/api/{SHARED}").status_code == 404
    body = {"places": [*places.values()], "leader": places["Badge"]}
    assert send(other, "post", "workspaces/otto/shared-files", body).status_code == 404


def test_they_leave_and_come_back_with_the_workspace(signed_in: Any, places: dict[str, str], run: Any) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    data = b"".join(signed_in.get("/api/workspaces/juno/export").streaming_content)
    with run(execute=True):
        answer = signed_in.post("/api/workspaces/bring-in", {"file": SimpleUploadedFile("juno.zip", data)})
    wall = wall_proofs(signed_in, answer.json()["slug"])
    assert wall["Badge"]["shared"] == ["Portrait"]
    assert wall["Badge"]["key"] == wall["Portrait"]["key"] == wall_proofs(signed_in, "juno")["Badge"]["key"]


def test_a_destination_that_goes_leaves_the_others_as_they_look(
    signed_in: Any, places: dict[str, str], run: Any
) -> None:
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/places/{places['Portrait']}", {"destination": "Club"})
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    fit = fit_of(signed_in, "Badge")
    part_id = next(name for name, found in fit["here"].items() if found["role"] == "mark")
    change(signed_in, run, fit, values=[{"part": part_id, "field": "opacity", "value": 0.5}], everywhere=False)
    assert deliver(signed_in, {}).status_code == 201
    shelves = signed_in.get("/api/workspaces/juno/wall").json()["shelves"]
    forum = next(one["id"] for one in shelves if one["name"] == "Forum")
    with run(execute=True):
        assert signed_in.delete(f"/api/workspaces/juno/destinations/{forum}").status_code == 204
    assert [*wall_proofs(signed_in, "juno")] == ["Portrait"]
    assert fit_of(signed_in, "Portrait")["here"][part_id]["opacity"] == 0.5
    [delivery] = signed_in.get("/api/workspaces/juno/deliveries").json()
    assert {one["placement_name"] for one in delivery["files"]} == {"Badge", "Portrait"}
    assert signed_in.get(f"/api/workspaces/juno/deliveries/files/{delivery['files'][0]['id']}").status_code == 200


def test_what_changed_in_a_sheet_is_marked_until_somebody_notes_it(
    signed_in: Any, places: dict[str, str], run: Any
) -> None:
    upload(signed_in, "juno", "mark.svg", svg(), places["Badge"], run)
    change_sheet(signed_in, run, places["Badge"], name="Round badge", naming="{subject}")
    assert wall_proofs(signed_in, "juno")["Round badge"]["changed"] == [], "no file changes by it"
    change_sheet(signed_in, run, places["Badge"], size={"width": 300, "height": 300})
    change_sheet(signed_in, run, places["Badge"], max_bytes=90_000)
    change_sheet(signed_in, run, places["Banner"], max_bytes=90_000)
    proofs = wall_proofs(signed_in, "juno")
    assert proofs["Round badge"]["changed"] == [*CHANGED]
    assert proofs["Banner"]["changed"] == [], "nothing stands there"
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/places/{places['Badge']}", {"noted": True})
    assert wall_proofs(signed_in, "juno")["Round badge"]["changed"] == []
    change_sheet(signed_in, run, places["Badge"], max_bytes=None)
    assert wall_proofs(signed_in, "juno")["Round badge"]["changed"] == ["No longer: At most 90 KB."]
    assert deliver(signed_in, {}).status_code == 201
    assert wall_proofs(signed_in, "juno")["Round badge"]["changed"] == [], "who delivers has seen it"


def test_a_starting_point_begun_in_one_stands_in_all(signed_in: Any, places: dict[str, str], run: Any) -> None:
    share(signed_in, run, [places["Badge"], places["Portrait"]], places["Badge"])
    with run(execute=True):
        path = f"workspaces/juno/placements/{places['Portrait']}/pieces"
        answer = send(signed_in, "post", path, {"starting_point": 0})
    assert answer.status_code == 201, answer.content
    assert answer.json()["placement"] == places["Portrait"]
    proofs = wall_proofs(signed_in, "juno")
    assert proofs["Badge"]["key"] == proofs["Portrait"]["key"] is not None
    assert proofs["Badge"]["state"] != "empty"
