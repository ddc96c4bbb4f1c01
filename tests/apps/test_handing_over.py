"""A delivery in the hands of a worker: variants, folders, fields, failures, cancelling, the record of what is live."""

from __future__ import annotations

import io
import json
import zipfile
from pathlib import Path
from typing import Any

import pytest

from fitzle.apps.deliveries import handing_over
from fitzle.apps.deliveries.models import DeliveredFile, Delivery
from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.jobs.models import Job
from fitzle.apps.jobs.tasks import end_what_it_left, hand_over_files
from tests.apps.helpers import content, deliver, send, upload, wall_proofs
from tests.make import disc, photo, saved, svg

pytestmark = pytest.mark.django_db
BASE = "/api/workspaces/juno/deliveries"


def newest(client: Any) -> Any:
    return client.get(BASE).json()[0]


def states(client: Any) -> dict[str, str]:
    return {file["name"]: file["state"] for file in newest(client)["files"]}


def record(client: Any) -> dict[str, Any]:
    return {place["name"]: place for shelf in client.get(f"{BASE}/record").json() for place in shelf["places"]}


@pytest.fixture
def two(signed_in: Any, place: Any, run: Any) -> Any:
    """A mark in two places of one destination."""
    places = [place(name=name, naming=name.lower()) for name in ("Head", "Foot")]
    upload(signed_in, "juno", "mark.svg", svg(), ",".join(str(entry.pk) for entry in places), run)
    return places


def tint(client: Any, run: Any, name: str, colour: str) -> None:
    fit = client.get(f"/api/workspaces/juno/fits/{wall_proofs(client, 'juno')[name]['fit']}").json()
    body = {
        "revision": fit["piece"]["revision"], "step": "tint",
        "values": [{"part": "mark", "field": "tint", "value": colour}], "everywhere": False,
    }  # fmt: skip
    with run(execute=True):
        assert send(client, "patch", f"workspaces/juno/fits/{fit['id']}", body).status_code == 200


def test_light_and_dark_vector_and_bitmap_go_in_one_delivery(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(name="Head", naming="logo", formats=["png"], grounds=["#ffffff"])
    dark = upload(signed_in, "juno", "light.svg", svg('<circle cx="50" cy="25" r="20" fill="#f5f5f5"/>'), run=run)
    own = upload(
        signed_in, "juno", "mark.svg", svg('<circle cx="50" cy="25" r="20" fill="#141414"/>'), str(entry.pk), run
    )
    with run(execute=True):
        send(signed_in, "put", f"workspaces/juno/artwork/{own['id']}/version-of", {"artwork": dark["id"]})
    handing = {"replacing": "rule", "also": ["dark", "svg", "png"]}
    assert send(signed_in, "put", f"workspaces/juno/places/{entry.pk}/handing", handing).status_code == 204
    [ready] = signed_in.get(f"{BASE}/ready").json()["fits"]
    assert [file["name"] for file in ready["files"]] == ["logo.png", "logo-dark.png", "logo.svg"]
    deliver(signed_in)
    assert states(signed_in) == {"logo.png": "done", "logo-dark.png": "done", "logo.svg": "done"}
    with zipfile.ZipFile(io.BytesIO(content(signed_in.get(f"{BASE}/{newest(signed_in)['id']}/zip")))) as archive:
        by_name = {Path(name).name: archive.read(name) for name in archive.namelist()}
    assert by_name["logo.png"] != by_name["logo-dark.png"] and by_name["logo.svg"].startswith(b"<svg")
    told = {one["file"].split("/")[-1]: one for one in json.loads(by_name["delivery.json"])["files"]}
    assert told["logo-dark.png"]["variant"] == "dark" and told["logo.svg"]["format"] == "svg"
    assert wall_proofs(signed_in, "juno")["Head"]["state"] == "fits", "variants are not what the place shows"


def test_a_variant_with_the_same_bytes_goes_once(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(name="Head", naming="logo", grounds=["#ffffff"])
    upload(signed_in, "juno", "p.jpg", saved(photo(), "JPEG"), str(entry.pk), run)
    send(signed_in, "put", f"workspaces/juno/places/{entry.pk}/handing", {"also": ["dark", "light"]})
    deliver(signed_in)
    assert list(states(signed_in)) == ["logo.png"] and newest(signed_in)["state"] == "done"


def test_a_folder_of_the_server_is_kept_current(
    two: Any, signed_in: Any, run: Any, settings: Any, tmp_path: Path
) -> None:
    site = tmp_path / "site"
    site.mkdir()
    settings.DELIVER_INTO = {"juno": {"site": str(site)}, "mallory": {"theirs": str(tmp_path / "m")}}
    assert signed_in.get(f"{BASE}/ready").json()["folders"] == ["site"]
    assert deliver(signed_in, {"way": "folder", "folder": "theirs"}).status_code == 422
    assert deliver(signed_in, {"way": "folder", "folder": "site"}).status_code == 201
    there = sorted(str(one.relative_to(site)) for one in site.rglob("*") if one.is_file())
    assert there == ["delivery.json", "test-site/foot.png", "test-site/head.png"]
    before = {name: (site / name).stat().st_mtime_ns for name in there}
    deliver(signed_in, {"way": "folder", "folder": "site"})
    assert {file["written"] for file in newest(signed_in)["files"]} == {"unchanged"}
    tint(signed_in, run, "Head", "#b4541a")
    deliver(signed_in, {"way": "folder", "folder": "site", "changed": True})
    changed = {name for name in there if (site / name).stat().st_mtime_ns != before[name]}
    assert changed == {"delivery.json", "test-site/head.png"}
    told = json.loads((site / "delivery.json").read_text())
    assert [one["file"] for one in told["files"]] == ["test-site/foot.png", "test-site/head.png"]
    assert all(file["live_at"] for file in newest(signed_in)["files"]), "it stands where it is served from"


def test_a_folder_without_permission_fails_in_words_and_can_be_tried_again(
    two: Any, signed_in: Any, run: Any, settings: Any, tmp_path: Path
) -> None:
    target = tmp_path / "place"
    settings.DELIVER_INTO = {"juno": {"site": str(target)}}
    away = deliver(signed_in, {"way": "folder", "folder": "site"})
    assert away.status_code == 422 and "not there now" in away.json()["message"]
    target.mkdir()
    (target / "test-site").write_text("no folder")
    deliver(signed_in, {"way": "folder", "folder": "site"})
    told = newest(signed_in)
    assert {file["state"] for file in told["files"]} == {"failed"}
    assert "may be written to" in told["files"][0]["message"]
    assert wall_proofs(signed_in, "juno")["Head"]["state"] == "fits"
    (target / "test-site").unlink()
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/deliveries/{told['id']}/again")
    assert set(states(signed_in).values()) == {"done"} and (target / "test-site" / "head.png").is_file()


def test_one_file_that_fails_does_not_stop_the_others(two: Any, signed_in: Any, monkeypatch: Any) -> None:
    real = handing_over.made_bytes
    foot = str(two[1].pk)

    def broken(workspace: Any, sha256: str) -> bytes:
        if DeliveredFile.objects.filter(sha256=sha256, placement=foot, state="waiting").exists():
            raise OSError(5, "Input/output error")
        return real(workspace, sha256)

    monkeypatch.setattr(handing_over, "made_bytes", broken)
    tinted = DeliveredFile.objects.count()
    deliver(signed_in)
    assert tinted == 0 and states(signed_in)["foot.png"] == "failed"
    monkeypatch.undo()


def test_a_delivery_goes_on_where_a_worker_was_killed(two: Any, signed_in: Any, run: Any, monkeypatch: Any) -> None:
    real, done = handing_over.made_bytes, []

    class Killed(BaseException):
        """As if the process had ended."""

    def dies(workspace: Any, sha256: str) -> bytes:
        if done:
            raise Killed
        done.append(sha256)
        return real(workspace, sha256)

    monkeypatch.setattr(handing_over, "made_bytes", dies)
    with pytest.raises(Killed):
        deliver(signed_in)
    delivery = Delivery.objects.get()
    assert sorted(file.state for file in delivery.files.all()) == ["done", "waiting"] and delivery.state == "running"
    monkeypatch.undo()
    Job.objects.update(owner="", leased_until=None)  # as the sweeper does once the lease ran out
    hand_over_files(str(delivery.pk))
    assert set(states(signed_in).values()) == {"done"} and newest(signed_in)["state"] == "done"


def test_a_file_that_costs_too_much_is_told_and_the_rest_is_done(two: Any, signed_in: Any, run: Any) -> None:
    send(signed_in, "post", "workspaces/juno/deliveries", {})
    delivery = Delivery.objects.get()
    Delivery.objects.update(state="running")
    with run(execute=True):
        end_what_it_left(sender=hand_over_files, args=(str(delivery.pk),), exception=MemoryError())
    told = newest(signed_in)
    assert sorted(file["state"] for file in told["files"]) == ["done", "failed"] and told["state"] == "done"
    assert any("too much memory" in file["message"] for file in told["files"])


def test_cancelling_stops_before_the_next_file(two: Any, signed_in: Any, run: Any) -> None:
    made = send(signed_in, "post", "workspaces/juno/deliveries", {}).json()
    stopped = send(signed_in, "post", f"workspaces/juno/deliveries/{made['id']}/cancel").json()
    assert stopped["state"] == "cancelled" and {file["state"] for file in stopped["files"]} == {"cancelled"}
    hand_over_files(made["id"])
    assert set(states(signed_in).values()) == {"cancelled"}
    assert signed_in.get("/api/workspaces/juno/wall").json()["changed"] == 2, "nothing was handed over"
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/deliveries/{made['id']}/again")
    assert set(states(signed_in).values()) == {"done"}


def test_two_deliveries_of_one_place_get_versions_one_after_the_other(two: Any, signed_in: Any) -> None:
    first, second = (send(signed_in, "post", "workspaces/juno/deliveries", {}).json() for _ in range(2))
    for made in (second, first):  # and they may end in another order
        hand_over_files(made["id"])
    assert sorted(file.version for file in DeliveredFile.objects.filter(placement=two[0].pk)) == [1, 2]
    assert {one["state"] for one in signed_in.get(BASE).json()} == {"done"}
    assert wall_proofs(signed_in, "juno")["Head"]["state"] == "fits"


def test_what_comes_to_the_same_bytes_is_not_out_of_date(two: Any, signed_in: Any, run: Any) -> None:
    tint(signed_in, run, "Head", "#b4541a")
    deliver(signed_in)
    tint(signed_in, run, "Head", "#b4551a")
    assert wall_proofs(signed_in, "juno")["Head"]["state"] == "out of date"
    tint(signed_in, run, "Head", "#b4541a")
    assert wall_proofs(signed_in, "juno")["Head"]["state"] == "fits"


def test_an_earlier_file_is_taken_back_byte_for_byte(two: Any, signed_in: Any, run: Any) -> None:
    deliver(signed_in)
    tint(signed_in, run, "Head", "#b4541a")
    deliver(signed_in, {"changed": True})
    history = signed_in.get(f"{BASE}/record/{two[0].pk}").json()
    assert [entry["version"] for entry in history] == [2, 1] and history[0]["piece_revision"] > history[1][
        "piece_revision"
    ]
    first = content(signed_in.get(f"{BASE}/files/{history[1]['id']}"))
    assert content(signed_in.get(f"{BASE}/files/{history[1]['id']}/picture")) == first
    with run(execute=True):
        assert send(signed_in, "post", f"workspaces/juno/deliveries/files/{history[1]['id']}/back").status_code == 201
    back = newest(signed_in)["files"][0]
    assert (back["version"], back["state"]) == (3, "done") and content(
        signed_in.get(f"{BASE}/files/{back['id']}")
    ) == first
    assert wall_proofs(signed_in, "juno")["Head"]["state"] == "out of date", "what stands there now is another one"
    again = send(signed_in, "post", f"workspaces/juno/deliveries/files/{back['id']}/back")
    assert again.status_code == 422 and "handed over last" in again.json()["message"]


def test_what_is_live_is_what_was_confirmed_last(two: Any, signed_in: Any, run: Any) -> None:
    deliver(signed_in)
    head = record(signed_in)["Head"]
    assert head["live"] is None and not head["out_of_date"] and head["slots"] == 1
    told = send(signed_in, "put", f"workspaces/juno/deliveries/files/{head['file']['id']}/live", {"live": True}).json()
    assert told["live_at"]
    tint(signed_in, run, "Head", "#b4541a")
    deliver(signed_in, {"changed": True})
    head = record(signed_in)["Head"]
    assert head["live"]["version"] == 1 and head["file"]["version"] == 2 and head["earlier"] == 1
    send(signed_in, "put", f"workspaces/juno/deliveries/files/{head['live']['id']}/live", {"live": False})
    assert record(signed_in)["Head"]["live"] is None


def test_slots_are_counted_by_piece_and_a_full_place_takes_no_more(signed_in: Any, place: Any, run: Any) -> None:
    entry = place(name="Stickers", capacity=2)
    for colour in ("#17443c", "#b4541a"):
        upload(signed_in, "juno", f"{colour[1:]}.png", saved(disc(colour=colour), "PNG"), str(entry.pk), run)
        assert deliver(signed_in).status_code == 201
    proof = wall_proofs(signed_in, "juno")["Stickers"]
    assert (proof["slots"], proof["capacity"]) == (2, 2)
    assert deliver(signed_in).status_code == 201, "a piece that has a slot is replaced in it"
    upload(signed_in, "juno", "third.png", saved(disc(colour="#101820"), "PNG"), str(entry.pk), run)
    [ready] = signed_in.get(f"{BASE}/ready").json()["fits"]
    assert "all 2 slots" in ready["trouble"]
    full = deliver(signed_in)
    assert full.status_code == 422 and "take one down first" in full.json()["message"]
    first = signed_in.get(f"{BASE}/record/{entry.pk}").json()[-1]
    send(signed_in, "put", f"workspaces/juno/deliveries/files/{first['id']}/live", {"live": False})
    assert deliver(signed_in).status_code == 201


def test_fields_are_prepared_checked_and_handed_over(signed_in: Any, place: Any, run: Any) -> None:
    fields = [
        {"name": "label", "label": "Label", "required": True, "max_length": 12}, {"name": "tag", "label": "Tag"},
        {"name": "alt", "label": "Alternative text", "required": True},
    ]  # fmt: skip
    entry = place(name="Sticker", fields=fields)
    upload(signed_in, "juno", "wheel.svg", svg(), str(entry.pk), run)
    fit = wall_proofs(signed_in, "juno")["Sticker"]["fit"]
    [ready] = signed_in.get(f"{BASE}/ready").json()["fits"]
    assert "“Label” is missing" in ready["trouble"] and [one["kind"] for one in ready["fields"]] == [
        "text", "tag", "alternative text",
    ]  # fmt: skip
    path = f"workspaces/juno/fits/{fit}/fields"
    given = {"values": {"label": "x" * 13, "tag": "no emoji"}, "alternative_text": "A wheel"}
    assert send(signed_in, "put", path, given).status_code == 204
    [ready] = signed_in.get(f"{BASE}/ready").json()["fits"]
    assert "13 letters" in ready["fields"][0]["trouble"] and "none" in ready["fields"][1]["trouble"]
    send(signed_in, "put", path, {"values": {"label": "Wheel", "tag": "bicycle"}})
    [ready] = signed_in.get(f"{BASE}/ready").json()["fits"]
    assert ready["trouble"] == "" and ready["alternative_text"] == "A wheel"
    deliver(signed_in)
    with zipfile.ZipFile(io.BytesIO(content(signed_in.get(f"{BASE}/{newest(signed_in)['id']}/zip")))) as archive:
        [told] = json.loads(archive.read("delivery.json"))["files"]
    assert told["fields"] == {"label": "Wheel", "tag": "bicycle", "alt": "A wheel"}
    assert send(signed_in, "put", path, {"values": {"nothing": "x"}}).status_code == 422


def test_names_on_replacement_are_remembered_with_the_place(two: Any, signed_in: Any, run: Any) -> None:
    handing = f"workspaces/juno/places/{two[0].pk}/handing"
    send(signed_in, "put", handing, {"replacing": "version"})
    names = []
    for colour in ("#101820", "#b4541a", "#17443c"):
        tint(signed_in, run, "Head", colour)
        deliver(signed_in, {"changed": True})
        names += [name for name in states(signed_in) if name.startswith("head")]
    assert names == ["head.png", "head-v2.png", "head-v3.png"]
    send(signed_in, "put", handing, {"replacing": "same"})
    tint(signed_in, run, "Head", "#101820")
    deliver(signed_in, {"changed": True})
    assert "head-v3.png" in states(signed_in)


def test_all_in_one_folder_without_clashes(signed_in: Any, place: Any, run: Any) -> None:
    places = [place(name=name, destination=f"Site {name}", naming="Same") for name in ("A", "B")]
    upload(signed_in, "juno", "m.svg", svg(), ",".join(str(entry.pk) for entry in places), run)
    deliver(signed_in, {"flat": True})
    assert sorted(states(signed_in)) == ["same-2.png", "same.png"]
    assert {file["folder"] for file in newest(signed_in)["files"]} == {""}


def test_a_set_goes_whole_into_a_folder_of_its_place(signed_in: Any, run: Any) -> None:
    artwork = upload(signed_in, "juno", "mark.svg", svg(), run=run)
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/artwork/{artwork['id']}/icons")
    deliver(signed_in)
    told = newest(signed_in)
    assert {file["folder"] for file in told["files"]} == {"website/icon-set"} and len(told["files"]) == 9
    assert [file["name"] for file in told["files"] if not file["inside"]] == ["icon-512.png"]
    page = next(file for file in told["files"] if file["name"] == "icons.html")
    answer = signed_in.get(f"{BASE}/files/{page['id']}")
    assert answer["Content-Type"] == "text/html" and "attachment" in answer["Content-Disposition"]
    assert signed_in.get(f"{BASE}/files/{page['id']}/picture").status_code == 404
    assert wall_proofs(signed_in, "juno")["Icon set"]["state"] == "fits"


def test_five_hundred_files_are_one_zip(two: Any, signed_in: Any) -> None:
    deliver(signed_in)
    delivery = Delivery.objects.get()
    [one, _] = delivery.files.all()
    for number in range(500):
        one.pk, one.name = None, f"copy-{number:03}.png"
        one.save(force_insert=True)
    answer = signed_in.get(f"{BASE}/{delivery.pk}/zip")
    pieces = list(answer.streaming_content)
    assert len(pieces) > 500, "it is sent while it is written"
    with zipfile.ZipFile(io.BytesIO(b"".join(pieces))) as archive:
        assert len(archive.namelist()) == 503 and archive.testzip() is None
    assert b"".join(signed_in.get(f"{BASE}/{delivery.pk}/zip").streaming_content) == b"".join(pieces)


def test_what_changed_is_exactly_what_one_colour_changed(signed_in: Any, place: Any, run: Any) -> None:
    marks = [place(name=f"Mark {number}", destination=f"Site {number % 3}") for number in range(7)]
    photos = [place(name=f"Photo {number}", destination=f"Site {number % 3}", formats=["jpeg"]) for number in range(5)]
    upload(signed_in, "juno", "mark.svg", svg(), ",".join(str(entry.pk) for entry in marks), run)
    upload(signed_in, "juno", "p.jpg", saved(photo(), "JPEG"), ",".join(str(entry.pk) for entry in photos), run)
    deliver(signed_in)
    assert len(newest(signed_in)["files"]) == 12 and signed_in.get("/api/workspaces/juno/wall").json()["changed"] == 0
    fit = signed_in.get(f"/api/workspaces/juno/fits/{wall_proofs(signed_in, 'juno')['Mark 0']['fit']}").json()
    body = {
        "revision": fit["piece"]["revision"], "step": "tint", "everywhere": True,
        "values": [{"part": "mark", "field": "tint", "value": "#b4541a"}],
    }  # fmt: skip
    with run(execute=True):
        send(signed_in, "patch", f"workspaces/juno/fits/{fit['id']}", body)
    assert signed_in.get("/api/workspaces/juno/wall").json()["changed"] == 7
    deliver(signed_in, {"changed": True})
    assert {file["placement_name"] for file in newest(signed_in)["files"]} == {f"Mark {number}" for number in range(7)}
    states_now = {proof["state"] for proof in wall_proofs(signed_in, "juno").values()}
    assert states_now == {"fits"} and signed_in.get("/api/workspaces/juno/wall").json()["changed"] == 0


def test_a_disk_that_is_full_has_the_whole_delivery_wait(two: Any, signed_in: Any, run: Any, monkeypatch: Any) -> None:
    real = handing_over.made_bytes

    def full(_workspace: Any, _sha256: str) -> bytes:
        raise StorageFullError

    monkeypatch.setattr(handing_over, "made_bytes", full)
    deliver(signed_in)
    assert newest(signed_in)["state"] == "running" and set(states(signed_in).values()) == {"waiting"}
    [job] = Job.objects.all()
    assert job.owner == "" and job.message, "it says what it waits for, and is tried again"
    monkeypatch.setattr(handing_over, "made_bytes", real)
    hand_over_files(newest(signed_in)["id"])
    assert set(states(signed_in).values()) == {"done"} and not Job.objects.exists()
