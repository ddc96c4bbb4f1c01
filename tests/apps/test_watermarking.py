"""A mark over many pictures: looked at as they come in, marked by a worker, cancelled, taken up again, saved."""

import io
import zipfile
from datetime import timedelta
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.utils import timezone
from PIL import Image

from fitzle.apps.files.errors import StorageFullError
from fitzle.apps.files.models import KeptFile
from fitzle.apps.files.shelves import Shelf
from fitzle.apps.jobs.clearing import clear_workspace
from fitzle.apps.jobs.tasks import end_what_it_left, mark_pictures
from fitzle.apps.watermarking import actions, marking
from fitzle.apps.watermarking.models import MarkedPicture, Watermarking
from tests.apps.helpers import Bring, content, send
from tests.clips import clip
from tests.make import opened, photo, saved, svg

pytestmark = pytest.mark.django_db
WATERMARKS = "workspaces/juno/watermarks"
LIGHT = saved(Image.new("RGB", (600, 400), "#f4f1ea"), "JPEG")
DARK = saved(Image.new("RGB", (400, 600), "#181a1d"), "PNG")
GREY = saved(Image.new("RGB", (300, 300), "#7a7a7a"), "WEBP")


@pytest.fixture
def batch(signed_in: Any, bring: Bring) -> str:
    """A watermark of a dark mark, without pictures."""
    mark = bring("mark.svg", svg('<rect x="10" y="10" width="80" height="30" fill="#101214"/>'))["id"]
    return str(send(signed_in, "post", WATERMARKS, {"mark": mark}).json()["id"])


def add(client: Any, run: Any, batch: str, *files: tuple[str, bytes]) -> Any:
    """The answer to pictures dropped, after a worker looked at them."""
    with run(execute=True):
        uploads = [SimpleUploadedFile(name, data) for name, data in files]
        answer = client.post(f"/api/{WATERMARKS}/{batch}/pictures", {"files": uploads})
    return answer


def start(client: Any, run: Any, batch: str, folder: str = "") -> Any:
    """The watermark after a worker went through it."""
    with run(execute=True):
        answer = send(client, "post", f"{WATERMARKS}/{batch}/start", {"folder": folder})
    return answer if answer.status_code != 200 else view(client, batch)


def view(client: Any, batch: str) -> Any:
    return client.get(f"/api/{WATERMARKS}/{batch}").json()


def states(seen: Any) -> list[str]:
    return [entry["state"] for entry in seen["entries"]]


def zipped(client: Any, batch: str) -> zipfile.ZipFile:
    return zipfile.ZipFile(io.BytesIO(content(client.get(f"/api/{WATERMARKS}/{batch}/zip"))))


def test_pictures_are_looked_at_and_the_weakest_is_named(signed_in: Any, run: Any, batch: str) -> None:
    assert add(signed_in, run, batch, ("a.jpg", LIGHT), ("b.png", DARK), ("c.webp", GREY)).status_code == 202
    seen = view(signed_in, batch)
    assert states(seen) == ["ready"] * 3 and seen["reading"] == 0
    light, dark, grey = seen["entries"]
    assert (light["width"], light["height"]) == (600, 400)
    assert light["contrast"] > 8 and dark["contrast"] < 3 and dark["hardly_seen"] and not grey["hardly_seen"]
    assert (seen["weakest"], seen["strongest"], seen["hardly_seen"]) == (dark["id"], light["id"], 1)
    proof = opened(signed_in.get(f"/api/{WATERMARKS}/{batch}/pictures/{light['id']}/proof?width=300").content)
    shown = np.asarray(proof.convert("RGB")).astype(int)
    assert proof.size == (300, 200) and shown[-40:, -60:].min() < 80 and shown[:100, :150].min() > 220


def test_another_corner_or_version_is_foreseen_at_once(signed_in: Any, run: Any, bring: Bring, batch: str) -> None:
    half = Image.new("RGB", (600, 400), "#181a1d")
    half.paste("#f4f1ea", (0, 0, 300, 400))
    add(signed_in, run, batch, ("half.png", saved(half, "PNG")))
    [before] = view(signed_in, batch)["entries"]
    moved = send(signed_in, "patch", f"{WATERMARKS}/{batch}", {"stamp": {"corner": "bottom left"}}).json()
    assert moved["entries"][0]["contrast"] > 8 and before["contrast"] < 3
    assert moved["entries"][0]["key"] != before["key"] and moved["stamp"]["size"] == 0.12
    white = bring("white.svg", svg('<rect x="10" y="10" width="80" height="30" fill="#ffffff"/>'))["id"]
    send(signed_in, "put", f"workspaces/juno/artwork/{white}/version-of", {"artwork": moved["mark"]})
    back = send(signed_in, "patch", f"{WATERMARKS}/{batch}", {"stamp": {"corner": "bottom right"}}).json()
    assert back["entries"][0]["contrast"] > 3 and back["entries"][0]["version"] == 1
    assert [one["name"] for one in back["versions"]] == ["mark.svg", "white.svg"]


def test_all_are_marked_and_come_as_a_zip_under_their_names(signed_in: Any, run: Any, batch: str) -> None:
    add(signed_in, run, batch, ("Ride 1.jpg", LIGHT), ("ride 1.png", DARK), ("talk.mov", clip("mov")))
    done = start(signed_in, run, batch)
    assert (done["state"], states(done), done["made"]) == ("done", ["done"] * 3, 3)
    with zipped(signed_in, batch) as packed:
        assert packed.namelist() == ["Ride 1.jpg", "ride 1-2.png", "talk.mp4"]
        shown = opened(packed.read("Ride 1.jpg"))
    assert shown.size == (600, 400) and np.asarray(shown.convert("L"))[-60:, -80:].min() < 90
    entry = done["entries"][0]
    one = signed_in.get(f"/api/{WATERMARKS}/{batch}/pictures/{entry['id']}/file")
    assert entry["made_as"] == "Ride 1.jpg" and 'filename="Ride 1.jpg"' in one["Content-Disposition"]


def test_one_that_cannot_be_read_is_named_and_the_others_are_made(signed_in: Any, run: Any, batch: str) -> None:
    add(signed_in, run, batch, ("a.jpg", LIGHT), ("broken.jpg", LIGHT[:300]), ("drawing.svg", svg()), ("b.png", DARK))
    assert states(view(signed_in, batch)) == ["ready", "failed", "failed", "ready"]
    done = start(signed_in, run, batch)
    assert states(done) == ["done", "failed", "failed", "done"] and done["state"] == "done"
    assert "broken.jpg" in done["entries"][1]["message"] and "cannot be laid" in done["entries"][2]["message"]
    assert zipped(signed_in, batch).namelist() == ["a.jpg", "b.png"]
    removed = signed_in.delete(f"/api/{WATERMARKS}/{batch}/pictures/{done['entries'][1]['id']}")
    assert removed.status_code == 204 and len(view(signed_in, batch)["entries"]) == 3


def test_a_change_has_all_made_anew_and_the_same_again_gives_the_same_bytes(
    signed_in: Any, run: Any, batch: str
) -> None:
    add(signed_in, run, batch, ("a.jpg", saved(photo(400, 300), "JPEG")))
    start(signed_in, run, batch)
    first = zipped(signed_in, batch).read("a.jpg")
    send(signed_in, "patch", f"{WATERMARKS}/{batch}", {"stamp": {"opacity": 0.3}})
    assert (
        states(view(signed_in, batch)) == ["ready"]
        and signed_in.get(f"/api/{WATERMARKS}/{batch}/zip").status_code == 404
    )
    start(signed_in, run, batch)
    assert zipped(signed_in, batch).read("a.jpg") != first
    send(signed_in, "patch", f"{WATERMARKS}/{batch}", {"stamp": {}})
    start(signed_in, run, batch)
    assert zipped(signed_in, batch).read("a.jpg") == first


def test_it_is_cancelled_before_the_next_pictures_and_taken_up_again(
    signed_in: Any, run: Any, batch: str, monkeypatch: Any
) -> None:
    add(signed_in, run, batch, *((f"{n}.jpg", LIGHT) for n in range(5)))
    made, real = [], marking.stamped

    def cancelled_on_the_way(data: bytes, name: str, *rest: Any, **more: Any) -> Any:
        made.append(name)
        return real(data, name, *rest, **more)

    still_wanted = marking._still_wanted
    monkeypatch.setattr(marking, "stamped", cancelled_on_the_way)
    monkeypatch.setattr(
        marking, "_still_wanted", lambda one: _cancel_after(signed_in, batch, made) and still_wanted(one)
    )
    seen = start(signed_in, run, batch)
    assert seen["state"] == "cancelled" and states(seen).count("done") == len(made) == 2
    assert states(seen).count("ready") == 3
    monkeypatch.undo()
    done = start(signed_in, run, batch)
    assert (done["state"], states(done)) == ("done", ["done"] * 5)


def _cancel_after(client: Any, batch: str, made: list[str]) -> bool:
    if made:
        assert send(client, "post", f"{WATERMARKS}/{batch}/cancel").status_code == 200
    return True


def test_what_was_made_before_a_worker_died_is_not_made_again(
    signed_in: Any, run: Any, batch: str, monkeypatch: Any
) -> None:
    add(signed_in, run, batch, *((f"{n}.jpg", saved(photo(80 + n, 60), "JPEG")) for n in range(4)))
    asked, real = list[str](), marking.stamped

    def dying(data: bytes, name: str, *rest: Any, **more: Any) -> Any:
        asked.append(name)
        if len(asked) == 3:
            raise KeyboardInterrupt  # what is left behind is what a killed process leaves
        return real(data, name, *rest, **more)

    monkeypatch.setattr(marking, "stamped", dying)
    send(signed_in, "post", f"{WATERMARKS}/{batch}/start", {})
    with pytest.raises(KeyboardInterrupt):
        marking.work_on(batch)
    assert states(view(signed_in, batch)) == ["done", "done", "waiting", "waiting"]
    marking.work_on(batch)
    assert states(view(signed_in, batch)) == ["done"] * 4 and sorted(asked[:3]) == ["0.jpg", "1.jpg", asked[2]]
    assert sorted(asked[3:]) in (["2.jpg", "3.jpg"], ["2.jpg", "3.jpg", asked[2]]) or len(asked) <= 6


def test_a_picture_that_costs_the_worker_twice_fails_alone(signed_in: Any, run: Any, batch: str) -> None:
    add(signed_in, run, batch, ("a.jpg", LIGHT), ("b.jpg", LIGHT), ("c.jpg", LIGHT))
    Watermarking.objects.update(state="running")
    MarkedPicture.objects.update(state="waiting")
    MarkedPicture.objects.filter(name="b.jpg").update(attempts=2)
    with run(execute=True):
        end_what_it_left(sender=mark_pictures, args=(batch,), exception=MemoryError())
    seen = view(signed_in, batch)
    assert states(seen) == ["done", "failed", "done"] and seen["state"] == "done"
    assert seen["entries"][1]["message"].startswith("b.jpg: marking it takes too long")


def test_where_the_disk_is_full_all_of_it_waits(signed_in: Any, run: Any, batch: str, monkeypatch: Any) -> None:
    add(signed_in, run, batch, ("a.jpg", LIGHT))

    def full(*_: Any) -> Any:
        raise StorageFullError

    with monkeypatch.context() as patched:
        patched.setattr(marking, "keep_by_content", full)
        waiting = start(signed_in, run, batch)
    assert (waiting["state"], states(waiting)) == ("running", ["waiting"])
    mark_pictures(batch)
    assert states(view(signed_in, batch)) == ["done"]


def test_a_folder_of_the_server_gets_them_unless_they_are_there(
    signed_in: Any, run: Any, batch: str, settings: Any, tmp_path: Path
) -> None:
    folder = tmp_path / "marked"
    folder.mkdir()
    settings.DELIVER_INTO = {"juno": {"marked": str(folder)}}
    add(signed_in, run, batch, ("a.jpg", LIGHT), ("b.png", DARK))
    assert start(signed_in, run, batch, "elsewhere").status_code == 422
    assert start(signed_in, run, batch, "marked")["state"] == "done"
    assert sorted(path.name for path in folder.iterdir()) == ["a.jpg", "b.png"]
    written = {path.name: path.stat().st_mtime_ns for path in folder.iterdir()}
    send(signed_in, "patch", f"{WATERMARKS}/{batch}", {"stamp": {}})
    start(signed_in, run, batch, "marked")
    assert {path.name: path.stat().st_mtime_ns for path in folder.iterdir()} == written


def test_nothing_is_changed_while_they_are_marked(signed_in: Any, run: Any, batch: str) -> None:
    add(signed_in, run, batch, ("a.jpg", LIGHT))
    Watermarking.objects.update(state="running")
    for method, path, body in (("patch", "", {"stamp": {}}), ("delete", "", None), ("post", "/start", {})):
        answer = send(signed_in, method, f"{WATERMARKS}/{batch}{path}", body)
        assert answer.status_code == 422 and "being marked" in answer.json()["message"]
    assert add(signed_in, run, batch, ("b.jpg", LIGHT)).status_code == 422


@pytest.mark.parametrize(
    ("stamp", "words"), [({"size": 0}, "size"), ({"opacity": 2}, "opacity"), ({"corner": "middle"}, "corner")]
)
def test_what_cannot_be_is_refused(signed_in: Any, batch: str, stamp: Any, words: str) -> None:
    answer = send(signed_in, "patch", f"{WATERMARKS}/{batch}", {"stamp": stamp})
    assert answer.status_code == 422 and words in answer.json()["message"]


def test_there_are_not_more_pictures_than_can_be_seen_to(
    signed_in: Any, run: Any, batch: str, monkeypatch: Any
) -> None:
    monkeypatch.setattr(actions, "MOST_PICTURES", 2)
    add(signed_in, run, batch, ("a.jpg", LIGHT), ("b.jpg", LIGHT))
    refused = add(signed_in, run, batch, ("c.jpg", LIGHT))
    assert refused.status_code == 422 and "at most 2" in refused.json()["message"]


def test_a_mark_that_is_gone_is_said(signed_in: Any, run: Any, batch: str) -> None:
    add(signed_in, run, batch, ("a.jpg", LIGHT))
    Watermarking.objects.update(mark=None)
    done = start(signed_in, run, batch)
    assert states(done) == ["failed"] and "mark is not there any more" in done["entries"][0]["message"]


def test_originals_and_files_stay_as_long_as_it_does(signed_in: Any, run: Any, batch: str) -> None:
    add(signed_in, run, batch, ("a.jpg", LIGHT))
    start(signed_in, run, batch)
    KeptFile.objects.update(kept_at=timezone.now() - timedelta(days=9))
    clear_workspace(Watermarking.objects.get().workspace_id, timezone.now() - timedelta(days=1))
    assert zipped(signed_in, batch).namelist() == ["a.jpg"], "it is younger than what is cleared away"
    Watermarking.objects.update(made_at=timezone.now() - timedelta(days=9))
    space = Watermarking.objects.get().workspace_id
    clear_workspace(space, timezone.now() - timedelta(days=1))
    assert not Watermarking.objects.exists()
    assert not KeptFile.objects.filter(workspace_id=space, shelf=Shelf.MADE).exists()
