"""Files come in, are kept byte for byte, and end as ready or as a clear message."""

import io
import json
from typing import Any

import pytest
from PIL import Image

from fitzle.apps.artwork.intake import end_unread
from fitzle.apps.artwork.models import Artwork
from tests.apps.helpers import send, upload, wall_proofs
from tests.core.test_lottie import wheel
from tests.make import disc, photo, saved, svg

pytestmark = pytest.mark.django_db


def test_an_upload_is_kept_byte_for_byte_and_read(signed_in: Any, run: Any) -> None:
    data = saved(photo(), "JPEG")
    found = upload(signed_in, "juno", "a photo.jpg", data, run=run)
    assert (found["state"], found["progress"], found["facts"]["kind"]) == ("ready", 100, "picture")
    original = signed_in.get(f"/api/workspaces/juno/artwork/{found['id']}/original")
    assert original.getvalue() == data
    assert original["Content-Disposition"].startswith("attachment")
    assert original["X-Content-Type-Options"] == "nosniff"
    address = f"/api/workspaces/juno/artwork/{found['id']}/picture?width=64"
    assert "no-store" in signed_in.get(address)["Cache-Control"]
    picture = signed_in.get(f"{address}&key={found['key']}")
    assert picture["Content-Type"] == "image/jpeg"
    assert "immutable" in picture["Cache-Control"]


@pytest.mark.parametrize(
    ("name", "data", "words"),
    [
        ("empty.png", b"", "empty"), ("cut.png", saved(disc(), "PNG")[:200], "cut off"),
        ("evil.svg", svg("<script/>"), "script"), ("note.txt", b"hello", "not a picture"),
        ("schön\u202e.png", b"\x00\x01", "not a picture"), ("x" * 300 + ".png", b"zzz", "not a picture"),
    ],
)  # fmt: skip
def test_a_broken_file_ends_as_a_message_on_the_artwork(
    signed_in: Any, run: Any, name: str, data: bytes, words: str
) -> None:
    found = upload(signed_in, "juno", name, data, run=run)
    assert found["state"] == "failed"
    assert words in found["message"]
    assert found["facts"] is None


def test_one_broken_file_does_not_stop_the_others(signed_in: Any, run: Any) -> None:
    from django.core.files.uploadedfile import SimpleUploadedFile

    files = [SimpleUploadedFile("bad.svg", b"<svg"), SimpleUploadedFile("good.svg", svg())]
    with run(execute=True):
        signed_in.post("/api/workspaces/juno/artwork", {"files": files, "targets": ""})
    states = {entry["name"]: entry["state"] for entry in signed_in.get("/api/workspaces/juno/artwork").json()}
    assert states == {"bad.svg": "failed", "good.svg": "ready"}


def test_a_failure_of_ours_is_a_message_too(signed_in: Any, run: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    def broken(*_: object) -> None:
        raise RuntimeError("boom")

    monkeypatch.setattr("fitzle.apps.artwork.intake.read_and_judge", broken)
    found = upload(signed_in, "juno", "a.svg", svg(), run=run)
    assert found["state"] == "failed"
    assert "on our side" in found["message"]


def test_what_is_too_heavy_is_refused_before_it_is_read(signed_in: Any, settings: Any) -> None:
    settings.UPLOAD_LIMIT_BYTES = settings.UPLOAD_LIMIT_CLIP_BYTES = 1000
    answer = signed_in.post("/api/workspaces/juno/artwork", {"files": [], "x": "y" * 200_000})
    assert answer.status_code == 413
    assert "too heavy" in answer.json()["message"]


def test_a_large_photo_gets_a_working_copy(signed_in: Any, run: Any) -> None:
    from fitzle.apps.artwork.models import Artwork

    data = saved(photo(2600, 1300), "JPEG")
    found = upload(signed_in, "juno", "large.jpg", data, run=run)
    assert Artwork.objects.get(pk=found["id"]).working_format == "jpeg"
    assert signed_in.get(f"/api/workspaces/juno/artwork/{found['id']}/picture?width=500").status_code == 200


def test_dropping_on_a_place_fills_it_and_on_the_wall_every_empty_one_it_suits(
    signed_in: Any, place: Any, run: Any
) -> None:
    one = place(name="One")
    place(name="Clear", transparency="required")
    place(name="Photo only", formats=["jpeg"])
    upload(signed_in, "juno", "mark.svg", svg(), str(one.pk), run)
    assert {name: proof["state"] for name, proof in wall_proofs(signed_in, "juno").items()} == {
        "One": "fits", "Clear": "empty", "Photo only": "empty"}  # fmt: skip
    upload(signed_in, "juno", "other.svg", svg('<circle cx="9" cy="9" r="8"/>'), "suited", run)
    proofs = wall_proofs(signed_in, "juno")
    assert proofs["Clear"]["state"] == "fits"
    assert proofs["Photo only"]["state"] == "empty"
    assert signed_in.get("/api/workspaces/juno/wall").json()["deliverable"] == 2


def test_a_drop_on_a_place_that_is_not_there_is_404(signed_in: Any) -> None:
    from django.core.files.uploadedfile import SimpleUploadedFile

    for wrong in ("nonsense", "00000000-0000-0000-0000-000000000000"):
        body = {"files": [SimpleUploadedFile("a.svg", svg())], "targets": wrong}
        assert signed_in.post("/api/workspaces/juno/artwork", body).status_code == 404


def test_renaming_leaves_the_file_alone(signed_in: Any, run: Any) -> None:
    found = upload(signed_in, "juno", "a.svg", svg(), run=run)
    path = f"/api/workspaces/juno/artwork/{found['id']}"
    answer = signed_in.patch(path, {"name": " New name "}, content_type="application/json")
    assert answer.json()["name"] == "New name"
    assert signed_in.get(f"{path}/original").getvalue() == svg()


def test_artwork_waits_for_its_places_and_stops_waiting_when_its_worker_was_ended(
    signed_in: Any, place: Any, run: Any
) -> None:
    art = upload(signed_in, "juno", "m.svg", svg(), str(place().pk), run)
    assert art["state"] == "ready" and art["targets"] == [], "it stands where it was dropped"
    Artwork.objects.filter(pk=art["id"]).update(targets=["somewhere"])
    end_unread(art["id"])
    assert Artwork.objects.get(pk=art["id"]).targets == []


def test_a_lottie_animation_is_kept_and_checked(signed_in: Any, run: Any) -> None:
    """It is shown, and a moving picture can be made of it; it stands in no place by itself."""
    data = json.dumps(wheel()).encode()
    found = upload(signed_in, "juno", "wheel.json", data, "suited", run=run)
    assert (found["state"], found["facts"]["format"], found["facts"]["kind"]) == ("ready", "lottie", "clip")
    assert found["targets"] == []
    path = f"/api/workspaces/juno/artwork/{found['id']}"
    assert signed_in.get(f"{path}/original").getvalue() == data
    with Image.open(io.BytesIO(signed_in.get(f"{path}/picture?width=64").getvalue())) as picture:
        assert picture.size[0] == 64 and len(set(picture.convert("RGBA").resize((8, 8)).get_flattened_data())) > 1
    with run(execute=True):
        made = send(signed_in, "post", f"{path}/loops".removeprefix("/api/"), {})
    assert made.status_code == 202
    loop = signed_in.get(f"/api/workspaces/juno/artwork/{made.json()['id']}").json()
    assert (loop["state"], loop["facts"]["format"], loop["facts"]["kind"]) == ("ready", "webp", "mark")
    assert loop["facts"]["frames"] > 1 and loop["facts"]["has_alpha"]
    assert signed_in.get(f"{path}/clip").status_code == 404
    bad = upload(signed_in, "juno", "bad.json", data.replace(b'"fr": 30', b'"fr": 0'), run=run)
    assert (bad["state"], "fr" in bad["message"]) == ("failed", True)


def test_a_picture_is_shown_before_it_is_measured(signed_in: Any, run: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    """While the worker still measures, the list says that there is a picture, and the address gives it."""
    from fitzle.apps.artwork.models import Artwork
    from fitzle.core.artwork import reading

    seen: list[Any] = []
    measure = reading.with_detail

    def looked_in(*given: Any) -> Any:
        [entry] = signed_in.get("/api/workspaces/juno/artwork").json()
        picture = signed_in.get(f"/api/workspaces/juno/artwork/{entry['id']}/picture?width=200")
        seen.append((entry["state"], entry["visible"], entry["facts"], picture.status_code, picture["Content-Type"]))
        return measure(*given)

    monkeypatch.setattr(reading, "with_detail", looked_in)
    for size in ((2600, 1300), (300, 200)):  # with a working copy, and small enough to be shown from itself
        found = upload(signed_in, "juno", "photo.jpg", saved(photo(*size), "JPEG"), run=run)
        assert found["visible"] is True
        Artwork.objects.all().delete()
    assert seen == [("reading", True, None, 200, "image/jpeg")] * 2
