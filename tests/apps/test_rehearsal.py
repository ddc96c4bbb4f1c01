"""Uploads to the made-up destinations: taken, refused, seen again, and what happens where the other side fails."""

from __future__ import annotations

import io
import re
from collections.abc import Iterator
from typing import Any

import numpy as np
import pytest
from demo.sheets import shelves
from django.core.cache import cache
from PIL import Image

from fitzle.apps.uploading import http
from fitzle.rehearsal.judging import refusals
from fitzle.rehearsal.places import PLACES
from fitzle.rehearsal.showing import shown_picture
from tests.apps.helpers import content, deliver, send, upload, wall_proofs
from tests.make import disc, opened, photo, saved, svg
from tests.rehearsal import TOKEN, Running, running_rehearsal

pytestmark = pytest.mark.django_db
BASE = "/api/workspaces/juno/deliveries"
STICKER = {
    "kind": "sticker", "size": {"width": 296, "height": 296}, "formats": ["webp", "png"], "transparency": "required",
    "capacity": 60, "fields": [{"name": "label", "label": "Label"}, {"name": "tag", "label": "Tag"}],
}  # fmt: skip


@pytest.fixture(scope="module")
def process(tmp_path_factory: Any) -> Iterator[Running]:
    with running_rehearsal(tmp_path_factory.mktemp("rehearsal")) as running:
        yield running


@pytest.fixture
def rehearsal(process: Running, settings: Any, monkeypatch: Any) -> Running:
    settings.REHEARSAL, settings.REHEARSAL_TOKEN = process.address, TOKEN
    cache.clear()
    process.calm()
    monkeypatch.setattr(http, "sleep", lambda _seconds: None)
    return process


def sent(client: Any, fits: list[str] | None = None) -> Any:
    answer = deliver(client, {"way": "upload", **({"fits": fits} if fits else {})})
    assert answer.status_code == 201, answer.content
    return client.get(BASE).json()[0]


@pytest.fixture
def sticker(signed_in: Any, place: Any, run: Any) -> str:
    entry = place(name="Sticker", **STICKER)
    upload(signed_in, "juno", "ding.png", saved(disc(400), "PNG"), str(entry.pk), run)
    fit = str(wall_proofs(signed_in, "juno")["Sticker"]["fit"])
    values = {"values": {"label": "Ding", "tag": "bell"}}
    assert send(signed_in, "put", f"workspaces/juno/fits/{fit}/fields", values).status_code == 204
    return fit


def test_every_place_of_the_sample_has_a_rehearsal_of_its_kind() -> None:
    kinds = {sheet.kind for sheets in shelves().values() for sheet in sheets}
    assert kinds <= {place.kind for place in PLACES.values()} and len({place.page for place in PLACES.values()}) == 8


def test_an_accepted_upload_is_live_and_seen_on_its_page(rehearsal: Running, sticker: str, signed_in: Any) -> None:
    [ready] = signed_in.get(f"{BASE}/ready").json()["fits"]
    assert ready["upload"] == "Hearth Chat (rehearsal)"
    [file] = sent(signed_in)["files"]
    assert file["state"] == "done" and file["live_at"], "what the destination confirmed is live"
    answer = file["answer"]
    assert answer["taken"] and answer["agree"] and answer["ours"] == "fits" and answer["said"] == []
    assert answer["shown"]["score"] > 99 and answer["page"].endswith("/chat/")
    page = rehearsal.ask("/chat/").data.decode()
    assert 'title="Ding bell"' in page and "1 of 60" in page
    shown = rehearsal.ask(re.findall(r'src="(/pictures/sticker/1[^"]*)"', page)[0]).data
    assert opened(shown).size == (296, 296)
    proof = wall_proofs(signed_in, "juno")["Sticker"]
    assert (proof["slots"], proof["capacity"]) == (1, 60) and proof["live_since"]


def test_a_refused_upload_says_why_in_its_own_words_and_where_we_disagree(
    rehearsal: Running, sticker: str, signed_in: Any, run: Any
) -> None:
    send(signed_in, "put", f"workspaces/juno/fits/{sticker}/fields", {"values": {"label": "", "tag": ""}})
    told = sent(signed_in)
    [file] = told["files"]
    assert file["state"] == "failed" and "please fill this in" in file["message"]
    assert not file["answer"]["agree"] and file["answer"]["ours"] == "fits", "our sheet did not say that it is required"
    assert wall_proofs(signed_in, "juno")["Sticker"]["live_since"] is None
    send(signed_in, "put", f"workspaces/juno/fits/{sticker}/fields", {"values": {"label": "Ding", "tag": "bell"}})
    [mended] = sent(signed_in)["files"]
    assert mended["state"] == "done"


def test_an_error_and_a_cut_connection_are_tried_again(rehearsal: Running, sticker: str, signed_in: Any) -> None:
    rehearsal.goes_wrong(place="sticker", kind="error", left=1)
    rehearsal.goes_wrong(place="sticker", kind="cut", left=1)
    [file] = sent(signed_in)["files"]
    assert file["state"] == "done" and "1 of 60" in rehearsal.ask("/chat/").data.decode()


def test_a_destination_that_takes_it_and_says_it_failed_gets_no_second_one(
    rehearsal: Running, sticker: str, signed_in: Any
) -> None:
    rehearsal.goes_wrong(place="sticker", kind="lie", left=1)
    [file] = sent(signed_in)["files"]
    assert file["state"] == "done" and file["answer"]["again"], "the repeated upload had been taken already"
    assert "1 of 60" in rehearsal.ask("/chat/").data.decode()


def test_one_that_stays_out_of_order_is_said_and_can_be_tried_again(
    rehearsal: Running, sticker: str, signed_in: Any, run: Any
) -> None:
    rehearsal.goes_wrong(kind="error")
    told = sent(signed_in)
    assert told["files"][0]["state"] == "failed" and "out of order" in told["files"][0]["message"]
    assert "4 times" in told["files"][0]["message"] and told["state"] == "done"
    rehearsal.ask("/faults", "DELETE")
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/deliveries/{told['id']}/again")
    assert signed_in.get(BASE).json()[0]["files"][0]["state"] == "done"


def test_a_slow_one_is_not_waited_for_for_ever(
    rehearsal: Running, sticker: str, signed_in: Any, monkeypatch: Any
) -> None:
    monkeypatch.setattr(http, "READ_SECONDS", 0.4)
    rehearsal.goes_wrong(place="sticker", kind="slow", value=1.2)
    [file] = sent(signed_in)["files"]
    assert file["state"] == "failed" and "did not answer in time" in file["message"]


def test_where_nothing_runs_nothing_is_offered_and_an_upload_fails_in_words(
    sticker: str, signed_in: Any, settings: Any, monkeypatch: Any
) -> None:
    settings.REHEARSAL = "http://127.0.0.1:9"
    monkeypatch.setattr(http, "sleep", lambda _seconds: None)
    cache.clear()
    told = signed_in.get(f"{BASE}/ready").json()
    assert told["uploads"] == [] and told["fits"][0]["upload"] == ""
    [file] = sent(signed_in)["files"]
    assert file["state"] == "failed" and "nothing can be uploaded" in file["message"]


def test_a_wrong_token_is_said(rehearsal: Running, sticker: str, signed_in: Any, settings: Any) -> None:
    settings.REHEARSAL_TOKEN = "revoked"
    [file] = sent(signed_in)["files"]
    assert file["state"] == "failed" and "token is not known" in file["message"]


def test_an_old_picture_in_a_cache_is_measured(rehearsal: Running, signed_in: Any, place: Any, run: Any) -> None:
    entry = place(name="Card", kind="course-card", size={"width": 640, "height": 640}, formats=["jpeg"])
    upload(signed_in, "juno", "a.jpg", saved(photo(640, 640, seed=3), "JPEG"), str(entry.pk), run)
    [first] = sent(signed_in)["files"]
    assert first["answer"]["shown"]["width"] == 440 and 60 < first["answer"]["shown"]["score"] < 99
    assert "scaled to 440 × 440 px" in first["answer"]["shown"]["words"]
    rehearsal.goes_wrong(place="card", kind="cache", value=60)
    upload(signed_in, "juno", "b.jpg", saved(disc(640, "#b4541a", ground="#17443c"), "JPEG"), str(entry.pk), run)
    [second] = sent(signed_in)["files"]
    assert second["answer"]["shown"]["score"] < 20, "it shows the one before"


def test_the_window_of_a_sheet_is_the_part_that_is_chosen(
    rehearsal: Running, signed_in: Any, place: Any, run: Any
) -> None:
    window = {"name": "card", "x": 0.25, "y": 0.1, "width": 0.5, "height": 0.5}
    size = {"width": 640, "height": 640}
    entry = place(name="Card", kind="course-card", size=size, formats=["jpeg"], windows=[window])
    upload(signed_in, "juno", "a.jpg", saved(photo(640, 640), "JPEG"), str(entry.pk), run)
    [file] = sent(signed_in)["files"]
    assert (file["answer"]["shown"]["width"], file["answer"]["shown"]["height"]) == (320, 320)


def test_a_whole_icon_set_stands_on_its_page(rehearsal: Running, signed_in: Any, run: Any) -> None:
    artwork = upload(signed_in, "juno", "mark.svg", svg(), run=run)
    with run(execute=True):
        send(signed_in, "post", f"workspaces/juno/artwork/{artwork['id']}/icons")
    told = sent(signed_in)
    assert {file["state"] for file in told["files"]} == {"done"}, [file["message"] for file in told["files"]]
    assert 'href="/icons/icon.svg"' in rehearsal.ask("/site/").data.decode()
    for file in told["files"]:
        mine = content(signed_in.get(f"{BASE}/files/{file['id']}"))
        assert rehearsal.ask(f"/icons/{file['name']}").data == mine


def test_all_pages_open_empty_and_the_first_lists_them(rehearsal: Running) -> None:
    pages = re.findall(r'<li><a href="(/[^"]+/)"', rehearsal.ask("/").data.decode())
    assert len(pages) == 8
    for page in pages:
        answer = rehearsal.ask(page)
        assert answer.status == 200 and b"made up" in answer.data


def test_nothing_is_taken_without_the_token_and_one_key_counts_once(rehearsal: Running) -> None:
    file = ("x.png", saved(disc(296), "PNG"), "image/png")
    fields: Any = {"file": file, "label": "Ding", "tag": "bell"}
    no = rehearsal.ask("/upload/sticker", "POST", fields=fields, headers={"Authorization": "Bearer nobody"})
    assert no.status == 401 and "1 of 60" not in rehearsal.ask("/chat/").data.decode()
    answers = [
        rehearsal.ask("/upload/sticker", "POST", fields=fields, headers={"Idempotency-Key": "one"}) for _ in range(3)
    ]
    assert [one.status for one in answers] == [201, 200, 200] and {one.json()["slot"] for one in answers} == {1}
    assert rehearsal.ask("/upload/nowhere", "POST", fields=fields).status == 404
    assert rehearsal.ask("/faults", "POST", json={"kind": "fire"}).status == 422


def png(size: tuple[int, int], alpha: int = 255, fmt: str = "PNG") -> bytes:
    out = io.BytesIO()
    picture = Image.new("RGBA", size, (30, 60, 80, alpha))
    (picture if fmt in ("PNG", "WEBP") else picture.convert("RGB")).save(out, fmt)
    return out.getvalue()


@pytest.mark.parametrize(
    ("place", "data", "fields", "said"),
    [
        ("header", png((1704, 433), fmt="JPEG"), {}, ""),
        ("header", png((1704, 433)), {}, "Please send JPEG"),
        ("header", png((1700, 433), fmt="JPEG"), {}, "1700 by 433"),
        ("thumbnail", png((1280, 720), 200), {}, "see-through"),
        ("watermark", png((512, 512), 0), {}, ""),
        ("watermark", png((512, 512)), {}, "background"),
        ("record", b"no picture", {}, "could not open"),
        ("sticker", png((200, 240), 0), {"label": "a", "tag": "bell"}, "square"),
        ("sticker", png((900, 900), 0), {"label": "a", "tag": "bell"}, "Sides from 160 to 512"),
        ("sticker", png((200, 200), 0), {"label": "a", "tag": "ottermoor"}, "no emoji"),
        ("sticker", png((200, 200), 0), {"label": "a" * 31, "tag": "🔔"}, "31 letters"),
        ("sticker", png((200, 200), 0), {"label": "a", "tag": "red heart"}, ""),
        ("icons", b"<svg xmlns='http://www.w3.org/2000/svg'/>", {}, "no use for"),
    ],
)
def test_the_destinations_judge_by_themselves(place: str, data: bytes, fields: dict[str, str], said: str) -> None:
    found = " ".join(refusals(PLACES[place], "x.png", data, fields))
    assert said in found and bool(found) == bool(said)


def test_they_do_what_such_places_do() -> None:
    source = saved(photo(640, 640), "PNG")
    window, kind = shown_picture(PLACES["card"], "a.png", source, "0.25,0.25,0.5,0.5")
    assert opened(window).size == (320, 320) and kind == "image/jpeg"
    for odd in ("", "x", "0,0,2,2", "nan,0,1,1", "0.9,0.9,0.5,0.5"):
        assert opened(shown_picture(PLACES["card"], "a.png", source, odd)[0]).size == (440, 440)
    patch = np.asarray(opened(shown_picture(PLACES["patch"], "p.png", png((512, 512)), "")[0]).convert("RGBA"))
    assert patch.shape == (256, 256, 4) and patch[0, 0, 3] == 0 and patch[128, 128, 3] == 255
    same = png((880, 220), 0)
    assert shown_picture(PLACES["logo"], "l.png", same, "")[0] == same
