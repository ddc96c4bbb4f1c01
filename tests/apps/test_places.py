"""Places over HTTP: read from words, added, changed, put away and brought back."""

import io
import zipfile
from datetime import timedelta
from typing import Any

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client
from django.utils import timezone

from fitzle.apps.pieces.models import Rendition
from tests.apps.helpers import deliver, send, upload, wall_proofs
from tests.make import disc, photo, saved, sheet, svg

pytestmark = pytest.mark.django_db
PLACES = "workspaces/juno/places"
WORDS = "Square PNG with transparent background, at least 150 x 150 px, max. 1 MB, splendid"


def read(client: Any, words: str) -> Any:
    answer = send(client, "post", f"{PLACES}/read", {"words": words})
    assert answer.status_code == 200, answer.content
    return answer.json()


def added(client: Any, words: str, name: str = "Badge", destination: str = "Riders' forum") -> Any:
    sheet = read(client, words)["sheet"]["sheet"]
    answer = send(client, "post", PLACES, {"destination": destination, "name": name, "sheet": sheet})
    assert answer.status_code == 201, answer.content
    return answer.json()


def test_words_are_read_and_nothing_is_kept(signed_in: Any) -> None:
    found = read(signed_in, WORDS)
    assert [WORDS[one["start"] : one["end"]] for one in found["not_understood"]] == ["splendid"]
    assert {one["key"] for one in found["understood"]} == {"size", "formats", "transparency", "max_bytes"}
    assert found["assumed"] == ["name"]
    shown = found["sheet"]
    assert next(one["text"] for one in shown["sentences"] if one["key"] == "size") == "Square, 1:1."
    assert (shown["size"], shown["least"]) == ({"width": 1024, "height": 1024}, {"width": 150, "height": 150})
    assert wall_proofs(signed_in, "juno") == {}


def test_what_cannot_hold_is_told_with_its_places(signed_in: Any) -> None:
    found = read(signed_in, "Square PNG of 1280 x 720 px")
    assert found["sheet"] is None
    assert found["problems"][0]["message"].endswith("1280 × 720 px are not 1:1.")
    assert [one["text"] for one in found["problems"][0]["places"]] == ["1280 x 720 px", "Square"]


def test_a_place_said_in_words_takes_a_mark(signed_in: Any, run: Any) -> None:
    place = added(signed_in, WORDS)
    assert (place["destination"], place["slug"], place["shown"]["name"]) == (
        "Riders' forum",
        "riders-forum-badge",
        "Badge",
    )
    upload(signed_in, "juno", "mark.svg", svg(), place["id"], run)
    proof = wall_proofs(signed_in, "juno")["Badge"]
    assert (proof["id"], proof["state"]) == (place["id"], "fits")


def test_places_of_one_destination_share_its_shelf_and_no_slug(signed_in: Any) -> None:
    first, second = (added(signed_in, "9 x 9 px", destination=name) for name in ("Forum", " forum "))
    assert [one["slug"] for one in (first, second)] == ["forum-badge", "forum-badge-2"]
    wall = signed_in.get("/api/workspaces/juno/wall").json()
    assert [(shelf["name"], len(shelf["placements"])) for shelf in wall["shelves"]] == [("Forum", 2)]


def change(client: Any, place: Any, run: Any, **more: Any) -> Any:
    with run(execute=True):
        answer = send(client, "patch", f"{PLACES}/{place['id']}", more)
    assert answer.status_code == 200, answer.content
    return answer.json()


def test_another_sheet_judges_what_stands_there_anew(signed_in: Any, run: Any) -> None:
    place = added(signed_in, WORDS)
    upload(signed_in, "juno", "mark.svg", svg(), place["id"], run)
    sheet = read(signed_in, "PNG, 64 x 64 px, at most 75 bytes")["sheet"]["sheet"]
    changed = change(signed_in, place, run, sheet=sheet, name="Tiny badge")
    assert (changed["slug"], changed["shown"]["name"]) == (place["slug"], "Tiny badge")
    assert wall_proofs(signed_in, "juno")["Tiny badge"]["state"] == "refused"


def test_another_name_makes_no_file_anew(signed_in: Any, run: Any) -> None:
    place = added(signed_in, WORDS)
    upload(signed_in, "juno", "mark.svg", svg(), place["id"], run)
    before = list(Rendition.objects.values_list("pk", "made_at"))
    change(signed_in, place, run, name="Medal")
    assert list(Rendition.objects.values_list("pk", "made_at")) == before
    assert wall_proofs(signed_in, "juno")["Medal"]["state"] == "fits"


def test_a_place_may_be_added_before_one_says_where_that_is(signed_in: Any) -> None:
    for destination in ("", "  "):
        assert added(signed_in, "9 x 9 px", destination=destination)["destination"] == "My places"


def test_a_place_moves_to_another_destination(signed_in: Any, run: Any) -> None:
    added(signed_in, "9 x 9 px", destination="Shop")
    place = added(signed_in, WORDS)
    moved = change(signed_in, place, run, destination="shop")
    assert (moved["destination"], moved["slug"]) == ("Shop", place["slug"])
    wall = signed_in.get("/api/workspaces/juno/wall").json()
    assert next((shelf["name"], len(shelf["placements"])) for shelf in wall["shelves"]) == ("Shop", 2)


def test_an_earlier_sheet_comes_back(signed_in: Any, run: Any) -> None:
    place = added(signed_in, WORDS)
    assert (place["revision"], place["earlier"]) == (1, [])
    changed = change(signed_in, place, run, sheet=read(signed_in, "PNG, 64 x 64 px")["sheet"]["sheet"], name="Badge")
    assert [(one["revision"], one["replaced_by"]) for one in changed["earlier"]] == [(1, "Juno")]
    assert changed["earlier"][0]["short"] == "at least 150 × 150 px, PNG"
    with run(execute=True):
        back = send(signed_in, "post", f"{PLACES}/{place['id']}/earlier/1").json()
    assert back["shown"]["sheet"]["size"] == place["shown"]["sheet"]["size"]
    assert (back["revision"], len(back["earlier"])) == (3, 2)
    assert send(signed_in, "post", f"{PLACES}/{place['id']}/earlier/9").status_code == 404


def test_what_changes_nothing_makes_no_revision(signed_in: Any, run: Any) -> None:
    place = added(signed_in, WORDS)
    assert change(signed_in, place, run, name="Badge", put_away=True)["revision"] == 1


def test_of_two_who_change_one_sheet_the_later_is_shown_the_others(signed_in: Any, run: Any) -> None:
    place = added(signed_in, WORDS)
    mine, theirs = (read(signed_in, words)["sheet"]["sheet"] for words in ("PNG, 64 x 64 px", "PNG, 32 x 32 px"))
    change(signed_in, place, run, sheet=theirs, revision=1)
    stale = send(signed_in, "patch", f"{PLACES}/{place['id']}", {"sheet": mine, "revision": 1})
    assert stale.status_code == 409
    assert stale.json()["newest"]["shown"]["sheet"]["size"] == {"width": 32, "height": 32}
    assert change(signed_in, place, run, sheet=mine, revision=2)["revision"] == 3


def test_a_place_that_is_put_away_takes_nothing_and_comes_back_as_it_was(signed_in: Any, run: Any) -> None:
    place = added(signed_in, WORDS)
    upload(signed_in, "juno", "mark.svg", svg(), place["id"], run)
    fit = wall_proofs(signed_in, "juno")["Badge"]["fit"]
    assert change(signed_in, place, run, put_away=True)["put_away"]
    assert wall_proofs(signed_in, "juno") == {}
    away = signed_in.get(f"/api/{PLACES}/put-away").json()
    assert [(one["id"], one["name"], one["destination"]) for one in away] == [(place["id"], "Badge", "Riders' forum")]
    assert deliver(signed_in, {}).status_code == 422
    refused = send(signed_in, "post", f"workspaces/juno/placements/{place['id']}/pieces", {"starting_point": 0})
    assert refused.status_code == 404
    change(signed_in, place, run, put_away=False)
    assert wall_proofs(signed_in, "juno")["Badge"]["fit"] == fit


@pytest.mark.parametrize(
    "more",
    [{"name": ""}, {"destination": "x" * 121}, {"sheet": {"fitzle_spec": 1}}, {"sheet": None}],
)
def test_what_is_no_place_is_refused(signed_in: Any, more: dict[str, Any]) -> None:
    good = {"destination": "Forum", "name": "Badge", "sheet": read(signed_in, "9 x 9 px")["sheet"]["sheet"]}
    answer = send(signed_in, "post", PLACES, {**good, **more})
    assert answer.status_code == 422 and answer.json()["message"]
    assert wall_proofs(signed_in, "juno") == {}


def test_nobody_sees_or_changes_places_of_others(signed_in: Any, make_person: Any) -> None:
    place = added(signed_in, WORDS)
    mallory, _ = make_person("mallory")
    stranger = Client()
    stranger.force_login(mallory, "django.contrib.auth.backends.ModelBackend")
    for workspace in ("juno", "mallory"):
        path = f"workspaces/{workspace}/places/{place['id']}"
        assert stranger.get(f"/api/{path}").status_code == 404
        assert send(stranger, "patch", path, {"name": "Mine"}).status_code == 404
    assert signed_in.get(f"/api/{PLACES}/{place['id']}").json()["shown"]["name"] == "Badge"


def test_sheets_come_out_of_files_and_nothing_is_kept(signed_in: Any) -> None:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("a.json", sheet(name="From a ZIP").model_dump_json())
        archive.writestr("b.json", "{")
    files = [SimpleUploadedFile("taken.png", saved(disc(64), "PNG")), SimpleUploadedFile("all.zip", out.getvalue())]
    found = signed_in.post(f"/api/{PLACES}/from-files", {"files": files}).json()
    assert [(one["file"], one["shown"] and one["shown"]["name"]) for one in found] == [
        ("taken.png", "taken"), ("a.json", "From a ZIP"), ("b.json", None)
    ]  # fmt: skip
    assert found[2]["message"] and wall_proofs(signed_in, "juno") == {}


def shelves(client: Any) -> list[dict[str, Any]]:
    return client.get("/api/workspaces/juno/wall").json()["shelves"]  # type: ignore[no-any-return]


def change_shelf(client: Any, number: int, **change: Any) -> Any:
    return send(client, "patch", f"workspaces/juno/destinations/{shelves(client)[number]['id']}", change)


def test_destinations_are_named_described_and_put_in_order(signed_in: Any, place: Any) -> None:
    for name in ("Forum", "Shop", "Course"):
        place(destination=name)
    assert change_shelf(signed_in, 2, position=0).status_code == 204
    assert [one["name"] for one in shelves(signed_in)] == ["Course", "Forum", "Shop"]
    change_shelf(signed_in, 1, name=" Riders' forum ", note="Ask Rowan", help_address="https://help.example/a")
    change_shelf(signed_in, 1, position=99)
    last = shelves(signed_in)[2]
    assert (last["name"], last["note"], last["help_address"]) == (
        "Riders' forum",
        "Ask Rowan",
        "https://help.example/a",
    )
    assert "Shop" in change_shelf(signed_in, 0, name="SHOP").json()["message"].title()


def test_figures_that_were_checked_long_ago_say_so(signed_in: Any, place: Any) -> None:
    place()
    for days, wants in ((10, False), (366, True)):
        change_shelf(signed_in, 0, checked_on=(timezone.localdate() - timedelta(days=days)).isoformat())
        assert shelves(signed_in)[0]["wants_checking"] is wants


@pytest.mark.parametrize(
    "change", [{"name": " "}, {"name": "x" * 121}, {"help_address": "javascript:alert(1)"}, {"position": -1},
               {"checked_on": "yesterday"}, {"note": "x" * 2001}],
)  # fmt: skip
def test_what_no_destination_can_be_is_refused(signed_in: Any, place: Any, change: dict[str, Any]) -> None:
    place()
    before = shelves(signed_in)
    assert change_shelf(signed_in, 0, **change).status_code == 422
    assert shelves(signed_in) == before


def effect_of(client: Any, entry: Any, **keys: Any) -> Any:
    wanted = sheet(**keys).model_dump(mode="json")
    return send(client, "post", f"{PLACES}/{entry.pk}/effect", {"sheet": wanted}).json()["fits"]


def test_what_a_sheet_would_do_is_said_before_it_is_saved(signed_in: Any, place: Any, run: Any) -> None:
    entry = place()
    upload(signed_in, "juno", "m.svg", svg(), str(entry.pk), run)
    before = wall_proofs(signed_in, "juno")
    kept = Rendition.objects.count()
    [same] = effect_of(signed_in, entry, name="Another name")
    assert (same["before"], same["after"], same["anew"], same["messages"]) == ("fits", "fits", "nothing", [])
    [larger] = effect_of(signed_in, entry, size={"width": 640, "height": 360})
    assert (larger["anew"], larger["after"]) == ("made", "fits")
    [seen] = effect_of(signed_in, entry, grounds=["#17181a"])
    assert seen["anew"] in ("judged", "made")
    assert wall_proofs(signed_in, "juno") == before and Rendition.objects.count() == kept, "nothing is kept"


def test_a_photo_that_a_larger_sheet_would_blur_is_said_to_become_risky(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(formats=["jpeg"])
    upload(signed_in, "juno", "photo.jpg", saved(photo(640, 360), "JPEG"), str(entry.pk), run)
    [one] = effect_of(signed_in, entry, size={"width": 3200, "height": 1800}, formats=["jpeg"])
    assert (one["before"], one["after"], one["anew"]) == ("fits", "risky", "made")
    assert any("larger" in message or "blur" in message for message in one["messages"])
